/** The largest show that is promised: 20,000 fixtures, 1,000 universes, 5,000 cues, 500 palettes, 300 macros. */
import { newDesk, runLine } from "@/core/desk/desk";
import { newCue } from "@/core/cue/cueDraft";
import type { Cue } from "@/core/show/schema";
import { fixturesByNumber, listNumbered, type World } from "@/core/show/world";

const FIXTURES = 20_000;
const UNIVERSES = 1000;
const CUES = 5000;
const PALETTES = 500;
const MACROS = 300;

export function largestShow(): World {
  const desk = newDesk();
  const say = (line: string) => {
    const refusal = runLine(desk, line);
    if (refusal) throw new Error(`${line}: ${refusal.what}`);
  };
  const each = FIXTURES / UNIVERSES;
  for (let u = 1; u <= UNIVERSES; u++) say(`patch ${each} kelp-mini mode basic as ${(u - 1) * each + 1} at ${u}:1`);
  for (let p = 1; p <= PALETTES; p++) {
    say(`${p} thru ${p + 19} pan ${p % 90} tilt ${p % 45}`);
    say(`record position ${p} "Place ${p}"`);
    say("clear");
  }
  for (let m = 1; m <= MACROS; m++) say(`record macro ${m} "Macro ${m}" "${m} at full" "${m} at 0"`);
  say("1 at 10");
  say("record cue 1");
  say("clear");
  let seed = 7;
  const random = (n: number): number => (seed = (seed * 1_103_515_245 + 12_345) % 2 ** 31) % n;
  const fixtures = fixturesByNumber(desk.world.show);
  const cues: Record<string, Cue> = {};
  for (let k = 1; k <= CUES; k++) {
    const cue = newCue(`c${k + 1_000_000}`, k);
    for (let i = 0; i < 20; i++) {
      const { id } = fixtures[(k * 37 + i * 11) % FIXTURES]!;
      cue.entries[`${id}.0.Dimmer`] = { attribute: "Dimmer", value: random(3) === 0 ? 0 : random(100) };
      cue.entries[`${id}.0.Pan`] = { attribute: "Pan", value: random(90) };
    }
    cues[cue.id] = cue;
  }
  const list = listNumbered(desk.world.show, 1)!;
  const show = { ...desk.world.show, name: "Largest", nextId: 2_000_000, lists: { [list.id]: { ...list, cues } } };
  return { ...desk.world, show };
}
