"use client";

import { Button, Group, NumberInput, Popover, Select, Stack, Switch, Text } from "@mantine/core";
import { useForm } from "@mantine/form";
import { useState } from "react";
import { recordSteps } from "@/core/cue/intents/stepIntents";
import { linesOf } from "@/core/desk/lines";
import { cuesOf, listNumbered, listsByNumber, palettesByNumber } from "@/core/show/world";
import { useForesight } from "@/ui/show/foresight/useForesight";
import { useSession, useShow } from "@/ui/show/useSession";

/** One cue for each step of the spread: the held look on its fixtures; says beforehand what that would do. */
export function RecordSteps({ count }: { count: number }) {
  const session = useSession();
  const [open, setOpen] = useState(false);
  const world = useShow((s) => (open ? s.world : null)) ?? session.store.getState().world;
  const form = useForm({
    initialValues: {
      list: 1 as number | string,
      from: 1 as number | string,
      fade: 0 as number | string,
      others: "out",
      chase: false,
    },
  });
  const { list, from, fade, others, chase } = form.values;
  const intent = recordSteps.of({
    list: Number(list),
    from: Number(from),
    fade: Number(fade),
    others: others === "out" || others === "leave" ? others : { palette: others },
    ...(chase ? { chase: true } : {}),
  });
  const { says, refused, known } = useForesight(open ? linesOf(world, [intent])[0]! : "");
  const begin = () => {
    const free = (listsByNumber(world.show).at(-1)?.number ?? 0) + 1;
    const there = listNumbered(world.show, free);
    form.setValues({ list: free, from: Math.floor(there ? (cuesOf(there).at(-1)?.number ?? 0) : 0) + 1 });
    setOpen(!open);
  };
  return (
    <Popover opened={open} onChange={setOpen} position="right-end" width={320} shadow="md" trapFocus returnFocus>
      <Popover.Target>
        <Button size="compact-xs" variant="default" onClick={begin} disabled={count < 2}>
          Record steps
        </Button>
      </Popover.Target>
      <Popover.Dropdown>
        <form
          onSubmit={form.onSubmit(() => {
            if (!session.act([intent])) setOpen(false);
          })}
        >
          <Stack gap="xs">
            <Text fw={600}>A cue for each of {count} steps</Text>
            <Group gap="xs" grow>
              <NumberInput
                label="List"
                min={1}
                allowDecimal={false}
                hideControls
                data-autofocus
                {...form.getInputProps("list")}
              />
              <NumberInput label="From cue" min={0.001} decimalScale={3} hideControls {...form.getInputProps("from")} />
              <NumberInput label="Fade, s" min={0} decimalScale={2} hideControls {...form.getInputProps("fade")} />
            </Group>
            <Select
              label="Other selected fixtures"
              searchable
              allowDeselect={false}
              comboboxProps={{ withinPortal: false }}
              data={[
                { value: "out", label: "out" },
                { value: "leave", label: "as they are" },
                ...palettesByNumber(world.show).map((p) => ({
                  value: p.id,
                  label: `palette ${p.number} ${p.name}`.trim(),
                })),
              ]}
              {...form.getInputProps("others")}
            />
            <Switch label="As a chase" {...form.getInputProps("chase", { type: "checkbox" })} />
            <Text size="sm" c={refused ? "var(--caution)" : "var(--muted)"} data-testid="steps-says">
              {refused || !known ? says : `This ${says}.`}
            </Text>
            <Button type="submit" disabled={refused}>
              Record {count} cues
            </Button>
          </Stack>
        </form>
      </Popover.Dropdown>
    </Popover>
  );
}
