/** Catches tracking derived from the version before that differs from tracking built anew. */
import fc from "fast-check";
import { newCue } from "./intents/cueDraft";
import { inForceAt, standingOf, storedIn } from "./tracking";
import { newList } from "../show/world";
import type { Cue, CueList } from "../show/schema";
import { runs } from "@tests/setup/runs";

const NO_SHOW = { types: {}, fixtures: {}, palettes: {} };
const KEYS = ["f1.0.Dimmer", "f1.0.Pan", "f2.0.Dimmer"];
const change = fc.record({
  cue: fc.integer({ min: 0, max: 5 }),
  key: fc.constantFrom(...KEYS),
  value: fc.option(fc.integer({ min: 0, max: 100 })),
  what: fc.constantFrom("entry", "entry", "entry", "fresh", "reach", "number"),
});

const withCue = (list: CueList, cue: Cue): CueList => ({ ...list, cues: { ...list.cues, [cue.id]: cue } });

function changed(
  list: CueList,
  { cue: n, key, value, what }: { cue: number; key: string; value: number | null; what: string },
): CueList {
  const id = `c${n + 1}`;
  const cue = list.cues[id] ?? newCue(id, n + 1);
  if (what === "fresh") return withCue(list, { ...cue, fresh: !cue.fresh });
  if (what === "reach")
    return withCue(list, { ...cue, reach: value === null ? null : { upTo: cue.number + (value % 4) } });
  if (what === "number") return withCue(list, { ...cue, number: value === null ? n + 1 : (value % 7) + 0.5 + n / 100 });
  const entries = { ...cue.entries };
  if (value === null) delete entries[key];
  else entries[key] = { attribute: key.split(".")[2]!, value };
  return withCue(list, { ...cue, entries });
}

test("step by step or all at once: the same in force everywhere", () => {
  let id = 1;
  fc.assert(
    fc.property(fc.array(change, { minLength: 1, maxLength: 30 }), (changes) => {
      let list: CueList = newList(`l${++id}`, 1);
      for (const c of changes) {
        list = changed(list, c);
        storedIn(list);
      }
      const stepwise = storedIn(list);
      const anew = storedIn({ ...list, id: `l${++id}`, cues: { ...list.cues } });
      expect(new Map(stepwise.columns)).toEqual(new Map(anew.columns));
      const n = Object.keys(list.cues).length;
      for (let i = 0; i < n; i++)
        for (const key of KEYS) expect(inForceAt(stepwise, key, i)).toEqual(inForceAt(anew, key, i));
    }),
    { numRuns: runs(200) },
  );
});

test("round the end, what tracked comes along unless a fresh start lies before", () => {
  let list = newList("l900", 1);
  list = changed(list, { cue: 0, key: KEYS[0]!, value: 10, what: "entry" });
  list = changed(list, { cue: 1, key: KEYS[1]!, value: 20, what: "entry" });
  const plain = storedIn(list);
  expect(inForceAt(plain, KEYS[1]!, 0)).toBeUndefined();
  expect(inForceAt(plain, KEYS[1]!, 0, true)?.at).toBe(1);
  const fresh = storedIn(changed(list, { cue: 0, key: "", value: null, what: "fresh" }));
  expect(inForceAt(fresh, KEYS[1]!, 0, true)).toBeUndefined();
});

test("a stored release is released there and unset after", () => {
  let list = newList("l901", 1);
  list = changed(list, { cue: 0, key: KEYS[0]!, value: 10, what: "entry" });
  list = withCue(list, {
    ...newCue("c2", 2),
    entries: { [KEYS[0]!]: { attribute: "Dimmer", value: { release: true } } },
  });
  list = withCue(list, newCue("c3", 3));
  expect([0, 1, 2].map((i) => standingOf(list, i, KEYS[0]!, NO_SHOW).state)).toEqual(["stored", "released", "unset"]);
});
