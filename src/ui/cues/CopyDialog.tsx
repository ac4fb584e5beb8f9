"use client";

import { Button, Group, Modal, SegmentedControl, Select, Stack, Table, Text } from "@mantine/core";
import { useMemo, useState } from "react";
import { attributeInfo, FAMILIES, type Family } from "@/core/fixture/attribute";
import { BRINGS, copyCue, ELSEWHERE, type Bring, type Elsewhere } from "@/core/cue/copyIntent";
import { LOOKS } from "@/core/cue/cueDraft";
import { perform } from "@/core/desk/perform";
import { EMPTY_HISTORY } from "@/core/show/history";
import { splitKey } from "@/core/show/ids";
import { isRefusal } from "@/core/show/refusal";
import type { Cue, CueList } from "@/core/show/schema";
import { cueNumbered, cuesOf, listNumbered, listsByNumber } from "@/core/show/world";
import { plain } from "@/core/units/units";
import { useForesight } from "../ask/useForesight";
import { LookPicture } from "../parts/LookPicture";
import { NumberField } from "../parts/NumberField";
import { RipplePairs } from "../parts/RipplePairs";
import { useSession, useShow } from "../useSession";
import classes from "./Cues.module.css";

const PICTURE = { width: 236, height: 150 };

const BRING_WORDS: Record<Bring, string> = {
  stored: "what it stores",
  seen: "what is seen",
  everything: "everything in force",
};
const ELSEWHERE_WORDS: Record<Elsewhere, string> = {
  keep: "stays as it is",
  defaults: "at its default",
  release: "released",
};
const LOOKS_WORDS: Record<(typeof LOOKS)[number], string> = {
  track: "let it track",
  cueonly: "the next cue keeps its look",
  keeplooks: "all later looks stay",
};

/** How many fixtures and values a cue stores, by family. */
function storedBy(cue: Cue | undefined): Map<Family, { fixtures: Set<string>; values: number }> {
  const found = new Map<Family, { fixtures: Set<string>; values: number }>();
  for (const [key, { attribute }] of Object.entries(cue?.entries ?? {})) {
    const { family } = attributeInfo(attribute);
    const row = found.get(family) ?? { fixtures: new Set<string>(), values: 0 };
    row.fixtures.add(splitKey(key).fixture);
    row.values += 1;
    found.set(family, row);
  }
  return found;
}

const cell = (row: { fixtures: Set<string>; values: number } | undefined): string =>
  row ? `${row.values} of ${row.fixtures.size}` : "–";

