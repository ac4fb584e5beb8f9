"use client";

import { ActionIcon, Popover, Select, Stack, Switch, Tooltip } from "@mantine/core";
import { IconAdjustments } from "@tabler/icons-react";
import type { CueList } from "@/core/show/schema";
import { NumberField } from "../parts/NumberField";
import { useSession } from "../useSession";

const KINDS = [
  { value: "list", label: "Plays its cues" },
  { value: "submaster", label: "Submaster: adds its highest by level" },
  { value: "limiter", label: "Limiter: scales what it holds" },
  { value: "takeover", label: "Takeover: crossfades over every list" },
];
const ENDS = [
  { value: "stop", label: "Stop at the last cue" },
  { value: "wrap", label: "Go round to the first" },
  { value: "release", label: "Release" },
];

/** How a list plays. Every control says the line it stands for. */
export function ListOptions({ list }: { list: CueList }) {
  const session = useSession();
  const set = (rest: string) => void session.run(`set list ${list.number} ${rest}`);
  const onOff = (on: boolean) => (on ? "on" : "off");
  const number = (word: string) => (v: number, first: boolean) =>
    void session.run(`set list ${list.number} ${word} ${v}`, !first);
  return (
    <Popover position="bottom-end" width={330} shadow="md">
      <Popover.Target>
        <Tooltip label="How this list plays">
          <ActionIcon variant="default" size={28} aria-label="List options">
            <IconAdjustments size={16} />
          </ActionIcon>
        </Tooltip>
      </Popover.Target>
      <Popover.Dropdown>
        <Stack gap="xs">
          <Select
            size="xs"
            label="Kind"
            data={KINDS}
            value={list.kind}
            allowDeselect={false}
            onChange={(v) => v && set(`kind ${v === "list" ? "cues" : v}`)}
          />
          <Select
            size="xs"
            label="After the last cue"
            data={ENDS}
            value={list.end}
            allowDeselect={false}
            onChange={(v) => v && set(`end ${v}`)}
          />
          <Switch
            size="xs"
            label="Highest takes precedence (intensity)"
            checked={list.htp}
            onChange={(e) => set(`htp ${onOff(e.currentTarget.checked)}`)}
          />
          <Switch
            size="xs"
            label="Bows out when another list is given go"
            checked={list.bowOut}
            onChange={(e) => set(`bowout ${onOff(e.currentTarget.checked)}`)}
          />
          <Switch
            size="xs"
            label="Lets go of what another list takes"
            checked={list.letGo}
            onChange={(e) => set(`overtaken ${e.currentTarget.checked ? "letgo" : "return"}`)}
          />
          <Switch
            size="xs"
            label="Drops what tracked when it goes round"
            checked={list.wrapDrop}
            onChange={(e) => set(`wrapdrop ${onOff(e.currentTarget.checked)}`)}
          />
          <Switch
            size="xs"
            label="After a release, starts where it left off"
            checked={list.resume}
            onChange={(e) => set(`restart ${e.currentTarget.checked ? "left" : "first"}`)}
          />
          <NumberField
            size="xs"
            label="Priority (higher wins over lower)"
            value={list.priority}
            min={-100}
            max={100}
            onSet={number("priority")}
          />
          <NumberField
            size="xs"
            label="Back time, s"
            value={list.backTime}
            min={0}
            step={0.1}
            onSet={number("backtime")}
          />
          <NumberField
            size="xs"
            label="Release time, s"
            value={list.releaseTime}
            min={0}
            step={0.1}
            onSet={number("releasetime")}
          />
        </Stack>
      </Popover.Dropdown>
    </Popover>
  );
}
