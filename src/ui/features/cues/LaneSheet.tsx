"use client";

import { Button, Group, Modal, NumberInput, SegmentedControl, Select, Stack, Switch, Text } from "@mantine/core";
import { renumberCues, setList } from "@/core/cue/intents/intents";
import { CHASE_WAYS, hasManyCues, type CueList } from "@/core/show/schema";
import { meaningOf } from "./meaning";
import { useSession, useShow } from "@/ui/show/useSession";
import classes from "./Lanes.module.css";

type Change = Parameters<typeof setList.of>[0]["change"];

const KINDS = [
  { value: "list", label: "Cue list: its cues follow one another" },
  { value: "chase", label: "Chase: its cues are steps that come with the beat" },
  { value: "morph", label: "Morph: its cues lie along its level" },
  { value: "submaster", label: "Submaster: adds its highest by level" },
  { value: "limiter", label: "Limiter: scales what it holds" },
  { value: "takeover", label: "Takeover: crossfades over every list" },
] as const;

/** How a list plays: every option, each with what it means for this list now. */
export function LaneSheet({ list, onClose }: { list: CueList; onClose(): void }) {
  const session = useSession();
  const show = useShow((s) => s.world.show);
  const run = useShow((s) => s.playing.runs[list.id]);
  const { armed, alsoArmed } = useShow((s) => s.world.hands);
  const set = (change: Change) => void session.act([setList.of({ list: list.id, change })]);
  /** The beats that are stored count from here on, whatever was tapped. */
  const setBpm = (bpm: number) => {
    if (!session.act([setList.of({ list: list.id, change: { bpm } })]))
      void session.event({ kind: "bpm", list: list.id });
  };
  const together = [armed, ...alsoArmed].includes(list.id) ? [armed, ...alsoArmed] : [list.id];
  const rate = (kind: "rate" | "effectRate", value: number) => {
    for (const id of together) void session.event({ kind, list: id, value });
  };
  const cues = list.kind === "list";
  const number = (label: string, value: number, put: (v: number) => void, more: object = {}) => (
    <NumberInput
      size="xs"
      label={label}
      value={value}
      min={0}
      {...more}
      onChange={(v) => typeof v === "number" && put(v)}
    />
  );
  return (
    <Modal opened onClose={onClose} size={720} centered title={`How list ${list.number} ${list.name} plays`}>
      <Stack gap="sm" onPointerDown={(e) => e.stopPropagation()}>
        <ul className={classes.meaning} data-testid="lane-meaning">
          {meaningOf(show, list).map((text) => (
            <li key={text}>{text}</li>
          ))}
        </ul>
        {list.kind !== "effect" && (
          <Select
            size="xs"
            label="Kind"
            data={[...KINDS]}
            value={list.kind}
            allowDeselect={false}
            onChange={(kind) => kind && set({ kind: kind })}
          />
        )}
        {list.kind === "chase" && (
          <Group gap="sm" align="end" grow>
            {number("Beats a minute", list.bpm ?? 60, setBpm, { min: 0.1, max: 6000 })}
            {number("Share of a beat, %", list.share ?? 100, (share) => set({ share }), { max: 100 })}
            <Select
              size="xs"
              label="Direction"
              data={[...CHASE_WAYS]}
              value={list.direction ?? "forward"}
              allowDeselect={false}
              onChange={(d) => d && set({ direction: d })}
            />
            <Select
              size="xs"
              label="Tempo"
              data={[
                { value: "", label: "its own" },
                ..."123456789".split("").map((t) => ({ value: t, label: `shared ${t}` })),
              ]}
              value={list.tempo === undefined ? "" : String(list.tempo)}
              onChange={(t) => set({ tempo: t ? Number(t) : null })}
            />
          </Group>
        )}
        {list.kind === "chase" && (
          <Group gap="xs">
            <Text size="sm">{run?.bpm ? `Now ${Math.round(run.bpm * 10) / 10} bpm` : ""}</Text>
            {(
              [
                ["half", 0.5],
                ["double", 2],
                ["a little slower", 0.98],
                ["a little faster", 1.02],
              ] as const
            ).map(([word, by]) => (
              <Button
                key={word}
                size="compact-xs"
                variant="default"
                onClick={() => setBpm(Math.min(6000, Math.max(0.1, (run?.bpm ?? list.bpm ?? 60) * by)))}
              >
                {word}
              </Button>
            ))}
            <Button
              size="compact-xs"
              variant="default"
              disabled={!run?.bpm}
              onClick={() => run?.bpm && setBpm(Math.round(run.bpm * 100) / 100)}
            >
              keep what was tapped
            </Button>
          </Group>
        )}
        {cues && (
          <>
            <Group gap="sm" align="end">
              <div>
                <Text size="xs">The lane</Text>
                <SegmentedControl
                  size="xs"
                  aria-label="What the lane does"
                  data={[
                    { value: "level", label: "scales its intensity" },
                    { value: "crossfade", label: "is the way into the next cue" },
                  ]}
                  value={list.fader ?? "level"}
                  onChange={(fader) => set({ fader: fader })}
                />
              </div>
              <Switch
                size="xs"
                label="Leaving 0 gives go"
                checked={list.raised === "go"}
                onChange={(e) => set({ raised: e.currentTarget.checked ? "go" : "wait" })}
              />
              <Switch
                size="xs"
                label="Reaching 0 releases"
                checked={list.zero === "release"}
                onChange={(e) => set({ zero: e.currentTarget.checked ? "release" : "hold" })}
              />
              <Switch
                size="xs"
                label="Follows timecode"
                checked={list.timecode === true}
                onChange={(e) => set({ timecode: e.currentTarget.checked })}
              />
            </Group>
            <Select
              size="xs"
              label="Go in the last cue"
              data={[
                { value: "stop", label: "does nothing" },
                { value: "wrap", label: "goes round to the first" },
                { value: "release", label: "releases the list" },
              ]}
              value={list.end}
              allowDeselect={false}
              onChange={(end) => end && set({ end: end })}
            />
          </>
        )}
        <Group gap="sm" align="end" grow>
          {number("Priority", list.priority, (priority) => set({ priority: Math.round(priority) }), {
            min: -100,
            max: 100,
          })}
          {cues && number("Back, s", list.backTime, (backTime) => set({ backTime }))}
          {number("Release, s", list.releaseTime, (releaseTime) => set({ releaseTime }))}
          {cues && number("Moves in black, s", list.blackTime, (blackTime) => set({ blackTime }))}
        </Group>
        <Group gap="lg">
          {(
            [
              ["htp", "Highest takes precedence"],
              ["bowOut", "Bows out when another gets go"],
              ["letGo", "Drops what another list takes"],
              ["resume", "Starts where it left off"],
              ["wrapDrop", "Drops what tracked when it wraps"],
              ["blackMoves", "Moves in black"],
              ["ready", "Comes up ready"],
            ] as const
          )
            .filter(([field]) => cues || !["htp", "wrapDrop", "blackMoves", "ready"].includes(field))
            .map(([field, label]) => (
              <Switch
                key={field}
                size="xs"
                label={label}
                checked={list[field]}
                onChange={(e) => set({ [field]: e.currentTarget.checked })}
              />
            ))}
        </Group>
        <Group gap="sm" align="end">
          {number("Rate, %", Math.round(run?.rate ?? 100), (v) => rate("rate", Math.min(1000, v)), { max: 1000 })}
          {number(
            "Rate of effects, %",
            Math.round(run?.effectRate ?? 100),
            (v) => rate("effectRate", Math.min(1000, v)),
            { max: 1000 },
          )}
          <Button size="compact-sm" variant="default" onClick={() => (rate("rate", 100), rate("effectRate", 100))}>
            Both to 100 %
          </Button>
          <Button
            size="compact-sm"
            variant="default"
            onClick={() => void session.event({ kind: "assert", list: list.id })}
          >
            Assert: on top again
          </Button>
          {hasManyCues(list) && (
            <Button
              size="compact-sm"
              variant="default"
              title="Their order and their looks stay"
              onClick={() => session.act([renumberCues.of({ list: list.id, from: 1, step: 1 })])}
            >
              Renumber its cues 1, 2, 3 ...
            </Button>
          )}
          {together.length > 1 && <Text size="sm">for all {together.length} that are armed</Text>}
        </Group>
      </Stack>
    </Modal>
  );
}
