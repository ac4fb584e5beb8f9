import fc from "fast-check";
import { setCue } from "../cue/intents/intents";
import { writeCue } from "../cue/intents/writeCueIntent";
import { demoWorld } from "@tests/setup/demo";
import { INTENTS } from "../intents";
import { applyIntents } from "../show/change/intent";
import { isRefusal } from "../show/refusal";
import { frozen } from "../units/frozen";
import { applied, rehearse } from "./rehearse";
import { runs } from "@tests/setup/runs";

const world = frozen(demoWorld());
const { show } = world;
const list = Object.values(show.lists).find((l) => l.number === 1)!;
const cues = Object.keys(list.cues);
const fixtures = Object.keys(show.fixtures);

const edits = fc.oneof(
  fc
    .record({
      cue: fc.constantFrom(...cues),
      fixture: fc.constantFrom(...fixtures),
      value: fc.integer({ min: 0, max: 3 }),
    })
    .map(({ cue, fixture, value }) =>
      writeCue.of({
        list: list.id,
        cue,
        values: { [`${fixture}.0.Dimmer`]: { attribute: "Dimmer", value } },
        unset: [],
        looks: "track",
      }),
    ),
  fc.constantFrom(...cues).map((cue) => setCue.of({ list: list.id, cue, name: "Once more" })),
  fc.constant(setCue.of({ list: list.id, cue: "nobody", name: "Nothing" })),
);

test("what is rehearsed is what is done, and nothing else is taken for it", () => {
  fc.assert(
    fc.property(
      fc.array(edits, { minLength: 1, maxLength: 3 }),
      fc.array(edits, { minLength: 1, maxLength: 3 }),
      (one, other) => {
        const told = rehearse(world, one);
        expect(applied(world, structuredClone(one))).toBe(told);
        for (const made of [one, other]) expect(applied(world, made)).toEqual(applyIntents(INTENTS, world, made));
        // In a world that has gone on it counts no more.
        const next = isRefusal(told) ? world : told.world;
        if (next !== world) expect(applied(next, one)).toEqual(applyIntents(INTENTS, next, one));
      },
    ),
    { numRuns: runs(60) },
  );
});
