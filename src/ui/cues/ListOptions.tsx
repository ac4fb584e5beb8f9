"use client";

import { ActionIcon, Popover, Select, Stack, Switch, Tooltip } from "@mantine/core";
import { IconAdjustments } from "@tabler/icons-react";
import { setList } from "@/core/cue/intents";
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

const SWITCHES = [
  ["htp", "Highest takes precedence (intensity)"],
  ["bowOut", "Bows out when another list is given go"],
  ["letGo", "Lets go of what another list takes"],
  ["wrapDrop", "Drops what tracked when it goes round"],
  ["resume", "After a release, starts where it left off"],
] as const;
const NUMBERS = [
  ["priority", "Priority (higher wins over lower)", { min: -100, max: 100 }],
  ["backTime", "Back time, s", { min: 0, step: 0.1 }],
  ["releaseTime", "Release time, s", { min: 0, step: 0.1 }],
] as const;

/** How a list plays. */
export function ListOptions({ list }: { list: CueList }) {
  const session = useSession();
  const set = (change: Partial<CueList>, join = false) =>
    void session.act([setList.of({ list: list.id, change })], undefined, join);
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
            onChange={(kind) => kind && set({ kind: kind as CueList["kind"] })}
          />
          <Select
            size="xs"
            label="After the last cue"
            data={ENDS}
            value={list.end}
            allowDeselect={false}
            onChange={(end) => end && set({ end: end as CueList["end"] })}
          />
          {SWITCHES.map(([field, label]) => (
            <Switch
              key={field}
              size="xs"
              label={label}
              checked={list[field]}
              onChange={(e) => set({ [field]: e.currentTarget.checked })}
            />
          ))}
          {NUMBERS.map(([field, label, limits]) => (
            <NumberField
              key={field}
              size="xs"
              label={label}
              value={list[field]}
              {...limits}
              onSet={(v, first) => set({ [field]: v }, !first)}
            />
          ))}
        </Stack>
      </Popover.Dropdown>
    </Popover>
  );
}
