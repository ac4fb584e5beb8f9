/** A large show: 2,000 cues of 100 entries each, a quarter of them dark. */
import { newCue } from "@/core/cue/intents/cueDraft";
import { newDesk, runLine } from "@/core/desk/desk";
import type { Cue } from "@/core/show/schema";
import { fixturesByNumber, listNumbered, type World } from "@/core/show/world";

/** @param count of fixtures with intensity, pan and tilt. */
export function largeShow(count: number, cuesInAll = 2000): World {
  const desk = newDesk();
  for (const line of [`patch ${count} kelp-mini mode basic as 1`, "1 at 10", "record cue 1", "clear"]) {
    const refusal = runLine(desk, line);
    if (refusal) throw new Error(refusal.what);
  }
  let seed = 7;
  const random = (n: number): number => (seed = (seed * 1_103_515_245 + 12_345) % 2 ** 31) % n;
  const fixtures = fixturesByNumber(desk.world.show);
  const cues: Record<string, Cue> = {};
  for (let k = 1; k <= cuesInAll; k++) {
    const cue = newCue(`c${k + 10_000}`, k);
    for (let i = 0; i < 50; i++) {
      const { id } = fixtures[(k * 37 + i * 11) % count]!;
      cue.entries[`${id}.0.Dimmer`] = { attribute: "Dimmer", value: random(3) === 0 ? 0 : random(100) };
      cue.entries[`${id}.0.Pan`] = { attribute: "Pan", value: random(90) };
    }
    cues[cue.id] = cue;
  }
  const list = listNumbered(desk.world.show, 1)!;
  return {
    ...desk.world,
    show: { ...desk.world.show, name: "Two thousand cues", nextId: 200_000, lists: { [list.id]: { ...list, cues } } },
  };
}
