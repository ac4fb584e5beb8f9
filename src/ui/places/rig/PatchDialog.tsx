"use client";

import { Button, Group, Modal, NumberInput, SegmentedControl, Select, Stack, Text, TextInput } from "@mantine/core";
import { useForm } from "@mantine/form";
import { useMemo } from "react";
import { LIBRARY } from "@/core/fixture/library/library";
import { footprint } from "@/core/fixture/type";
import { addressText, parseAddress } from "@/core/show/address";
import { patch } from "@/core/patch/intents";
import { nextNumber, planPatch, typeOf, type PatchRequest } from "@/core/patch/plan";
import { useSession, useShow } from "@/ui/show/useSession";
import { shelves } from "./library/choices";
import { TypePicker } from "./library/TypePicker";
import { useRecentTypes } from "./library/recent";
import classes from "./Rig.module.css";

interface PatchValues {
  type: string;
  mode: string | null;
  count: number | string;
  from: number | string;
  where: "auto" | "at" | "unpatched";
  start: string;
  name: string;
}

const whole = (value: number | string, most: number): number =>
  Math.min(most, Math.max(1, Math.floor(Number(value) || 1)));

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
  const form = useForm<PatchValues>({
    initialValues: {
      type: preset?.type ?? recent[0] ?? "petrel-spot",
      mode: preset?.mode ?? null,
      count: 1,
      from: nextNumber(show),
      where: "auto",
      start: "1:1",
      name: "",
    },
    validateInputOnChange: true,
    validate: {
      start: (start, { where }) =>
        where === "at" && !parseAddress(start) ? "An address is universe:slot, such as 1:101" : null,
    },
  });
  const { type: typeId, where, name } = form.values;
  const found = useMemo(() => shelves(show, recent, "", null), [show.types, recent]); // oxlint-disable-line react-hooks/exhaustive-deps
  const type = typeOf(show, typeId) ?? LIBRARY[0]!;
  const mode = type.modes.find((m) => m.name === form.values.mode) ?? type.modes[0]!;
  const request: PatchRequest = {
    count: whole(form.values.count, 5000),
    type: typeId,
    mode: mode.name,
    from: whole(form.values.from, 999_999),
    at: where === "at" ? (parseAddress(form.values.start) ?? "auto") : where,
  };
  const n = request.count;
  const plan = useMemo(() => {
    const made = planPatch(show, request);
    return "problem" in made ? [] : made.rows;
  }, [show, JSON.stringify(request)]); // oxlint-disable-line react-hooks/exhaustive-deps
  const conflicts = plan.filter((row) => row.conflict).length;
  const submit = form.onSubmit(() => {
    if (session.act([patch.of({ ...request, ...(name ? { name } : {}) })])) return;
    noteRecent(typeId);
    onClose();
  });

  return (
    <form onSubmit={submit} className={classes.dialog}>
      <Stack gap="xs">
        <TypePicker shelves={found} type={type} onPick={(id) => form.setValues({ type: id, mode: null })} />
        <Select
          label="Mode"
          data={type.modes.map((m) => ({ value: m.name, label: `${m.name}, ${footprint(m)} channels` }))}
          value={mode.name}
          onChange={(v) => form.setFieldValue("mode", v)}
          allowDeselect={false}
        />
        <Group grow gap="xs">
          <NumberInput label="How many" {...form.getInputProps("count")} min={1} max={5000} allowDecimal={false} />
          <NumberInput label="Number from" {...form.getInputProps("from")} min={1} allowDecimal={false} />
        </Group>
        <TextInput
          label="Name"
          placeholder={n > 1 ? `${type.model} 1, ${type.model} 2 ...` : type.model}
          {...form.getInputProps("name")}
        />
        <SegmentedControl
          {...form.getInputProps("where")}
          data={[
            { value: "auto", label: "First free" },
            { value: "at", label: "From address" },
            { value: "unpatched", label: "Unpatched" },
          ]}
        />
        {where === "at" && (
          <TextInput label="First address" {...form.getInputProps("start")} classNames={{ input: "num" }} />
        )}
        <Button type="submit" disabled={conflicts > 0 || !form.isValid()}>
          Patch {n} {type.model}
        </Button>
        {conflicts > 0 && (
          <Text size="sm" c="var(--caution)">
            {conflicts === 1 ? "1 number or address is" : `${conflicts} numbers or addresses are`} taken. Choose another
            start, or First free.
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
