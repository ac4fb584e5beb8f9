/** The largest show that is promised: 20,000 fixtures in 1,000 universes, 5,000 cues, 500 palettes, 300 macros. */
import { newCue } from "@/core/cue/intents/cueDraft";
import { newDesk, runLine } from "@/core/desk/desk";
import type { Cue, Fixture, Show } from "@/core/show/schema";
import { fixturesByNumber, listNumbered, type World } from "@/core/show/world";

const FIXTURES = 20_000;
const A_UNIVERSE = 20;
const CUES = 5000;
const PALETTES = 500;
const MACROS = 300;

/** As many copies of a record's only entry, under ids and numbers of their own. */
function copies<T extends { id: string; number: number }>(of: Record<string, T>, count: number): Record<string, T> {
  const [first] = Object.values(of);
  const [letters] = /^[a-z]+/.exec(first!.id)!;
  return Object.fromEntries(
    Array.from({ length: count }, (_, i) => {
      const id = `${letters}${1_000_000 + i}`;
      return [id, { ...first!, id, number: i + 1 }];
    }),
  );
}

export function largestShow(fixtures = FIXTURES, cuesInAll = CUES): World {
  const desk = newDesk();
  for (const line of [
    "patch 20 kelp-mini mode basic as 1 at 1:1",
    "1 thru 20 pan at 20",
    'record palette 1 "Place"',
    "1 at 10",
    "record cue 1",
    "clear",
    'record macro 1 "Up" "1 at full" "1 at 0"',
  ]) {
    const refusal = runLine(desk, line);
    if (refusal) throw new Error(`${line}: ${refusal.what}`);
  }
  const { show } = desk.world;
  const [one] = fixturesByNumber(show);
  const step = 512 / A_UNIVERSE - 1;
  const all: Record<string, Fixture> = {};
  for (let i = 0; i < fixtures; i++) {
    const id = i < A_UNIVERSE ? fixturesByNumber(show)[i]!.id : `f${2_000_000 + i}`;
    const addresses = [{ universe: Math.floor(i / A_UNIVERSE) + 1, slot: Math.floor((i % A_UNIVERSE) * step) + 1 }];
    all[id] = {
      ...one!,
      id,
      number: i + 1,
      name: `Lamp ${i + 1}`,
      addresses,
      place: { x: (i % 200) / 4 - 25, y: Math.floor(i / 200) / 4, z: 5 },
    };
  }
  let seed = 7;
  const random = (n: number): number => (seed = (seed * 1_103_515_245 + 12_345) % 2 ** 31) % n;
  const ids = Object.keys(all);
  const cues: Record<string, Cue> = {};
  for (let k = 1; k <= cuesInAll; k++) {
    const cue = newCue(`c${k + 3_000_000}`, k);
    for (let i = 0; i < 20; i++) {
      const id = ids[(k * 37 + i * 11) % fixtures]!;
      cue.entries[`${id}.0.Dimmer`] = { attribute: "Dimmer", value: random(3) === 0 ? 0 : random(100) };
      cue.entries[`${id}.0.Pan`] = { attribute: "Pan", value: random(90) };
    }
    cues[cue.id] = cue;
  }
  const list = listNumbered(show, 1)!;
  const made: Show = {
    ...show,
    name: "Largest",
    nextId: 9_000_000,
    fixtures: all,
    lists: { [list.id]: { ...list, cues } },
    palettes: copies(show.palettes, PALETTES),
    macros: copies(show.macros, MACROS),
  };
  return { ...desk.world, show: made };
}
