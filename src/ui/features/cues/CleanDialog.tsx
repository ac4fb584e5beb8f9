"use client";

import { Button, Group, Modal, Select, Stack, Table, Text } from "@mantine/core";
import { useMemo, useState } from "react";
import { clean, cleaned, cuesWithin, firstOther } from "@/core/cue/intents/cleanIntent";
import { driftsOf, type Drift } from "@/core/cue/drift";
import { lifeOf, nextLitIn } from "@/core/cue/life";
import { attributeInfo } from "@/core/fixture/attribute";
import { splitKey } from "@/core/show/ids";
import { itemsText } from "@/core/show/words/itemsText";
import type { CueList, Show } from "@/core/show/schema";
import { cuesOf } from "@/core/show/world";
import { plain } from "@/core/units/units";
import { LookPicture } from "@/ui/stage/pictures/LookPicture";
import { useSession, useShow } from "@/ui/show/useSession";
import classes from "./Cues.module.css";
import { plural } from "@/core/units/plural";

const PICTURE = { width: 84, height: 60 };
const MOST = 60;

interface Row {
  cue: string;
  kind: Drift["kind"];
  fixtures: string[];
  attributes: string;
  /** Where it will be stored instead; -1 where nothing shows it again. */
  then: number;
  curable: boolean;
}

/** Drifts that go the same way in one row. */
function rowsOf(show: Show, list: CueList, drifts: readonly Drift[]): Row[] {
  const rows = new Map<string, Row>();
  for (const { cue, at, fixture, kind, changes, curable } of drifts) {
    const attributes = [...new Set(changes.map((c) => attributeInfo(splitKey(c.key).head).label.toLowerCase()))].join(
      ", ",
    );
    const then = nextLitIn(lifeOf(show, list, show.fixtures[fixture]!), at);
    const name = `${cue} ${kind} ${attributes} ${then} ${curable}`;
    const row = rows.get(name);
    if (row) row.fixtures.push(fixture);
    else rows.set(name, { cue, kind, fixtures: [fixture], attributes, then, curable });
  }
  return [...rows.values()];
}

/** Drift taken out of a list, a range or one cue: every row before it is done, the proof that no look changes, all at once or step by step. */
export function CleanDialog({ list, cue, onClose }: { list: CueList; cue?: string | undefined; onClose(): void }) {
  const session = useSession();
  const world = useShow((s) => s.world);
  const { show } = world;
  const now = show.lists[list.id] ?? list;
  const order = cuesOf(now);
  const [from, setFrom] = useState(cue ?? order[0]?.id ?? "");
  const [thru, setThru] = useState(cue ?? order.at(-1)?.id ?? "");
  const within = useMemo(() => cuesWithin(now, from, thru), [now, from, thru]);
  const drifts = useMemo(() => driftsOf(show, now).filter((d) => within.has(d.cue)), [show, now, within]);
  const rows = useMemo(() => rowsOf(show, now, drifts), [show, now, drifts]);
  const after = useMemo(() => cleaned(show, now, within), [show, now, within]);
  const other = useMemo(() => (after === now ? undefined : firstOther(show, now, after)), [show, now, after]);
  const then = useMemo(() => ({ ...show, lists: { ...show.lists, [now.id]: after } }), [show, now, after]);
  const first = drifts.find((d) => d.curable)?.cue;
  const curable = rows.filter((r) => r.curable);
  const number = (id: string) => plain(now.cues[id]?.number ?? 0, 3);
  const all = from === order[0]?.id && thru === order.at(-1)?.id;
  const pick = (label: string, value: string, set: (v: string) => void) => (
    <Select
      size="xs"
      w={210}
      aria-label={label}
      allowDeselect={false}
      searchable
      data={order.map((c) => ({ value: c.id, label: `${plain(c.number, 3)} ${c.name}` }))}
      value={value}
      onChange={(v) => v && set(v)}
    />
  );
  return (
    <Modal opened onClose={onClose} size={860} centered title={`Clean ${now.name}`}>
      <Stack gap="sm">
        <Group gap="xs">
          <Text size="sm">From cue</Text>
          {pick("First cue", from, setFrom)}
          <Text size="sm">to</Text>
          {pick("Last cue", thru, setThru)}
        </Group>
        {rows.length === 0 ? (
          <Text c="dimmed">Nothing drifts there: whatever moves in the dark moves where it is next seen.</Text>
        ) : (
          <div className={classes.drifts}>
            <Table verticalSpacing={3} stickyHeader aria-label="What drifts">
              <Table.Thead>
                <Table.Tr>
                  <Table.Th>Look now and cleaned</Table.Th>
                  <Table.Th>Cue</Table.Th>
                  <Table.Th>Fixtures</Table.Th>
                  <Table.Th>What</Table.Th>
                  <Table.Th>Stored instead</Table.Th>
                </Table.Tr>
              </Table.Thead>
              <Table.Tbody>
                {rows.slice(0, MOST).map((r) => (
                  <Table.Tr key={`${r.cue} ${r.fixtures[0]} ${r.attributes}`}>
                    <Table.Td>
                      <span style={{ display: "flex", gap: 4 }}>
                        <LookPicture
                          list={now.id}
                          cue={r.cue}
                          {...PICTURE}
                          marks={r.fixtures}
                          label={`Cue ${number(r.cue)} now`}
                        />
                        <LookPicture
                          list={now.id}
                          cue={r.cue}
                          {...PICTURE}
                          of={then}
                          marks={r.fixtures}
                          label={`Cue ${number(r.cue)} cleaned`}
                        />
                      </span>
                    </Table.Td>
                    <Table.Td className="num">{number(r.cue)}</Table.Td>
                    <Table.Td>{itemsText(world, r.fixtures)}</Table.Td>
                    <Table.Td>
                      {r.attributes} <span className="muted">{r.kind === "lit" ? "while fading out" : "unseen"}</span>
                    </Table.Td>
                    <Table.Td>
                      {!r.curable
                        ? "cannot be: no entry of this cue does it"
                        : r.then < 0
                          ? "nowhere: nothing shows it again"
                          : `cue ${plain(order[r.then]!.number, 3)}, where that is not there already`}
                    </Table.Td>
                  </Table.Tr>
                ))}
              </Table.Tbody>
            </Table>
            {rows.length > MOST && <Text c="dimmed">and {rows.length - MOST} more</Text>}
          </div>
        )}
        <Group justify="space-between">
          <Text size="sm" c={other ? "var(--danger)" : undefined} data-testid="clean-proof">
            {curable.length === 0
              ? ""
              : other
                ? `It would change cue ${number(other.cue)}: fixture ${show.fixtures[other.fixture]?.number}, ${splitKey(other.key).head}. Clean other cues, or mark the move as meant.`
                : `All ${order.length} looks compared: every one stays as it is.`}
          </Text>
          <Group gap="xs">
            <Button
              variant="default"
              disabled={!first}
              title="One cue at a time"
              onClick={() => first && session.act([clean.of({ list: now.id, cue: first })])}
            >
              Clean the next cue{first ? `: ${number(first)}` : ""}
            </Button>
            <Button
              disabled={curable.length === 0 || other !== undefined}
              onClick={() => session.act([clean.of(all ? { list: now.id } : { list: now.id, cue: from, thru })])}
            >
              Clean {plural(drifts.filter((d) => d.curable).length, "drift")}
            </Button>
          </Group>
        </Group>
      </Stack>
    </Modal>
  );
}
