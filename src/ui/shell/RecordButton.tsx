"use client";

import { Button, Group, NumberInput, Popover, SegmentedControl, Stack, Switch, Text, TextInput } from "@mantine/core";
import { useState } from "react";
import { cueNumbered, cuesOf, type World } from "@/core/show/world";
import { useForesight } from "../ask/useForesight";
import { quote } from "../parts/quote";
import { useSession, useShow } from "../useSession";

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
  const [number, setNumber] = useState<number | string>(1);
  const [name, setName] = useState("");
  const [fade, setFade] = useState<number | string>(3);
  const [onto, setOnto] = useState("merge");
  const [cueOnly, setCueOnly] = useState(false);
  const world = useShow((s) => s.world);
  const held = useShow((s) => Object.keys(s.world.hands.held).length);
  const list = world.show.lists[world.hands.armed];
  const exists = list !== undefined && cueNumbered(list, Number(number)) !== undefined;
  const line = `record cue ${number}${name ? ` ${quote(name)}` : ""} fade ${fade}${exists ? ` ${onto}` : ""}${cueOnly ? " cueonly" : ""}`;
  const { says, refused, known } = useForesight(open ? line : "");

  const toggle = () => {
    if (!open) {
      setNumber(nextCueNumber(session.store.getState().world));
      setName("");
      setCueOnly(false);
    }
    setOpen(!open);
  };
  const record = async () => {
    if (!(await session.run(line))) setOpen(false);
  };

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
        <form onSubmit={(e) => (e.preventDefault(), void record())}>
          <Stack gap="xs">
            <Text fw={600}>Record a cue into {list ? `list ${list.number} ${list.name}` : "a list"}</Text>
            <Group gap="xs" grow>
              <NumberInput
                label="Cue"
                value={number}
                onChange={setNumber}
                min={0.001}
                decimalScale={3}
                hideControls
                data-autofocus
              />
              <NumberInput label="Fade, s" value={fade} onChange={setFade} min={0} decimalScale={2} hideControls />
            </Group>
            <TextInput
              label="Name"
              value={name}
              onChange={(e) => setName(e.currentTarget.value)}
              placeholder="May stay empty"
            />
            {exists && (
              <SegmentedControl
                value={onto}
                onChange={setOnto}
                data={[
                  { value: "merge", label: "Merge into it" },
                  { value: "overwrite", label: "Overwrite it" },
                ]}
              />
            )}
            <Switch
              checked={cueOnly}
              onChange={(e) => setCueOnly(e.currentTarget.checked)}
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
