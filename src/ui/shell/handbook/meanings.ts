/** What the words of the trade mean here, each with a picture that is computed as the show is. */
import type { Spread } from "@/core/show/hands";

/** A thing of a tiny show that is looked at over time. */
export interface Shown {
  fixture: number;
  attribute: string;
  says: string;
}

export type Picture =
  /** A bar for each of so many items: the values that stops give over a spread. */
  | { kind: "places"; items: number; rows: { says: string; spread?: Partial<Spread>; stops?: number[] }[] }
  /** Values over time, of lines done before and of others at their seconds. */
  | {
      kind: "curves";
      lines: string[];
      play: [seconds: number, line: string][];
      seconds: number;
      shows: Shown[];
      range: [low: number, high: number];
    }
  /** What each cue of list 1 stores for the intensity of some fixtures, and what tracks into it. */
  | { kind: "cells"; lines: string[]; fixtures: number[] }
  /** From the top, what hides what lies under it. */
  | { kind: "layers"; rows: string[] }
  /** Movers from the side, pointed at one place. */
  | { kind: "aim"; lines: string[]; fixtures: number[]; at: [y: number, z: number] }
  /** All colours, the whites among them by kelvin, and what some types reach. */
  | { kind: "colours"; types: string[]; kelvins: number[] };

export interface Meaning {
  title: string;
  about: string;
  picture: Picture;
  /** A line to try. */
  example: string;
}

const dimmers = (n: number): string[] => [`patch ${n} dimmer as 1`];

