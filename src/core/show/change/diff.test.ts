/** Catches diffs that lose something when they are joined, read from text, or told of whole entries. */
import fc from "fast-check";
import { applyDiff, diffOf, invertDiff, joinDiffs, readDiff, writeDiff } from "./diff";
import { createFollower, createTeller, type Onward } from "./followed";

const entry = fc.record(
  {
    attribute: fc.constantFrom("Pan", "Dimmer"),
    value: fc.oneof(fc.integer({ min: 0, max: 3 }), fc.constant({ palette: "p1" }), fc.constant({ palette: "p2" })),
    time: fc.record({ delay: fc.integer({ min: 0, max: 2 }) }),
  },
  { requiredKeys: ["attribute", "value"] },
);
const world = fc.record({
  show: fc.record({ name: fc.constantFrom("a", "b"), lists: fc.dictionary(fc.constantFrom("l1", "l2"), entry) }),
  hands: fc.record({
    held: fc.dictionary(fc.constantFrom("f1.0.Pan", "f2.0.Pan", "f3.0.Pan", "f4.0.Pan"), entry),
    blind: fc.boolean(),
  }),
});

test("two diffs joined do what both do, there and back", () => {
  fc.assert(
    fc.property(world, world, world, (a, b, c) => {
      const joined = joinDiffs(diffOf(a, b), diffOf(b, c));
      expect(applyDiff(a, joined)).toEqual(c);
      expect(applyDiff(c, invertDiff(joined))).toEqual(a);
    }),
  );
});

test("what is held is said once however often it is joined", () => {
  const at = (value: number) => ({
    hands: { held: { "f1.0.Pan": { attribute: "Pan", value }, "f2.0.Pan": { attribute: "Pan", value: -value } } },
  });
  let joined = diffOf(at(0), at(1));
  for (let k = 1; k < 50; k++) joined = joinDiffs(joined, diffOf(at(k), at(k + 1)));
  expect(joined).toEqual(diffOf(at(0), at(50)));
  expect(joined).toHaveLength(2);
});

test("a diff comes back from its text, and a text that is none is told from one", () => {
  fc.assert(
    fc.property(world, world, (a, b) => {
      const diff = diffOf(a, b);
      expect(applyDiff(a, readDiff(writeDiff(diff))!)).toEqual(b);
    }),
  );
  for (const text of [
    "",
    "{}",
    "[1]",
    '[{"path":[]}]',
    '[{"path":[1]}]',
    '[{"path":"show"}]',
    `[{"path":${JSON.stringify(Array(17).fill("a"))}}]`,
  ])
    expect(readDiff(text)).toBeUndefined();
});

test("who only follows what is told comes to the same, and refuses what is none", () => {
  const follow = (from: object, onward: Onward) => createFollower()(structuredClone(from) as never, onward);
  fc.assert(
    fc.property(world, world, world, (a, b, c) => {
      const all = [...diffOf(a, b), ...diffOf(b, c)];
      expect(follow(a, createTeller()(all))?.world).toEqual(c);
      expect(follow(c, createTeller()(invertDiff(all)))?.world).toEqual(a);
      const held = Object.keys({ ...a.hands.held, ...b.hands.held });
      const others = held.filter((key) => JSON.stringify(a.hands.held[key]) !== JSON.stringify(b.hands.held[key]));
      expect(new Set(follow(a, createTeller()(diffOf(a, b)))?.held)).toEqual(new Set(others));
    }),
  );
  const whole = [
    { path: ["hands"], to: { held: {} } },
    { path: ["hands", "held", "f1.0.Pan"], to: { value: 1 } },
  ];
  expect(follow({}, createTeller()(whole))?.world).toEqual({ hands: { held: { "f1.0.Pan": { value: 1 } } } });
  expect(follow({}, createTeller()(whole))?.held).toBeUndefined();
  const run = (text: string, ...numbers: number[]): Onward => ({
    text: `{"held":[${text}],"rest":"[]"}`,
    numbers: Float64Array.from(numbers),
  });
  for (const onward of [
    { text: "" },
    { text: "{}" },
    { text: '{"held":[1,2],"rest":"[]"}' },
    { text: '{"held":[],"rest":"[1]"}' },
    { text: '{"held":[]}' },
    run('{"attribute":"Pan","keys":["f1.0.Pan"]}'),
    run('{"attribute":"Pan","keys":["f1.0.Pan"]}', 1, 2),
    run('{"attribute":"Pan","keys":["f1.0.Pan"]}', NaN),
    run('{"attribute":"Pan","keys":[1]}', 1),
    run('{"attribute":"Pan","keys":["__proto__"]}', 1),
    run('{"keys":["f1.0.Pan"]}'),
    run('{"keys":["f1.0.Pan"],"entries":[]}'),
    run('{"entries":[null]}'),
  ])
    expect([onward.text, follow({ hands: { held: {} } }, onward)]).toEqual([onward.text, undefined]);
});

test("a follower comes to the same from change to change, and hears the keys of a drag once", () => {
  fc.assert(
    fc.property(world, fc.array(world, { minLength: 1, maxLength: 8 }), (first, versions) => {
      const [tell, follow] = [createTeller(), createFollower()];
      let [before, followed] = [first, structuredClone(first) as never];
      for (const version of versions) {
        const onward = structuredClone(tell(diffOf(before, version)));
        followed = follow(followed, onward)!.world as never;
        expect(followed).toEqual(version);
        before = version;
      }
    }),
  );
  const held = (pan: number, tilt: number) => ({
    hands: {
      held: {
        "f1.0.Pan": { attribute: "Pan", value: pan },
        "f1.0.Tilt": { attribute: "Tilt", value: tilt },
        "f2.0.Pan": { attribute: "Pan", value: pan },
      },
    },
  });
  const [tell, follow] = [createTeller(), createFollower()];
  const [one, two, three] = [held(0, 0), held(1, 2), held(3, 4)];
  const [first, second] = [tell(diffOf(one, two)), tell(diffOf(two, three))];
  expect([first.text.includes("f2.0.Pan"), second.text.includes("f2.0.Pan")]).toEqual([true, false]);
  const after = follow(structuredClone(one) as never, first)!;
  const last = follow(after.world, second)!;
  expect(last.world).toEqual(three);
  expect(last.held).toBe(after.held);
});

test("hundreds of thousands of entries are followed", () => {
  const entry = { attribute: "Pan", value: { palette: "p1" } };
  const diff = Array.from({ length: 200_000 }, (_, k) => ({ path: ["hands", "held", `f${k}.0.Pan`], to: entry }));
  const after = createFollower()({ hands: { held: {} } } as never, createTeller()(diff))!;
  expect(Object.keys(after.world.hands.held)).toHaveLength(diff.length);
});

test("what an older journal tells of part of an entry stays before what came after it", () => {
  const held = (value: number) => ({ hands: { held: { "f1.0.Pan": { attribute: "Pan", value } } } });
  const path = ["hands", "held", "f1.0.Pan"];
  const entry = (value: number) => ({ attribute: "Pan", value });
  const older = joinDiffs([{ path, from: entry(0), to: entry(1) }], [{ path: [...path, "value"], from: 1, to: 2 }]);
  const joined = joinDiffs(older, [{ path, from: entry(2), to: entry(3) }]);
  expect(applyDiff(held(0), joined)).toEqual(held(3));
  expect(applyDiff(held(3), invertDiff(joined))).toEqual(held(0));
});
