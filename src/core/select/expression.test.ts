/** Catches a selection other than the plainest reading of its words. */
import fc from "fast-check";
import { itemText } from "../show/model";
import { newDesk, runLine } from "../desk/desk";
import { runs } from "@tests/setup/runs";

/** Fixtures 1 to 6 and 9 without cells, 71 and 72 with twelve; groups 1, 2 and 5. */
function rig() {
  const desk = newDesk();
  for (const line of [
    "patch 6 dimmer as 1",
    "patch 1 dimmer as 9",
    "patch 2 tide-bar as 71",
    "3 + 1",
    "record group 1",
    "72.2 + 72.1 + 5",
    "record group 2",
    "6 thru 4",
    'record group 5 "Rear"',
    "2 + 9",
    "5 at 40",
    "none",
  ]) {
    const refusal = runLine(desk, line);
    if (refusal) throw new Error(refusal.what);
  }
  return desk;
}
const desk = rig();
const NUMBERS = [1, 2, 3, 4, 5, 6, 9, 71, 72];
const cells = (fixture: number, from = 1, to = 12) =>
  Array.from({ length: to - from + 1 }, (_, i) => `${fixture}.${from + i}`);
const GROUPS: Record<number, string[]> = { 1: ["3", "1"], 2: ["72.2", "72.1", "5"], 5: ["6", "5", "4"] };

interface Term {
  text: string;
  items: string[] | null;
}
const between = (a: number, b: number, all: number[]) =>
  all.filter((n) => n >= Math.min(a, b) && n <= Math.max(a, b)).sort((x, y) => (a <= b ? x - y : y - x));
const number = fc.integer({ min: 1, max: 12 });
const term: fc.Arbitrary<Term> = fc.oneof(
  fc.constantFrom(...NUMBERS, 7).map((n) => ({ text: String(n), items: NUMBERS.includes(n) ? [String(n)] : null })),
  fc.tuple(number, number).map(([a, b]) => ({
    text: `${a} thru ${b}`,
    items: between(a, b, NUMBERS).length > 0 ? between(a, b, NUMBERS).map(String) : null,
  })),
  fc
    .tuple(fc.constantFrom(71, 72), fc.integer({ min: 1, max: 13 }))
    .map(([f, c]) => ({ text: `${f}.${c}`, items: c <= 12 ? [`${f}.${c}`] : null })),
  fc
    .tuple(number, number)
    .map(([a, b]) => ({ text: `71.${a} thru 71.${b}`, items: a <= b ? cells(71, a, b) : cells(71, b, a).reverse() })),
  fc.integer({ min: 1, max: 5 }).map((g) => ({ text: `group ${g}`, items: GROUPS[g] ?? null })),
  fc.tuple(fc.integer({ min: 1, max: 5 }), fc.integer({ min: 1, max: 5 })).map(([a, b]) => {
    const found = between(a, b, [1, 2, 5]);
    return { text: `group ${a} thru ${b}`, items: found.length > 0 ? found.flatMap((g) => GROUPS[g]!) : null };
  }),
  fc.constant({ text: 'group "rear"', items: GROUPS[5]! }),
  fc.constant({ text: "all", items: NUMBERS.map(String) }),
  fc.constant<Term>({ text: "lit", items: ["5"] }),
);

/** Takes away: the thing itself, cells of a fixture that goes, and of a whole fixture the cells that go. */
function without(items: string[], gone: string[]): string[] {
  return items.flatMap((i) => {
    const fixture = i.split(".")[0]!;
    if (gone.includes(i) || gone.includes(fixture)) return [];
    const parts = gone.filter((g) => g.startsWith(`${i}.`));
    return !i.includes(".") && parts.length > 0 ? cells(Number(i)).filter((c) => !parts.includes(c)) : [i];
  });
}

test("terms add and take away in order, each thing once; every N, and cells, of the whole", () => {
  fc.assert(
    fc.property(
      fc.array(fc.record({ sign: fc.constantFrom("+", "-"), term }), { minLength: 1, maxLength: 4 }),
      fc.integer({ min: 1, max: 3 }),
      fc.boolean(),
      (parts, every, asCells) => {
        const own = { ...desk };
        const text = `${parts.map(({ sign, term: t }, i) => (i === 0 ? t.text : `${sign} ${t.text}`)).join(" ")}${asCells ? " cells" : ""}${every > 1 ? ` every ${every}` : ""}`;
        let wanted: string[] | null = [];
        for (const [i, { sign, term: t }] of parts.entries()) {
          if (wanted === null || t.items === null) wanted = null;
          else wanted = i === 0 || sign === "+" ? [...wanted, ...t.items] : without(wanted, t.items);
        }
        if (wanted !== null && asCells) {
          wanted = wanted.flatMap((i) => (i.includes(".") ? [i] : Number(i) > 70 ? cells(Number(i)) : []));
          if (wanted.length === 0) wanted = null;
        }
        wanted = wanted && [...new Set(wanted)].filter((_, k) => k % every === 0);
        const refusal = runLine(own, text);
        expect(
          `${text}: ${refusal ? "refused" : own.world.hands.selection.map((i) => itemText(own.world.show, i)).join(" ")}`,
        ).toBe(`${text}: ${wanted === null ? "refused" : wanted.join(" ")}`);
      },
    ),
    { numRuns: runs(600) },
  );
});

test("last is the selection before, and a removed member leaves its group", () => {
  const own = rig();
  for (const line of ["1 + 2", "5", "last + 9"]) expect(runLine(own, line)).toBeUndefined();
  expect(own.world.hands.selection.map((i) => itemText(own.world.show, i))).toEqual(["1", "2", "9"]);
  for (const line of ["remove 3", "group 1"]) expect(runLine(own, line)).toBeUndefined();
  expect(own.world.hands.selection.map((i) => itemText(own.world.show, i))).toEqual(["1"]);
});
