"use client";

import {
  Button,
  Checkbox,
  Group,
  NumberInput,
  ScrollArea,
  SegmentedControl,
  Select,
  Stack,
  Text,
  TextInput,
} from "@mantine/core";
import { useMemo, useState } from "react";
import {
  brought,
  BRINGABLE,
  mappedByNumber,
  mappedByType,
  type Bringable,
  type BringRequest,
} from "@/core/exchange/bring";
import { bringFrom } from "@/core/exchange/bringIntent";
import { attempt, isRefusal, refusalText } from "@/core/show/refusal";
import type { Show } from "@/core/show/schema";
import { cuesOf, listsByNumber } from "@/core/show/world";
import { capital } from "@/ui/base/typed/capital";
import { useSession, useShow } from "@/ui/show/useSession";
import { BringTable } from "./BringTable";
import { Standing } from "./Standing";
import classes from "./Bring.module.css";

const KIND: Record<Bringable, readonly [title: string, of: keyof Show]> = {
  palette: ["Palettes", "palettes"],
  effect: ["Effects", "effects"],
  wave: ["Waves", "waves"],
  group: ["Groups", "groups"],
  list: ["Lists", "lists"],
  macro: ["Macros", "macros"],
  page: ["Pages", "pages"],
  view: ["Views", "views"],
};
interface Named {
  id: string;
  number: number;
  name: string;
}

const recordsOf = (show: Show, kind: Bringable): Named[] =>
  Object.values(show[KIND[kind][1]] as Record<string, Named>).sort((a, b) => a.number - b.number);

