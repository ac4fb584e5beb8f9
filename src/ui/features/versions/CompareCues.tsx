"use client";

import { Button, Group, Modal, Select, Stack, Table, Text } from "@mantine/core";
import { useMemo, useState } from "react";
import { lookDifference, lookOfCue } from "@/core/cue/compare";
import { select } from "@/core/select/intents";
import type { Cue, CueList } from "@/core/show/schema";
import { itemsText } from "@/core/show/words/itemsText";
import { cuesOf, listsByNumber } from "@/core/show/world";
import { grouped } from "@/core/units/grouped";
import { plain } from "@/core/units/units";
import { LookPicture } from "@/ui/stage/pictures/LookPicture";
import { useSession, useShow } from "@/ui/show/useSession";
import { differsText } from "./differs";
import classes from "./Versions.module.css";
import { plural } from "@/core/units/plural";

const PICTURE = { width: 326, height: 208 };
const MOST = 300;

/** Two cues side by side: their pictures with what differs ringed, and every difference in words. */
export function CompareCues({ list, cue, onClose }: { list: CueList; cue: Cue; onClose(): void }) {
  const session = useSession();
  const world = useShow((s) => s.world);
  const { show } = world;
  const order = cuesOf(list);
  const beside = order[order.indexOf(cue) - 1] ?? order[order.indexOf(cue) + 1] ?? cue;
  const [otherList, setOtherList] = useState(list.id);
  const [otherCue, setOtherCue] = useState(beside.id);
  const owner = show.lists[otherList] ?? list;
  const other = owner.cues[otherCue] ?? cuesOf(owner)[0];
  const differs = useMemo(
    () => (other ? lookDifference(show, lookOfCue(show, owner, other.id), lookOfCue(show, list, cue.id)) : []),
    [show, owner, other, list, cue],
  );
  const marks = useMemo(() => differs.map((d) => d.fixture), [differs]);
  /** Those that differ alike stand together. */
  const rows = useMemo(
    () => [...grouped(differs, differsText)].map(([words, all]) => [words, all.map((d) => d.fixture)] as const),
    [differs],
  );
  const label = (c: Cue) => `${plain(c.number, 3)} ${c.name}`;
  return (
    <Modal opened onClose={onClose} size={800} centered title={`Cue ${label(cue)} beside another`}>
      <Stack gap="sm">
        <Group gap="sm">
          <Select
            size="xs"
            w={200}
            aria-label="List of the other cue"
            allowDeselect={false}
            data={listsByNumber(show)
              .filter((l) => cuesOf(l).length > 0)
              .map((l) => ({ value: l.id, label: `${l.number} ${l.name}` }))}
            value={owner.id}
            onChange={(v) => v && (setOtherList(v), setOtherCue(""))}
          />
          <Select
            size="xs"
            w={260}
            aria-label="The other cue"
            allowDeselect={false}
            searchable
            data={cuesOf(owner).map((c) => ({ value: c.id, label: label(c) }))}
            value={other?.id ?? null}
            onChange={(v) => v && setOtherCue(v)}
          />
        </Group>
        {other && (
          <div className={classes.both}>
            <figure>
              <LookPicture list={owner.id} cue={other.id} {...PICTURE} marks={marks} label={`Cue ${label(other)}`} />
              <figcaption>cue {label(other)}</figcaption>
            </figure>
            <figure>
              <LookPicture list={list.id} cue={cue.id} {...PICTURE} marks={marks} label={`Cue ${label(cue)}`} />
              <figcaption>cue {label(cue)}</figcaption>
            </figure>
          </div>
        )}
        <Group justify="space-between">
          <Text size="sm" data-testid="compare-says">
            {differs.length === 0
              ? "They look the same."
              : `${plural(differs.length, "fixture looks", "fixtures look")} different.`}
          </Text>
          {differs.length > 0 && (
            <Button
              size="compact-sm"
              variant="default"
              onClick={() => (session.act([select.of({ items: marks })], "select"), onClose())}
            >
              Select them
            </Button>
          )}
        </Group>
        {differs.length > 0 && (
          <div className={classes.table}>
            <Table verticalSpacing={2} aria-label="What differs">
              <Table.Tbody>
                {rows.slice(0, MOST).map(([words, ids]) => (
                  <Table.Tr key={words}>
                    <Table.Td className="num">{itemsText(world, ids)}</Table.Td>
                    <Table.Td>
                      {ids.length === 1 ? show.fixtures[ids[0]!]?.name : plural(ids.length, "fixture")}
                    </Table.Td>
                    <Table.Td>{words}</Table.Td>
                  </Table.Tr>
                ))}
              </Table.Tbody>
            </Table>
            {rows.length > MOST && <Text c="dimmed">and {rows.length - MOST} more</Text>}
          </div>
        )}
      </Stack>
    </Modal>
  );
}
