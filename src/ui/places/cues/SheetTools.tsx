"use client";

import { ActionIcon, SegmentedControl, Select } from "@mantine/core";
import { memo } from "react";
import { LOOKS, type Looks } from "@/core/cue/intents/cueDraft";
import type { Show } from "@/core/show/schema";
import { groupsByNumber } from "@/core/show/world";
import { Legend } from "@/ui/base/parts/Legend";

const LOOKS_WORDS: Record<Looks, string> = { cueonly: "cue only", keeplooks: "keep looks", track: "let it track" };

const MARKS = [
  ["•50", "Stored in this cue"],
  ["↧50", "Tracks in from an earlier cue"],
  ["[50]", "Stored, the same as would track in: a block"],
  ["∅", "Nothing in force: what lies below shows"],
  ["•∅", "A release stored here"],
  ["◇", "From a palette"],
  ["∿", "An effect runs"],
  ["◷", "With times of its own"],
  ["⌖", "Aimed at a point of the room"],
  ["☾", "Changes in the dark"],
] as const;

interface Props {
  /** Beside the filmstrip. */
  narrow: boolean;
  groups: Show["groups"];
  /** Whether anything is selected. */
  some: boolean;
  whose: string;
  setWhose(whose: string): void;
  looks: Looks;
  setLooks(looks: Looks): void;
  names: boolean;
  setNames(names: boolean): void;
}

/** Whose values the sheet shows, and what an edit means for later cues. By itself, as the list changes with every edit and this does not. */
export const SheetTools = memo(function SheetTools(props: Props) {
  const { narrow, groups, some, whose, setWhose, looks, setLooks, names, setNames } = props;
  return (
    <>
      <Select
        size="xs"
        w={narrow ? 116 : 150}
        aria-label="Whose values"
        allowDeselect={false}
        value={whose}
        onChange={(v) => v && setWhose(v)}
        data={[
          { value: "selection", label: some ? "the selected" : "all used" },
          ...(some ? [{ value: "all", label: "all used" }] : []),
          ...groupsByNumber({ groups }).map((g) => ({ value: g.id, label: `${g.number} ${g.name}` })),
        ]}
      />
      <SegmentedControl
        size="xs"
        aria-label="What an edit means for later cues"
        data={LOOKS.map((value) => ({ value, label: LOOKS_WORDS[value] }))}
        value={looks}
        color={looks === "track" ? undefined : "teal"}
        onChange={setLooks}
      />
      <ActionIcon
        size="sm"
        variant={names ? "light" : "subtle"}
        color="gray"
        aria-pressed={names}
        aria-label="Palettes by name"
        title="Palettes by name instead of their values; in sheets too"
        onClick={() => setNames(!names)}
      >
        ◇
      </ActionIcon>
      <Legend marks={MARKS} />
    </>
  );
});
