/** Ready effects to begin from, of our own making. */
import type { Drawn, Driving, Phasing, Voice } from "../show/effectSchema";
import { NO_SPREAD, type Spread } from "../show/spreadSchema";
import { PLAIN_PHASING } from "./words";

export interface Ready {
  name: string;
  /** What it is like, in a few words. */
  about: string;
  voices: readonly Voice[];
}

const voice = (driving: Driving, run: Partial<Phasing> = {}, spread: Partial<Spread> = {}): Voice => ({
  ...PLAIN_PHASING,
  ...run,
  spread: { ...NO_SPREAD, ...spread },
  ...driving,
});

const level = (wave: "sine" | "square" | "pulse" | "rampdown" | "random", low: number, high: number): Driving => ({
  attribute: "Dimmer",
  wave,
  range: { low, high },
});
const around = (attribute: string, size: number): Driving => ({
  attribute,
  wave: "sine",
  range: { centre: 0, size },
});

const BEAT: Drawn = {
  points: [
    [0, 0],
    [6, 100],
    [14, 20],
    [22, 80],
    [34, 0],
    [100, 0],
  ],
  join: "smooth",
};

const walk = (colours: readonly string[]): Driving => ({
  of: { family: "Colour" },
  stops: colours.map((colour) => ({ value: { colour }, hold: 35, curve: "smooth" })),
});

export const GALLERY: readonly Ready[] = [
  {
    name: "Swell",
    about: "rises and falls, symmetrical",
    voices: [voice(level("sine", 10, 90), { bpm: 14 }, { mirror: 2 })],
  },
  {
    name: "Out from the middle",
    about: "rings running outwards",
    voices: [voice(level("sine", 5, 100), { bpm: 20 }, { by: "centre" })],
  },
  { name: "Footsteps", about: "one after another", voices: [voice(level("pulse", 0, 100), { bpm: 45 })] },
  {
    name: "Odd and even",
    about: "two halves by turns",
    voices: [voice(level("square", 15, 85), { bpm: 40 }, { repeat: 2 })],
  },
  {
    name: "Falling drops",
    about: "struck, then fading",
    voices: [voice(level("rampdown", 0, 100), { bpm: 30, across: 1080 })],
  },
  { name: "Embers", about: "a flicker, each its own", voices: [voice(level("random", 25, 80), { bpm: 190 })] },
  {
    name: "Heartbeat",
    about: "a double knock and a rest",
    voices: [
      voice({ attribute: "Dimmer", wave: { drawn: BEAT }, range: { low: 12, high: 95 } }, { bpm: 40, across: 0 }),
    ],
  },
  {
    name: "Colour walk",
    about: "three colours, each kept a while",
    voices: [voice(walk(["#2ad1c9", "#ff8a18", "#6b35d8"]), { bpm: 8 })],
  },
  {
    name: "Two colours",
    about: "there and back without mud",
    voices: [voice(walk(["#1c3f9c", "#ff7d08"]), { bpm: 10, across: 180 })],
  },
  {
    name: "Ring",
    about: "each beam draws a circle",
    voices: [voice(around("Pan", 9), { bpm: 16 }), voice(around("Tilt", 6), { bpm: 16, start: 90 })],
  },
  {
    name: "Eight",
    about: "a lying eight",
    voices: [voice(around("Pan", 14), { bpm: 8 }), voice(around("Tilt", 6), { bpm: 16 })],
  },
  { name: "Lazy sway", about: "slowly from side to side", voices: [voice(around("Pan", 16), { bpm: 5, across: 90 })] },
  { name: "Nodding", about: "up and down, a wave along the row", voices: [voice(around("Tilt", 8), { bpm: 14 })] },
  {
    name: "Breathing",
    about: "beams that open and close",
    voices: [voice(around("Zoom", 6), { bpm: 7, across: 120 })],
  },
];
