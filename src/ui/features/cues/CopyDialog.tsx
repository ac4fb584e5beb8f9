"use client";

import { Button, Group, Modal, SegmentedControl, Select, Stack, Table, Text } from "@mantine/core";
import { useMemo, useState } from "react";
import { FAMILIES } from "@/core/fixture/attribute";
import { BRINGS, copyCue, ELSEWHERE, type Bring, type Elsewhere } from "@/core/cue/intents/copyIntent";
import { LOOKS, roundCueNumber } from "@/core/cue/intents/cueDraft";
import { perform } from "@/core/desk/perform";
import { EMPTY_HISTORY } from "@/core/show/change/history";
import { isRefusal } from "@/core/show/refusal";
import type { Cue, CueList } from "@/core/show/schema";
import { cueNumbered, cuesOf, listNumbered, listsByNumber } from "@/core/show/world";
import { plain } from "@/core/units/units";
import { useForesightOf } from "@/ui/show/foresight/useForesight";
import { LookPicture } from "@/ui/stage/pictures/LookPicture";
import { NumberField } from "@/ui/show/NumberField";
import { RipplePairs } from "@/ui/stage/pictures/RipplePairs";
import { useSession, useShow } from "@/ui/show/useSession";
import { changesBetween, storedBy, storedText } from "./stored";
import classes from "./Cues.module.css";
import { plural } from "@/core/units/plural";

const PICTURE = { width: 190, height: 121 };

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

/** Copying a cue, or several in a row, by three plain picks, with what they store before and after, and which other looks change. */
export function CopyDialog({
  list,
  cue,
  last = cue,
  onClose,
}: {
  list: CueList;
  cue: Cue;
  /** The last of those that are copied. */
  last?: Cue;
  onClose(): void;
}) {
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
  const thru = last.id === cue.id ? {} : { thru: last.id };
  const intent = copyCue.of({ list: list.id, cue: cue.id, ...thru, toList, to, bring, elsewhere, onto, looks });
  const found = useForesightOf([intent]);
  const { says, refused, ripple } = found;
  const target = listNumbered(show, toList);
  const sources = cues.slice(cues.indexOf(cue), cues.indexOf(last) + 1);
  const places = sources.map(({ number }) => roundCueNumber(to + number - cue.number));
  const there = places.map((number) => target && cueNumbered(target, number));
  const before = there[0];
  const text = JSON.stringify(intent);
  const then = useMemo(() => {
    const done = perform({ world, history: EMPTY_HISTORY }, { intents: [intent], events: [] });
    return isRefusal(done) ? undefined : done.world.show;
  }, [world, text]); // oxlint-disable-line react-hooks/exhaustive-deps
  const made = then && listNumbered(then, toList);
  const copies = places.map((number) => made && cueNumbered(made, number));
  const after = copies[0];
  const [source, was, is, changes] = [
    storedBy(sources),
    storedBy(there),
    storedBy(copies),
    changesBetween(there, copies),
  ];
  const families = FAMILIES.filter((f) => source.has(f) || was.has(f) || is.has(f));
  const named = (from: number, thru: number) =>
    sources.length > 1 ? `${plain(from, 3)} … ${plain(thru, 3)}` : plain(from, 3);
  const from = named(cue.number, last.number);
  const into = named(to, places.at(-1)!);
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
    <Modal
      opened
      onClose={onClose}
      size={860}
      centered
      title={sources.length > 1 ? `Copy ${sources.length} cues, ${from}` : `Copy cue ${from} ${cue.name}`}
    >
      <Stack gap="sm">
        <Group gap="sm" align="end">
          <NumberField
            size="xs"
            w={90}
            label={sources.length > 1 ? "First to cue" : "To cue"}
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
          {there.some(Boolean) && (
            <SegmentedControl
              size="xs"
              aria-label="If the cue exists"
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
        {pick("Everything else", ELSEWHERE, ELSEWHERE_WORDS, elsewhere, setElsewhere)}
        {pick("Later cues", LOOKS, LOOKS_WORDS, looks, setLooks)}
        <Group gap="md" align="flex-start" wrap="nowrap">
          <Table verticalSpacing={3} fz={13} style={{ whiteSpace: "nowrap" }} aria-label="What the cues store">
            <Table.Thead>
              <Table.Tr>
                <Table.Th />
                <Table.Th>cue {from}</Table.Th>
                <Table.Th>cue {into} now</Table.Th>
                <Table.Th>and then</Table.Th>
              </Table.Tr>
            </Table.Thead>
            <Table.Tbody>
              {families.map((family) => (
                <Table.Tr key={family}>
                  <Table.Td>{family}</Table.Td>
                  {[source, was, is].map((cell, k) => (
                    <Table.Td key={k} title={plural(cell.get(family)?.values ?? 0, "value")}>
                      {storedText(cell.get(family))}
                      {cell === is && changes.get(family) && (
                        <Text span size="xs" c="dimmed" display="block">
                          {changes.get(family)}
                        </Text>
                      )}
                    </Table.Td>
                  ))}
                </Table.Tr>
              ))}
            </Table.Tbody>
          </Table>
          {before && target && (
            <figure className={classes.becomes}>
              <LookPicture list={target.id} cue={before.id} {...PICTURE} label="What is there now" />
              <figcaption>cue {plain(to, 3)} now</figcaption>
            </figure>
          )}
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
        {!refused && ripple.length > 0 && <RipplePairs ripple={ripple} then={found} width={92} height={66} most={8} />}
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
