/** Cleaning a list: drift is taken out and stored where it is next seen, and every look stays (SEMANTICS 8). */
import { plainShow } from "../../palette/intents";
import { defineIntent } from "../../show/change/intent";
import { IdSchema } from "../../show/ids";
import { cueText, exact, listText } from "../../show/words/lineText";
import { fail } from "../../show/refusal";
import type { CueList, Show } from "../../show/schema";
import { cuesOf, type World } from "../../show/world";
import { isStop } from "../../show/value";
import { cueIn, cueLabel, listIn, snapshot } from "./cueDraft";
import { driftsOf } from "../drift";
import { repairs, withAdditions } from "../keepLooks";
import { fixtureLook, partsOf, sameLook } from "../looks";
import { trackingOf } from "../tracking";
import { plural } from "../../units/plural";

/** Every pass may bring to light an entry that hid behind another. */
const PASSES = 40;

/** The drifts of some cues of a list that can be cured. @param within ids of the cues. */
const curable = (show: Show, list: CueList, within: ReadonlySet<string>) =>
  driftsOf(show, list).filter((d) => d.curable && within.has(d.cue));

/** The list without the drift of some of its cues; what its looks need is stored in the next cue that shows it. */
export function cleaned(show: Show, before: CueList, within: ReadonlySet<string>): CueList {
  let list = before;
  for (let pass = 0; pass < PASSES; pass++) {
    const drifts = curable(show, list, within);
    if (drifts.length === 0) break;
    const cues = { ...list.cues };
    for (const { cue: id, changes } of drifts) {
      const entries = { ...cues[id]!.entries };
      for (const { key } of changes) {
        const entry = entries[key];
        if (entry?.value === undefined) continue;
        // A stop came with the value it made room for.
        if (entry.effect === undefined || isStop(entry.effect)) delete entries[key];
        else
          entries[key] = {
            attribute: entry.attribute,
            effect: entry.effect,
            ...(entry.time ? { time: entry.time } : {}),
          };
      }
      cues[id] = { ...cues[id]!, entries };
    }
    const bare = { ...list, cues };
    list = withAdditions(bare, repairs(show, before, bare, new Set()));
  }
  return list;
}

/** The first cue, fixture and parameter in which two versions of a list look different. */
export function firstOther(
  show: Show,
  before: CueList,
  after: CueList,
): { cue: string; fixture: string; key: string } | undefined {
  const [a, b] = [trackingOf(before, show), trackingOf(after, show)];
  for (const [at, cue] of cuesOf(before).entries())
    for (const fixture of Object.values(show.fixtures)) {
      const [x, y] = [fixtureLook(show, fixture, a, at), fixtureLook(show, fixture, b, at)];
      if (sameLook(x, y)) continue;
      const place = x && y ? x.findIndex((v, i) => Math.abs(v - (y[i] ?? NaN)) > 0.01 || y[i] === undefined) : 0;
      return { cue: cue.id, fixture: fixture.id, key: partsOf(show, fixture)[Math.max(0, place)]?.key ?? "" };
    }
  return undefined;
}

export const clean = defineIntent({
  kind: "clean",
  fields: { list: IdSchema, cue: IdSchema.optional(), thru: IdSchema.optional() },
  apply(world, { list: id, cue, thru }) {
    const list = listIn(world, id);
    const show = plainShow(world);
    const before = snapshot(list);
    const within = cuesWithin(before, cue, thru);
    if (cue !== undefined) cueIn(world, id, cue);
    const after = cleaned(show, before, within);
    if (after === before) return;
    const other = firstOther(show, before, after);
    if (other) {
      const { number } = before.cues[other.cue]!;
      const fixture = show.fixtures[other.fixture]!;
      fail(
        `cleaning would change the look of cue ${exact(number)}: fixture ${fixture.number}, ${other.key.split(".")[2] ?? ""}`,
        "Clean other cues, or mark the move as meant",
      );
    }
    for (const now of Object.values(after.cues)) {
      const target = list.cues[now.id]!;
      const was = before.cues[now.id]!.entries;
      for (const key of Object.keys(was)) if (!now.entries[key]) delete target.entries[key];
      for (const [key, entry] of Object.entries(now.entries)) if (was[key] !== entry) target.entries[key] = entry;
    }
  },
  says(world, { list: id, cue, thru }) {
    const list = world.show.lists[id];
    if (!list) return "cleans a list that is gone";
    const found = curable(world.show, list, cuesWithin(list, cue, thru));
    const where = cue === undefined ? `list ${list.number}` : `${cueLabel(world, id, cue)}${thru ? " and on" : ""}`;
    if (found.length === 0) return `finds no drift to clean in ${where}`;
    const fixtures = new Set(found.map((d) => d.fixture)).size;
    return `takes ${plural(found.length, "drift")} of ${plural(fixtures, "fixture")} out of ${where}; every look stays as it is`;
  },
  lines: (world: World, { list, cue, thru }) => [
    cue === undefined
      ? `clean ${listText(world, list)}`
      : `clean ${cueText(world, list, cue)}${thru ? ` thru ${exact(world.show.lists[list]?.cues[thru]?.number ?? 0)}` : ""}`,
  ],
});

/** The cues of a range, ends included; all without one. */
export function cuesWithin(list: CueList, cue?: string, thru?: string): Set<string> {
  const order = cuesOf(list).map((c) => c.id);
  if (cue === undefined) return new Set(order);
  const [from, to] = [order.indexOf(cue), order.indexOf(thru ?? cue)];
  return new Set(order.slice(Math.min(from, to), Math.max(from, to) + 1));
}