/** Copying a cue by three plain picks, with what both cues store before and after, and which other looks change. */
export function CopyDialog({ list, cue, onClose }: { list: CueList; cue: Cue; onClose(): void }) {
  const session = useSession();
  const world = useShow((s) => s.world);
  const { show } = world;
  const cues = cuesOf(list);
  const [toList, setToList] = useState(list.number);
  const [to, setTo] = useState(Math.floor((cues.at(-1)?.number ?? 0) + 1));
  const [bring, setBring] = useState<Bring>("stored");
  const [elsewhere, setElsewhere] = useState<Elsewhere>("keep");
  const [onto, setOnto] = useState<"merge" | "overwrite">("merge");
  const [looks, setLooks] = useState<(typeof LOOKS)[number]>("keeplooks");
  const intent = copyCue.of({ list: list.id, cue: cue.id, toList, to, bring, elsewhere, onto, looks });
  const line = copyCue.lines(world, intent as never)[0]!;
  const { says, refused, ripple } = useForesight(line);
  const target = listNumbered(show, toList);
  const before = target && cueNumbered(target, to);
  const text = JSON.stringify(intent);
  const then = useMemo(() => {
    const done = perform({ world, history: EMPTY_HISTORY }, { intents: [intent], events: [] });
    return isRefusal(done) ? undefined : done.world.show;
  }, [world, text]); // eslint-disable-line react-hooks/exhaustive-deps
  const made = then && listNumbered(then, toList);
  const after = made && cueNumbered(made, to);
  const [source, was, is] = [storedBy(cue), storedBy(before), storedBy(after)];
  const families = FAMILIES.filter((f) => source.has(f) || was.has(f) || is.has(f));
  const pick = <T extends string>(
    label: string,
    all: readonly T[],
    words: Record<T, string>,
    value: T,
    set: (v: T) => void,
  ) => (
    <Group gap="sm" wrap="nowrap">
      <Text size="sm" w={84} c="dimmed">
        {label}
      </Text>
      <SegmentedControl
        size="xs"
        aria-label={label}
        data={all.map((v) => ({ value: v, label: words[v] }))}
        value={value}
        onChange={(v) => set(v)}
      />
    </Group>
  );
  return (
    <Modal opened onClose={onClose} size={760} centered title={`Copy cue ${plain(cue.number, 3)} ${cue.name}`}>
      <Stack gap="sm">
        <Group gap="sm" align="end">
          <NumberField
            size="xs"
            w={90}
            label="To cue"
            min={0.001}
            max={999_999}
            step={0.1}
            value={to}
            onSet={(v) => setTo(Math.round(v * 1000) / 1000)}
          />
          <Select
            size="xs"
            w={200}
            label="Of list"
            allowDeselect={false}
            data={listsByNumber(show)
              .filter((l) => l.kind !== "effect")
              .map((l) => ({ value: String(l.number), label: `${l.number} ${l.name}` }))}
            value={String(toList)}
            onChange={(v) => v && setToList(Number(v))}
          />
          {before && (
            <SegmentedControl
              size="xs"
              aria-label="Onto the cue that is there"
              data={[
                { value: "merge", label: "merge into it" },
                { value: "overwrite", label: "in its place" },
              ]}
              value={onto}
              onChange={(v) => setOnto(v)}
            />
          )}
        </Group>
        {pick("Bring", BRINGS, BRING_WORDS, bring, setBring)}
        {pick("All else", ELSEWHERE, ELSEWHERE_WORDS, elsewhere, setElsewhere)}
        {pick("Later cues", LOOKS, LOOKS_WORDS, looks, setLooks)}
        <Group gap="md" align="flex-start" wrap="nowrap">
          <Table verticalSpacing={3} aria-label="What the cues store">
            <Table.Thead>
              <Table.Tr>
                <Table.Th>Values of fixtures</Table.Th>
                <Table.Th>cue {plain(cue.number, 3)} stores</Table.Th>
                <Table.Th>cue {plain(to, 3)} now</Table.Th>
                <Table.Th>and then</Table.Th>
              </Table.Tr>
            </Table.Thead>
            <Table.Tbody>
              {families.map((family) => (
                <Table.Tr key={family}>
                  <Table.Td>{family}</Table.Td>
                  <Table.Td className="num">{cell(source.get(family))}</Table.Td>
                  <Table.Td className="num">{before ? cell(was.get(family)) : "no cue yet"}</Table.Td>
                  <Table.Td className="num">{cell(is.get(family))}</Table.Td>
                </Table.Tr>
              ))}
            </Table.Tbody>
          </Table>
          {made && after && (
            <figure className={classes.becomes}>
              <LookPicture list={made.id} cue={after.id} {...PICTURE} of={then} label="The copy" />
              <figcaption>cue {plain(to, 3)} then</figcaption>
            </figure>
          )}
        </Group>
        <Text size="sm" data-testid="copy-says" c={refused ? "red" : undefined}>
          {says}
          {says && !refused ? "." : ""}
          {!refused && (ripple.length === 0 ? " No other look changes." : " Other looks change: now, and after.")}
        </Text>
        {!refused && ripple.length > 0 && <RipplePairs ripple={ripple} of={then} width={92} height={66} most={8} />}
        <Button
          disabled={refused}
          onClick={() => {
            if (!session.act([intent])) onClose();
          }}
        >
          Copy
        </Button>
      </Stack>
    </Modal>
  );
}