/** What of the other show is ticked, who stands for whom, and what it would do here. */
export function BringStep({ other, onBack, onClose }: { other: Show; onBack(): void; onClose(): void }) {
  const session = useSession();
  const show = useShow((s) => s.world.show);
  const [kind, setKind] = useState<Bringable | "cues">("palette");
  const [picked, setPicked] = useState<Partial<Record<Bringable, string[]>>>({});
  const [list, setList] = useState(listsByNumber(other)[0]?.id ?? "");
  const [cues, setCues] = useState<string[]>([]);
  const [into, setInto] = useState<number | string>(1);
  const [mapping, setMapping] = useState("number");
  const [byHand, setByHand] = useState<Record<string, string>>({});
  const [clash, setClash] = useState<"beside" | "replace">("beside");
  const [search, setSearch] = useState("");
  const fixtures = useMemo(
    () => ({ ...(mapping === "type" ? mappedByType(other, show) : mappedByNumber(other, show)), ...byHand }),
    [mapping, other, show, byHand],
  );
  const mapped = useMemo(
    () => Object.fromEntries(Object.entries(fixtures).filter(([, mine]) => mine !== "")),
    [fixtures],
  );
  const request: BringRequest = {
    show: other,
    picks: picked,
    fixtures: mapped,
    clash,
    ...(cues.length > 0 ? { cues: { list, cues, into: Math.max(1, Math.floor(Number(into)) || 1) } } : {}),
  };
  const some = cues.length > 0 || Object.values(picked).some((ids) => ids.length > 0);
  const made = useMemo(
    () => (some ? attempt(() => brought(show, request)) : { rows: [], show }),
    [show, picked, mapped, clash, cues, list, into], // oxlint-disable-line react-hooks/exhaustive-deps
  );
  const bring = () => {
    if (session.act([bringFrom.of({ ...request, show: other })])) return;
    session.tell("It is here. One undo takes it back");
    onClose();
  };
  const toggle = (of: Bringable, id: string) =>
    setPicked((p) => {
      const own = p[of] ?? [];
      return { ...p, [of]: own.includes(id) ? own.filter((i) => i !== id) : [...own, id] };
    });
  const shown = (kind === "cues" ? cuesOf(other.lists[list]!) : recordsOf(other, kind)).filter((r) =>
    `${r.number} ${r.name}`.toLowerCase().includes(search.toLowerCase()),
  );
  const chosen = kind === "cues" ? cues : (picked[kind] ?? []);
  const all = shown.length > 0 && shown.every((r) => chosen.includes(r.id));
  const setAll = (on: boolean) => {
    const ids = shown.map((r) => r.id);
    const next = on ? [...new Set([...chosen, ...ids])] : chosen.filter((id) => !ids.includes(id));
    if (kind === "cues") setCues(next);
    else setPicked((p) => ({ ...p, [kind]: next }));
  };
  return (
    <div className={classes.bring}>
      <div className={classes.kinds} role="tablist" aria-label="What to bring over" aria-orientation="vertical">
        {[
          ...BRINGABLE.toSorted((a, b) => Object.keys(KIND).indexOf(a) - Object.keys(KIND).indexOf(b)),
          "cues" as const,
        ].map((k) => {
          const ticked = k === "cues" ? cues.length : (picked[k]?.length ?? 0);
          const total =
            k === "cues"
              ? listsByNumber(other).reduce((n, l) => n + Object.keys(l.cues).length, 0)
              : recordsOf(other, k).length;
          return (
            <button
              key={k}
              type="button"
              role="tab"
              aria-selected={k === kind}
              className={classes.kind}
              onClick={() => setKind(k)}
              disabled={total === 0}
            >
              {k === "cues" ? "Single cues" : KIND[k][0]}
              <span className="num">{ticked > 0 ? `${ticked} of ${total}` : total}</span>
            </button>
          );
        })}
      </div>
      <Stack gap={6} className={classes.list}>
        {kind === "cues" && (
          <Group gap={6} align="end">
            <Select
              size="xs"
              label="of list"
              data={listsByNumber(other).map((l) => ({ value: l.id, label: `${l.number} ${l.name}` }))}
              value={list}
              onChange={(v) => (setList(v ?? list), setCues([]))}
              allowDeselect={false}
            />
            <NumberInput
              size="xs"
              w={90}
              label="into list"
              min={1}
              allowDecimal={false}
              value={into}
              onChange={setInto}
            />
          </Group>
        )}
        <Group gap={8}>
          <Checkbox
            size="xs"
            aria-label="All of them"
            checked={all}
            onChange={(e) => setAll(e.currentTarget.checked)}
          />
          <TextInput
            size="xs"
            flex={1}
            placeholder="Find"
            aria-label="Find in the other show"
            value={search}
            onChange={(e) => setSearch(e.currentTarget.value)}
          />
        </Group>
        <ScrollArea h={300}>
          {shown.map((r) => (
            <Checkbox
              key={r.id}
              size="xs"
              className={classes.row}
              label={
                <>
                  <span className="num">{r.number}</span> {r.name}
                </>
              }
              checked={chosen.includes(r.id)}
              onChange={() =>
                kind === "cues"
                  ? setCues((c) => (c.includes(r.id) ? c.filter((i) => i !== r.id) : [...c, r.id]))
                  : toggle(kind, r.id)
              }
            />
          ))}
        </ScrollArea>
      </Stack>
      <Stack gap={8}>
        <Group gap={8}>
          <SegmentedControl
            size="xs"
            aria-label="Matching fixtures"
            value={mapping}
            onChange={(v) => (setMapping(v), setByHand({}))}
            data={[
              { value: "number", label: "fixtures by number" },
              { value: "type", label: "by type" },
            ]}
          />
          <SegmentedControl
            size="xs"
            aria-label="Where a number is taken"
            value={clash}
            onChange={(v) => setClash(v)}
            data={[
              { value: "beside", label: "next free number" },
              { value: "replace", label: "replace what is there" },
            ]}
          />
        </Group>
        <Standing other={other} show={show} fixtures={fixtures} set={setByHand} />
        {isRefusal(made) ? (
          <Text c="var(--danger)">{capital(refusalText(made))}</Text>
        ) : (
          <BringTable rows={made.rows} now={show} after={made.show} />
        )}
        <Group justify="flex-end" mt="auto">
          <Button variant="default" onClick={onBack}>
            Another show
          </Button>
          <Button onClick={bring} disabled={!some || isRefusal(made)}>
            Bring over
          </Button>
        </Group>
      </Stack>
    </div>
  );
}
