"use client";

import { Button, Group, Modal, Progress, ScrollArea, Select, Stack, Table, Text } from "@mantine/core";
import { useMemo, useState } from "react";
import { attributeInfo } from "@/core/fixture/attribute";
import { LIBRARY } from "@/core/fixture/library/library";
import { footprint } from "@/core/fixture/type";
import { typeOf } from "@/core/patch/plan";
import type { FateRow, SwapRequest } from "@/core/rig/swap";
import { swapType } from "@/core/rig/swapIntent";
import { parseAddress } from "@/core/show/address";
import { plain } from "@/core/units/units";
import { useSession, useShow } from "@/ui/show/useSession";
import { AddressChoice } from "@/ui/places/rig/AddressChoice";
import { shelves } from "@/ui/places/rig/library/choices";
import { useRecentTypes } from "@/ui/places/rig/library/recent";
import { TypePicker } from "@/ui/places/rig/library/TypePicker";
import { useSwapPlan } from "./useSwapPlan";
import classes from "./Swap.module.css";
import { plural } from "@/core/units/plural";

/** Fixtures become another type: what carries over, what nearly, and what stays silent, before it is done. */
export function SwapDialog({ fixtures, onClose }: { fixtures: readonly string[] | null; onClose(): void }) {
  return (
    <Modal opened={fixtures !== null} onClose={onClose} title="Swap type" size={860} centered>
      {fixtures && <Swap fixtures={fixtures} onClose={onClose} />}
    </Modal>
  );
}

function Swap({ fixtures, onClose }: { fixtures: readonly string[]; onClose(): void }) {
  const session = useSession();
  const before = useShow((s) => s.world);
  const [recent, noteRecent] = useRecentTypes();
  const [typeId, setTypeId] = useState(recent[0] ?? "kelp-wash");
  const [modeName, setMode] = useState<string | null>(null);
  const [where, setWhere] = useState("keep");
  const [start, setStart] = useState("1:1");
  const found = useMemo(() => shelves(before.show, recent, "", null), [before.show, recent]);
  const type = typeOf(before.show, typeId) ?? LIBRARY[0]!;
  const mode = type.modes.find((m) => m.name === modeName) ?? type.modes[0]!;
  const request: SwapRequest = {
    fixtures,
    type: type.id,
    mode: mode.name,
    at: where === "at" ? (parseAddress(start) ?? "keep") : (where as "keep" | "auto" | "unpatched"),
  };
  const plan = useSwapPlan(before, request);
  const already = fixtures.filter((id) => {
    const fixture = before.show.fixtures[id];
    return fixture?.type === type.id && fixture.mode === mode.name;
  }).length;
  const swap = () => {
    if (session.act([swapType.of({ ...request, fixtures: [...fixtures], mode: mode.name })])) return;
    noteRecent(type.id);
    onClose();
  };
  return (
    <Stack gap="sm">
      <Group align="end" grow>
        <TypePicker shelves={found} type={type} onPick={(id) => (setTypeId(id), setMode(null))} />
        <Select
          label="Mode"
          data={type.modes.map((m) => ({ value: m.name, label: `${m.name}, ${footprint(m)} channels` }))}
          value={mode.name}
          onChange={setMode}
          allowDeselect={false}
        />
      </Group>
      <AddressChoice
        choices={[
          { value: "keep", label: "stay where they fit" },
          { value: "auto", label: "first free run" },
          { value: "at", label: "from an address" },
          { value: "unpatched", label: "unpatched" },
        ]}
        where={where}
        onWhere={setWhere}
        start={start}
        onStart={setStart}
      />
      {already > 0 && (
        <Text size="sm" c="var(--caution)">
          {already === fixtures.length
            ? `All ${already} are of this type and mode already: choose another.`
            : `${already} of them ${already === 1 ? "is" : "are"} of this type and mode already.`}
        </Text>
      )}
      <Outcome plan={plan} />
      <Group justify="flex-end">
        <Button variant="default" onClick={onClose}>
          Cancel
        </Button>
        <Button onClick={swap} disabled={!plan.result || (already === fixtures.length && where === "keep")}>
          Swap {plural(fixtures.length, "fixture")}
        </Button>
      </Group>
    </Stack>
  );
}

const WORDS: Record<FateRow["kind"], string> = { same: "carries over", near: "nearly", lost: "kept inactive" };
const ORDER: FateRow["kind"][] = ["lost", "near", "same"];

function Outcome({ plan: { result, share, trouble } }: { plan: ReturnType<typeof useSwapPlan> }) {
  if (trouble)
    return (
      <Text c="var(--danger)" role="alert">
        {trouble}
      </Text>
    );
  if (!result) return <Progress value={share * 100} aria-label="Computing…" />;
  return (
    <ScrollArea.Autosize mah={340}>
      <Table className={classes.table} data-testid="swap-table">
        <Table.Thead>
          <Table.Tr>
            <Table.Th>Stored</Table.Th>
            <Table.Th>Result</Table.Th>
            <Table.Th>Values</Table.Th>
            <Table.Th>How</Table.Th>
          </Table.Tr>
        </Table.Thead>
        <Table.Tbody>
          {ORDER.flatMap((kind) => result.rows.filter((r) => r.kind === kind)).map((row) => (
            <Table.Tr key={`${row.attribute} ${row.kind}`} data-kind={row.kind}>
              <Table.Td>{attributeInfo(row.attribute).label}</Table.Td>
              <Table.Td>{WORDS[row.kind]}</Table.Td>
              <Table.Td className="num">{row.entries}</Table.Td>
              <Table.Td className="muted">{howText(row)}</Table.Td>
            </Table.Tr>
          ))}
          {result.rows.length === 0 && (
            <Table.Tr>
              <Table.Td colSpan={4} className="muted">
                Nothing is stored for them: no cue, no palette of their own, nothing in the programmer.
              </Table.Td>
            </Table.Tr>
          )}
        </Table.Tbody>
      </Table>
      {result.moved.length > 0 && (
        <Text size="sm" mt={8}>
          Other addresses:{" "}
          {result.moved
            .slice(0, 12)
            .map((m) => `${m.number} from ${m.from} to ${m.to}`)
            .join(", ")}
          {result.moved.length > 12 ? ` and ${result.moved.length - 12} more` : ""}
        </Text>
      )}
      <Text size="sm" c="dimmed" mt={4}>
        Values that this type cannot play stay in the show and come back with a type that can. Groups, effects and the
        other fixtures stay as they are; one undo takes all of it back.
      </Text>
    </ScrollArea.Autosize>
  );
}

const howText = ({ kind, how, off }: FateRow): string =>
  [how.join("; "), off > 0 && `at most ${plain(off, 3)} off in u'v'`, kind === "lost" && "this type cannot do it"]
    .filter(Boolean)
    .join(", ");
