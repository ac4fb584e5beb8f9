"use client";

import {
  Button,
  Checkbox,
  Group,
  Modal,
  NumberInput,
  SegmentedControl,
  Stack,
  Table,
  Text,
  TextInput,
} from "@mantine/core";
import { useForm } from "@mantine/form";
import { gather } from "@/core/command/gathering";
import { attributeInfo, FAMILIES, type Family } from "@/core/fixture/attribute";
import { recordPalette } from "@/core/palette/intents";
import { keptText } from "@/core/palette/words";
import { recordable } from "@/core/program/intents";
import { WIDTHS, type Width } from "@/core/show/paletteSchema";
import { paletteNumbered } from "@/core/show/world";
import { useSession, useShow } from "@/ui/show/useSession";

type How = "no" | "held" | "whole" | "anyway";
const HOW: { value: How; label: string }[] = [
  { value: "no", label: "not" },
  { value: "held", label: "what is held" },
  { value: "whole", label: "all, where some is held" },
  { value: "anyway", label: "all of it" },
];

interface Props {
  number: number;
  width: Width;
  only: readonly Family[] | undefined;
  onClose(): void;
}

const WIDE: Record<Width, string> = {
  each: "each: these fixtures alone, each its own values",
  type: "type: all fixtures of their types follow the lowest number, those patched later too",
  any: "any: every fixture that can; colours as xy, positions as a point where one is held",
};

/** Records a palette in full: for whom, which families and how much of them; says beforehand what would be kept. */
export function RecordPalette({ number, width, only, onClose }: Props) {
  const session = useSession();
  const world = useShow((s) => s.world);
  const heldIn = new Set(Object.values(recordable(world)).map((e) => attributeInfo(e.attribute).family));
  const form = useForm({
    initialValues: {
      number: number as number | string,
      name: "",
      width,
      shelf: true,
      onto: "merge" as "merge" | "overwrite",
      how: Object.fromEntries(
        FAMILIES.map((f) => [f, heldIn.has(f) && (!only || only.includes(f)) ? "held" : "no"]),
      ) as Record<Family, How>,
    },
  });
  const { values } = form;
  const old = paletteNumbered(world.show, Number(values.number));
  const those = (how: How) => FAMILIES.filter((f) => values.how[f] === how);
  const [held, whole, along] = [those("held"), those("whole"), those("anyway")];
  const chosen = {
    only: held,
    ...(whole.length > 0 ? { whole } : {}),
    ...(along.length > 0 ? { along } : {}),
  };
  const entries = gather(session.context(), { width: values.width, ...chosen });
  const nothing = Object.keys(entries).length === 0;
  const record = form.onSubmit(() => {
    const intent = recordPalette.of({
      number: Number(values.number),
      width: values.width,
      entries,
      ...chosen,
      ...(values.name ? { name: values.name } : {}),
      ...(values.shelf ? {} : { offShelf: true }),
      ...(old ? { onto: values.onto } : {}),
    });
    if (!session.act([intent])) onClose();
  });
  return (
    <Modal opened onClose={onClose} title="Record a palette" size="lg" centered>
      <form onSubmit={record}>
        <Stack gap="sm">
          <Group gap="sm" grow>
            <NumberInput
              label="Number"
              min={1}
              allowDecimal={false}
              hideControls
              data-autofocus
              {...form.getInputProps("number")}
            />
            <TextInput label="Name" placeholder={old?.name ?? "Optional"} {...form.getInputProps("name")} />
          </Group>
          <SegmentedControl data={[...WIDTHS]} {...form.getInputProps("width")} />
          <Text size="sm" c="dimmed">
            {WIDE[values.width]}
          </Text>
          <Table verticalSpacing={3} withRowBorders={false}>
            <Table.Tbody>
              {FAMILIES.map((f) => (
                <Table.Tr key={f}>
                  <Table.Td w={90} c={heldIn.has(f) ? undefined : "dimmed"}>
                    {f}
                  </Table.Td>
                  <Table.Td>
                    <SegmentedControl
                      size="xs"
                      aria-label={`What of ${f.toLowerCase()} is kept`}
                      data={HOW.map((h) => ({
                        ...h,
                        disabled: !heldIn.has(f) && (h.value === "held" || h.value === "whole"),
                      }))}
                      value={values.how[f]}
                      onChange={(v) => form.setFieldValue("how", { ...values.how, [f]: v })}
                    />
                  </Table.Td>
                </Table.Tr>
              ))}
            </Table.Tbody>
          </Table>
          {old && (
            <SegmentedControl
              {...form.getInputProps("onto")}
              data={[
                { value: "merge", label: `Merge into palette ${old.number} ${old.name}` },
                { value: "overwrite", label: "Overwrite it" },
              ]}
            />
          )}
          <Checkbox label="Show on the shelf" {...form.getInputProps("shelf", { type: "checkbox" })} />
          <Text size="sm" c={nothing ? "var(--caution)" : undefined} data-testid="palette-says">
            {nothing
              ? "Nothing would be kept: choose families above, or hold some values first."
              : `Keeps ${keptText(world, entries)}.`}
          </Text>
          <Button type="submit" disabled={nothing}>
            Record
          </Button>
        </Stack>
      </form>
    </Modal>
  );
}