export const MEANINGS: readonly Meaning[] = [
  {
    title: "Spread",
    about:
      "Gives each selected thing its place, from the first to the last. Mirror turns every other part round, bunch lets neighbours share a place, repeat starts again. Values, times, phases of effects and steps all go by it.",
    picture: {
      kind: "places",
      items: 12,
      rows: [
        { says: "as it is" },
        { says: "mirror 2", spread: { mirror: 2 } },
        { says: "bunch 2", spread: { bunch: 2 } },
        { says: "repeat 3", spread: { repeat: 3 } },
      ],
    },
    example: "spread mirror 2",
  },
  {
    title: "Values from end to end",
    about:
      "A value with to between goes evenly over the places, so that both ends are hit; with three it turns in the middle.",
    picture: {
      kind: "places",
      items: 12,
      rows: [
        { says: "20 to 80", stops: [20, 80] },
        { says: "0 to 100 to 0", stops: [0, 100, 0] },
        { says: "the same, mirror 2", stops: [0, 100, 0], spread: { mirror: 2 } },
      ],
    },
    example: "1 thru 12 at 0 to 100 to 0",
  },
  {
    title: "Tracking",
    about:
      "A cue stores only what you gave it. What it does not store comes from the cue before: it tracks, until a later cue stores something else or releases it.",
    picture: {
      kind: "cells",
      lines: [
        ...dimmers(4),
        "1 thru 3 at 40",
        "record cue 1",
        "clear",
        "1 at 90",
        "record cue 2",
        "clear",
        "4 at 60",
        "record cue 3",
        "clear",
        "2 at 0",
        "record cue 4",
        "set cue 4 1 intensity released",
      ],
      fixtures: [1, 2, 3, 4],
    },
    example: "set cue 4 1 intensity released",
  },
  {
    title: "Cue only",
    about:
      "Recorded cue only, a change is for that cue: the next one gets back what was there before, so that its look stays.",
    picture: {
      kind: "cells",
      lines: [
        ...dimmers(3),
        "1 thru 3 at 40",
        "record cue 1",
        "clear",
        "3 at 70",
        "record cue 3",
        "clear",
        "1 at 100",
        "record cue 2 cueonly",
      ],
      fixtures: [1, 2, 3],
    },
    example: "record cue 2 cueonly",
  },
  {
    title: "Fades",
    about:
      "What gets brighter takes the time up, what gets darker the time down, each after its delay. Whether it is up or down is judged against the stage at the moment of go.",
    picture: {
      kind: "curves",
      lines: [
        ...dimmers(2),
        "2 at 90",
        "record cue 1 fade 0",
        "clear",
        "1 at 80",
        "2 at 10",
        "record cue 2 up 2 down 4 downdelay 1",
        "clear",
        "go",
      ],
      play: [[0.5, "go"]],
      seconds: 6,
      shows: [
        { fixture: 1, attribute: "Dimmer", says: "up 2 s" },
        { fixture: 2, attribute: "Dimmer", says: "down 4 s after 1 s" },
      ],
      range: [0, 100],
    },
    example: "record cue 2 up 2 down 4 downdelay 1",
  },
  {
    title: "Own times",
    about:
      "A fixture may have a delay and a fade of its own, which wins over the cue's. Spread over a selection, a change runs through it.",
    picture: {
      kind: "curves",
      lines: [...dimmers(5), "1 thru 5 at 100 intensity delay 0 to 4 fade 1", "record cue 1 fade 2", "clear"],
      play: [[0, "go"]],
      seconds: 5.5,
      shows: [1, 2, 3, 4, 5].map((fixture) => ({ fixture, attribute: "Dimmer", says: `fixture ${fixture}` })),
      range: [0, 100],
    },
    example: "1 thru 5 at 100 intensity delay 0 to 4 fade 1",
  },
  {
    title: "Moves in black",
    about:
      "A mover that is dark goes to where it will next be lit while nobody sees it, so that its next cue opens in place.",
    picture: {
      kind: "curves",
      lines: [
        "patch 1 petrel-spot as 1",
        "1 at 100 pan at 0",
        "record cue 1 fade 0",
        "1 at 0 pan at 0",
        "record cue 2 fade 1",
        "1 at 100 pan at 90",
        "record cue 3 fade 1",
        "clear",
        "go",
      ],
      play: [
        [0.5, "go"],
        [6, "go"],
      ],
      seconds: 8,
      shows: [
        { fixture: 1, attribute: "Dimmer", says: "intensity" },
        { fixture: 1, attribute: "Pan", says: "pan, to 90°" },
      ],
      range: [0, 100],
    },
    example: "set list 1 blackmoves on",
  },
  {
    title: "Latest and highest",
    about:
      "Of lists that hold the same fixture, the one that moved it last has it; released, what lies below comes back. A list that is highest wins adds its intensity only where it is the brighter.",
    picture: {
      kind: "curves",
      lines: [
        ...dimmers(2),
        "1 + 2 at 50",
        "record list 1 cue 1 fade 0",
        "clear",
        "1 at 20",
        "record list 2 cue 1 fade 1",
        "clear",
        "2 at 20",
        "record list 3 cue 1 fade 1",
        "set list 3 htp on",
        "clear",
        "go list 1",
      ],
      play: [
        [1, "go list 2 + 3"],
        [3.5, "release list 2"],
        [3.5, "release list 3"],
      ],
      seconds: 6.5,
      shows: [
        { fixture: 1, attribute: "Dimmer", says: "latest: 20 over 50" },
        { fixture: 2, attribute: "Dimmer", says: "highest: 50 stays" },
      ],
      range: [0, 100],
    },
    example: "set list 3 htp on",
  },
  {
    title: "What wins on stage",
    about:
      "From the bottom up; each hides, or scales, what is under it. Why, on any number, says which of them it is now.",
    picture: {
      kind: "layers",
      rows: [
        "park: pinned, whatever else",
        "grand master, blackout",
        "limiters",
        "highlight and identify",
        "the programmer (not while blind)",
        "takeover lists, by their level",
        "highest wins: intensity only",
        "lists: priority, then the latest",
        "the default of the type",
      ],
    },
    example: "why 1 intensity",
  },
  {
    title: "Effects over a selection",
    about:
      "A wave runs once in a cycle; across says how much of it lies over the selection at one moment, and bpm how many cycles a minute. Here 360° over four.",
    picture: {
      kind: "curves",
      lines: [...dimmers(4), "1 thru 4 Dimmer wave sine low 0 high 100 bpm 30 across 360"],
      play: [],
      seconds: 4,
      shows: [1, 2, 3, 4].map((fixture) => ({ fixture, attribute: "Dimmer", says: `fixture ${fixture}` })),
      range: [0, 100],
    },
    example: "1 thru 4 Dimmer wave sine low 0 high 100 bpm 30 across 360",
  },
  {
    title: "Absolute and relative",
    about:
      "An absolute wave goes from its low to its high, whatever lies below. A relative one moves around what lies below, by its size.",
    picture: {
      kind: "curves",
      lines: [
        ...dimmers(2),
        "1 + 2 at 70",
        "record cue 1 fade 0",
        "clear",
        "go",
        "1 Dimmer wave sine low 0 high 40 bpm 60",
        "2 Dimmer wave sine relative size 20 bpm 60",
      ],
      play: [],
      seconds: 3,
      shows: [
        { fixture: 1, attribute: "Dimmer", says: "absolute, 0 to 40" },
        { fixture: 2, attribute: "Dimmer", says: "relative, 70 ± 20" },
      ],
      range: [0, 100],
    },
    example: "2 Dimmer wave sine relative size 20 bpm 60",
  },
  {
    title: "Palettes",
    about:
      "Held values that came from a palette follow it. Where a palette says several things of a fixture, the nearest counts.",
    picture: {
      kind: "layers",
      rows: [
        "each: an exception of this very fixture",
        "type: what its type's reference has",
        "any: real units, for whatever has it",
      ],
    },
    example: 'record palette 41 "Harbour blue" type',
  },
  {
    title: "Aim",
    about:
      "Movers are given a point in the room; each finds its own pan and tilt from where and how it hangs, and follows when it is moved on the plan. Of all ways the one with the least pan is taken; flip takes the other way round.",
    picture: {
      kind: "aim",
      lines: ["patch 3 petrel-spot as 1", "1 place 0 6 6", "2 place 0 3 6", "3 place 0 -2 6", "1 thru 3 aim at 0 0 0"],
      fixtures: [1, 2, 3],
      at: [0, 0],
    },
    example: "1 thru 12 aim at 0 0 0",
  },
  {
    title: "Colour by xy and kelvin",
    about:
      "All colours lie in the outline; whites by kelvin along the line through it. A type reaches what is in its own corners; beyond, it comes as near as it can, and how near is said.",
    picture: { kind: "colours", types: ["kelp-wash", "petrel-spot"], kelvins: [2000, 3200, 5600, 10_000] },
    example: "colour at 3200K",
  },
];
