"use client";

import {
  Button,
  Group,
  MultiSelect,
  NumberInput,
  Popover,
  SegmentedControl,
  Select,
  Stack,
  Text,
  TextInput,
} from "@mantine/core";
import { namesIn } from "@/core/units/names";
import { useForm } from "@mantine/form";
import { useState } from "react";
import { recordCue } from "@/core/cue/intents/recordIntents";
import type { Intent } from "@/core/show/change/intent";
import type { Looks } from "@/core/cue/intents/cueDraft";
import { newTimes, timesText } from "@/core/cue/times";
import { cueNumbered, cuesOf, listsByNumber, type World } from "@/core/show/world";
import { plain } from "@/core/units/units";
import { useForesightOf } from "@/ui/show/foresight/useForesight";
import { numberBefore } from "@/ui/features/cues/cueRoom";
import { RipplePairs } from "@/ui/stage/pictures/RipplePairs";
import { useSession, useShow } from "@/ui/show/useSession";
import classes from "./Shell.module.css";

const NOTHING: Intent[] = [];
const PICTURE = { width: 92, height: 66 };

interface RecordValues {
  number: number | string;
  name: string;
  fade: number | string;
  onto: "merge" | "overwrite";
  looks: Looks;
  list: string;
  more: string[];
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
    initialValues: { number: 1, name: "", fade: "", onto: "merge", looks: "track", list: "", more: [] },
  });
  const { number, name, fade, onto, looks, more } = form.values;
  // Closed, it needs to know of nothing but how much is held.
  const world = useShow((s) => (open ? s.world : null)) ?? session.store.getState().world;
  const held = useShow((s) => namesIn(s.world.hands.held).length);
  const list = world.show.lists[form.values.list] ?? world.show.lists[world.hands.armed];
  const there = list && cueNumbered(list, Number(number));
  const exists = there !== undefined;
  const into = (of: number) =>
    recordCue.of({
      list: of,
      cue: Number(number),
      ...(name ? { name } : {}),
      // A time that nobody typed is that of the cue, or the usual one.
      ...(fade === "" ? {} : { times: { up: Number(fade), down: Number(fade) } }),
      ...(exists ? { onto } : {}),
      ...(looks === "track" ? {} : { looks }),
    });
  const intents = [
    into(list?.number ?? 1),
    ...more.flatMap((id) => (id !== list?.id && world.show.lists[id] ? [into(world.show.lists[id].number)] : [])),
  ];
  // A number free between the armed list's current cue and the next, for what is put in.
  const cues = list ? cuesOf(list) : [];
  const running = useShow((s) => (list ? (s.playing.runs[list.id]?.cue ?? null) : null));
  const here = cues.findIndex((c) => c.id === running);
  const between = here >= 0 && here + 1 < cues.length ? numberBefore(cues, here + 1) : undefined;
  const choices = listsByNumber(world.show)
    .filter((l) => l.kind !== "effect")
    .map((l) => ({ value: l.id, label: `${l.number} ${l.name}` }));
  const { says, refused, known, ripple, signed } = useForesightOf(open ? intents : NOTHING);

  const toggle = () => {
    if (!open) {
      const cue = nextCueNumber(session.store.getState().world);
      form.setValues({ number: cue, name: "", fade: "", looks: "track", list: "", more: [] });
    }
    setOpen(!open);
  };
  const record = form.onSubmit(() => {
    if (!session.act(intents)) setOpen(false);
  });

  return (
    <Popover opened={open} onChange={setOpen} position="bottom-end" width={420} shadow="md" trapFocus returnFocus>
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
            <Text fw={600}>Record what is held as a cue</Text>
            <Group gap="xs" grow align="end">
              <Select
                label="List"
                allowDeselect={false}
                data={choices}
                value={list?.id ?? null}
                onChange={(v) => v && form.setFieldValue("list", v)}
              />
              <NumberInput
                label="Cue"
                {...form.getInputProps("number")}
                min={0.001}
                decimalScale={3}
                hideControls
                data-autofocus
              />
              <NumberInput
                label="Fade, s"
                {...form.getInputProps("fade")}
                placeholder={timesText(there?.times ?? newTimes())}
                min={0}
                decimalScale={2}
                hideControls
              />
            </Group>
            <TextInput label="Name" {...form.getInputProps("name")} placeholder="Optional" />
            {exists && (
              <SegmentedControl
                {...form.getInputProps("onto")}
                data={[
                  { value: "merge", label: "Merge into it" },
                  { value: "overwrite", label: "Overwrite it" },
                ]}
              />
            )}
            {between !== undefined && Number(number) !== between && (
              <Button size="compact-xs" variant="default" onClick={() => form.setFieldValue("number", between)}>
                Insert it after the running cue: {plain(between, 3)}
              </Button>
            )}
            <SegmentedControl
              size="xs"
              aria-label="What it means for later cues"
              {...form.getInputProps("looks")}
              data={[
                { value: "track", label: "Let it track" },
                { value: "cueonly", label: "Cue only" },
                { value: "keeplooks", label: "Keep later looks" },
              ]}
            />
            {choices.length > 1 && (
              <MultiSelect
                size="xs"
                label="Into these lists too"
                data={choices.filter((c) => c.value !== list?.id)}
                value={more}
                onChange={(v) => form.setFieldValue("more", v)}
                clearable
              />
            )}
            <Text size="sm" c={refused ? "var(--caution)" : "var(--muted)"} data-testid="record-says">
              {refused || !known ? says : `This ${says}.`}
            </Text>
            {signed.length > 0 && (
              <Text size="sm" fw={600} c="var(--danger)">
                Breaks {signed.length === 1 ? "a look that was" : `${signed.length} looks that were`} signed off.
              </Text>
            )}
            {ripple.length > 0 && (
              <div className={classes.ripple} data-testid="record-ripple">
                <Text size="sm" c="var(--caution)">
                  Changes {ripple.length} other {ripple.length === 1 ? "look" : "looks"}: now, and after
                </Text>
                <RipplePairs ripple={ripple} then={ripple} {...PICTURE} most={6} />
              </div>
            )}
            <Button type="submit" disabled={refused}>
              Record
            </Button>
          </Stack>
        </form>
      </Popover.Dropdown>
    </Popover>
  );
}
