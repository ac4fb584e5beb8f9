"use client";

import { Button, Group, Modal, NumberInput, SegmentedControl, Select, Stack, Text, TextInput } from "@mantine/core";
import { useMemo, useState } from "react";
import { LIBRARY } from "@/core/fixture/library/library";
import { footprint } from "@/core/fixture/type";
import { addressText, parseAddress } from "@/core/show/address";
import { nextNumber, planPatch, typeOf, type PatchRequest } from "@/core/patch/plan";
import { quote } from "../parts/quote";
import { useSession, useShow } from "../useSession";
import { shelves } from "./library/choices";
import { TypePicker } from "./library/TypePicker";
import { useRecentTypes } from "./library/recent";
import classes from "./Rig.module.css";

/** Adding fixtures: the resulting rows and their conflicts are shown while the choices are made. */
export function PatchDialog({
  opened,
  preset,
  onClose,
}: {
  opened: boolean;
  preset: { type: string; mode: string } | null;
  onClose(): void;
}) {
  return (
    <Modal opened={opened} onClose={onClose} title="Patch fixtures" size={760} centered>
      {opened && <PatchForm preset={preset} onClose={onClose} />}
    </Modal>
  );
}

function PatchForm({ preset, onClose }: { preset: { type: string; mode: string } | null; onClose(): void }) {
  const session = useSession();
  const show = useShow((s) => s.world.show);
  const [recent, noteRecent] = useRecentTypes();
  const [typeId, setTypeId] = useState(preset?.type ?? recent[0] ?? "petrel-spot");
  const [modeName, setModeName] = useState<string | null>(preset?.mode ?? null);
  const [count, setCount] = useState<number | string>(1);
  const [from, setFrom] = useState<number | string>(() => nextNumber(show));
  const [where, setWhere] = useState("auto");
  const [start, setStart] = useState("1:1");
  const [name, setName] = useState("");

  const found = useMemo(() => shelves(show, recent, "", null), [show.types, recent]); // eslint-disable-line react-hooks/exhaustive-deps
  const type = typeOf(show, typeId) ?? LIBRARY[0]!;
  const mode = type.modes.find((m) => m.name === modeName) ?? type.modes[0]!;
  const address = parseAddress(start);
  const badStart = where === "at" && !address ? "An address is universe:slot, such as 1:101" : null;
  const n = Math.min(5000, Math.max(1, Math.floor(Number(count) || 1)));
  const plan = useMemo(() => {
    const at: PatchRequest["at"] = where === "at" ? (address ?? "auto") : (where as "auto" | "unpatched");
    const made = planPatch(show, {
      count: n,
      type: typeId,
      mode: mode.name,
      from: Math.max(1, Math.floor(Number(from) || 1)),
      at,
    });
    return "problem" in made ? [] : made.rows;
  }, [show, n, typeId, mode.name, from, where, address?.universe, address?.slot]); // eslint-disable-line react-hooks/exhaustive-deps
  const conflicts = plan.filter((row) => row.conflict).length;

  const patch = async () => {
    const at = where === "auto" ? "at auto" : where === "unpatched" ? "unpatched" : `at ${start}`;
    if (
      !(await session.run(
        `patch ${n} ${typeId} mode ${quote(mode.name)} as ${from} ${at}${name ? ` name ${quote(name)}` : ""}`,
      ))
    ) {
      noteRecent(typeId);
      onClose();
    }
  };

  return (
    <form onSubmit={(e) => (e.preventDefault(), void patch())} className={classes.dialog}>
      <Stack gap="xs">
        <TypePicker shelves={found} type={type} onPick={(id) => (setTypeId(id), setModeName(null))} />
        <Select
          label="Mode"
          data={type.modes.map((m) => ({ value: m.name, label: `${m.name}, ${footprint(m)} channels` }))}
          value={mode.name}
          onChange={setModeName}
          allowDeselect={false}
        />
        <Group grow gap="xs">
          <NumberInput label="How many" value={count} onChange={setCount} min={1} max={5000} allowDecimal={false} />
          <NumberInput label="Number from" value={from} onChange={setFrom} min={1} allowDecimal={false} />
        </Group>
        <TextInput
          label="Name"
          placeholder={n > 1 ? `${type.model} 1, ${type.model} 2 ...` : type.model}
          value={name}
          onChange={(e) => setName(e.currentTarget.value)}
        />
        <SegmentedControl
          value={where}
          onChange={setWhere}
          data={[
            { value: "auto", label: "First free" },
            { value: "at", label: "From address" },
            { value: "unpatched", label: "Unpatched" },
          ]}
        />
        {where === "at" && (
          <TextInput
            label="First address"
            value={start}
            onChange={(e) => setStart(e.currentTarget.value)}
            error={badStart}
            classNames={{ input: "num" }}
          />
        )}
        <Button type="submit" disabled={conflicts > 0 || badStart !== null}>
          Patch {n} {type.model}
        </Button>
        {conflicts > 0 && (
          <Text size="sm" c="var(--caution)">
            {conflicts === 1 ? "One row clashes" : `${conflicts} rows clash`}. Take another number or address, or choose
            First free.
          </Text>
        )}
      </Stack>
      <div className={classes.rows} role="table" aria-label="What will be patched">
        {plan.slice(0, 200).map((row) => (
          <div key={row.number} role="row" data-conflict={row.conflict !== undefined}>
            <span role="cell" className="num">
              {row.number}
            </span>
            <span role="cell" className="num">
              {row.address ? addressText(row.address) : "unpatched"}
            </span>
            <span role="cell">
              {row.conflict ? `⚠ ${row.conflict}` : row.address ? `to ${row.address.slot + footprint(mode) - 1}` : ""}
            </span>
          </div>
        ))}
        {plan.length > 200 && <p className="muted">and {plan.length - 200} more</p>}
      </div>
    </form>
  );
}
