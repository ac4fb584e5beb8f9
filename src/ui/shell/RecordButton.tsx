"use client";

import { Button, Group, NumberInput, Popover, SegmentedControl, Stack, Switch, Text, TextInput } from "@mantine/core";
import { useForm } from "@mantine/form";
import { useState } from "react";
import { recordCue } from "@/core/cue/recordIntents";
import { linesOf } from "@/core/desk/lines";
import { cueNumbered, cuesOf, type World } from "@/core/show/world";
import { useForesight } from "../ask/useForesight";
import { useSession, useShow } from "../useSession";

interface RecordValues {
  number: number | string;
  name: string;
  fade: number | string;
  onto: "merge" | "overwrite";
  cueOnly: boolean;
}

/** The number a new cue at the end of the armed list would have. */
function nextCueNumber({ show, hands }: World): number {
  const list = show.lists[hands.armed];
  const last = list ? cuesOf(list).at(-1) : undefined;
  return last ? Math.floor(last.number) + 1 : 1;
}

/** Records what is held as a cue of the armed list; says beforehand what that would do. */
export function RecordButton() {
  const session = useSession();
  const [open, setOpen] = useState(false);
  const form = useForm<RecordValues>({
    initialValues: { number: 1, name: "", fade: 3, onto: "merge", cueOnly: false },
  });
  const { number, name, fade, onto, cueOnly } = form.values;
  const world = useShow((s) => s.world);
  const held = useShow((s) => Object.keys(s.world.hands.held).length);
  const list = world.show.lists[world.hands.armed];
  const exists = list !== undefined && cueNumbered(list, Number(number)) !== undefined;
  const intent = recordCue.of({
    list: list?.number ?? 1,
    cue: Number(number),
    ...(name ? { name } : {}),
    times: { up: Number(fade), down: Number(fade) },
    ...(exists ? { onto } : {}),
    ...(cueOnly ? { cueOnly } : {}),
  });
  const { says, refused, known } = useForesight(open ? linesOf(world, [intent])[0]! : "");

  const toggle = () => {
    if (!open) {
      const cue = nextCueNumber(session.store.getState().world);
      form.setValues({ number: cue, name: "", cueOnly: false });
    }
    setOpen(!open);
  };
  const record = form.onSubmit(() => {
    if (!session.act([intent])) setOpen(false);
  });

  return (
    <Popover opened={open} onChange={setOpen} position="bottom-end" width={360} shadow="md" trapFocus returnFocus>
      <Popover.Target>
        <Button size="xs" h={30} fz={14} variant="default" onClick={toggle} data-testid="record">
          Record
          {held > 0 ? (
            <span className="num" style={{ color: "var(--held)", marginLeft: 6 }}>
              {held}
            </span>
          ) : null}
        </Button>
      </Popover.Target>
      <Popover.Dropdown>
        <form onSubmit={record}>
          <Stack gap="xs">
            <Text fw={600}>Record a cue into {list ? `list ${list.number} ${list.name}` : "a list"}</Text>
            <Group gap="xs" grow>
              <NumberInput
                label="Cue"
                {...form.getInputProps("number")}
                min={0.001}
                decimalScale={3}
                hideControls
                data-autofocus
              />
              <NumberInput label="Fade, s" {...form.getInputProps("fade")} min={0} decimalScale={2} hideControls />
            </Group>
            <TextInput label="Name" {...form.getInputProps("name")} placeholder="May stay empty" />
            {exists && (
              <SegmentedControl
                {...form.getInputProps("onto")}
                data={[
                  { value: "merge", label: "Merge into it" },
                  { value: "overwrite", label: "Overwrite it" },
                ]}
              />
            )}
            <Switch
              {...form.getInputProps("cueOnly", { type: "checkbox" })}
              label="Cue only: the next cue keeps its look"
            />
            <Text size="sm" c={refused ? "var(--caution)" : "var(--muted)"} data-testid="record-says">
              {refused || !known ? says : `This ${says}.`}
            </Text>
            <Button type="submit" disabled={refused}>
              Record
            </Button>
          </Stack>
        </form>
      </Popover.Dropdown>
    </Popover>
  );
}
