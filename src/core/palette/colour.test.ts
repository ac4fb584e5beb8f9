/** Catches a type on which an asked-for colour comes out as another. */
import fc from "fast-check";
import { apart, isColour, xyOfHex, xyOfKelvin, type Xy } from "../colour/chromaticity";
import { EMITTERS } from "../colour/emitters";
import { filtered } from "../colour/filter";
import { chromaOf } from "../colour/mix";
import { newDesk, runLine } from "../desk/desk";
import { LIBRARY } from "../fixture/library/library";
import type { Entry } from "../show/value";
import * as colour from "./colour";
import { runs } from "@tests/setup/runs";

const colourValues = (...of: Parameters<typeof colour.colourValues>) => {
  const { values, off } = colour.colourValues(...of);
  return { values: Object.fromEntries(values), off };
};

const kinds = LIBRARY.flatMap((type) =>
  type.modes
    .filter((mode) => mode.channels.some((c) => /^Color(Add|Sub)_/.test(c.functions[0]!.attribute)))
    .map((mode) => ({ type: type.id, mode: mode.name })),
);
const desk = newDesk();
for (const [k, { type, mode }] of kinds.entries())
  runLine(desk, `patch 1 "${type}" mode "${mode}" as ${k + 1} unpatched`);
const { show } = desk.world;
const fixtures = Object.values(show.fixtures);

/** What held values look like, cell by cell. */
function looks(values: Record<string, Entry>): Xy[] {
  const cells = new Map<string, Record<string, number>>();
  for (const [key, { attribute, value }] of Object.entries(values)) {
    const cell = key.split(".")[1]!;
    cells.set(cell, { ...cells.get(cell), [attribute]: (value as number) / 100 });
  }
  return [...cells.values()].flatMap((parts): Xy[] => {
    if ("ColorSub_C" in parts) return [filtered([parts.ColorSub_C, parts.ColorSub_M!, parts.ColorSub_Y!])];
    const names = Object.keys(parts).filter((name) => EMITTERS[name]);
    const seen = chromaOf(
      names.map((n) => EMITTERS[n]!),
      names.map((n) => parts[n]!),
    );
    return seen ? [seen] : [];
  });
}

test("all colour-mixing types that ship are here", () => expect(fixtures.length).toBeGreaterThan(15));

test("xy of every type, there and back, and how far off it is", () => {
  const anyXy = fc.tuple(
    fc.double({ min: 0.08, max: 0.68, noNaN: true }),
    fc.double({ min: 0.04, max: 0.7, noNaN: true }),
  );
  fc.assert(
    fc.property(fc.constantFrom(...fixtures), anyXy, fc.boolean(), (fixture, xy, white) => {
      if (!isColour(xy)) return;
      const { values, off } = colourValues(show, fixture.id, { xy, white });
      const seen = looks(values);
      expect(seen.length).toBeGreaterThan(0);
      for (const at of seen) {
        expect(apart(at, xy)).toBeCloseTo(off, 4);
        if (off === 0) expect(Math.hypot(at[0] - xy[0], at[1] - xy[1])).toBeLessThan(0.002);
      }
    }),
    { numRuns: runs(400) },
  );
});

test("white of every type within 0.002 where its gamut allows", () => {
  for (const fixture of fixtures)
    for (const kelvin of [2000, 2700, 3200, 4400, 5600, 6500, 10_000]) {
      const { values, off } = colourValues(show, fixture.id, { xy: xyOfKelvin(kelvin), white: true });
      for (const at of looks(values)) if (off === 0) expect(apart(at, xyOfKelvin(kelvin))).toBeLessThan(0.001);
    }
});

test("only red, green and blue answer to xy, where they can; white and amber help beyond, and for whites", () => {
  const rgbw = fixtures.find((f) => f.type === "lantern-par" && f.mode === "rgbw")!;
  const at = (name: string, values: Record<string, Entry>) => values[`${rgbw.id}.0.${name}`]!.value as number;
  const plain = colourValues(show, rgbw.id, { xy: [0.31, 0.33], white: false }).values;
  expect(at("ColorAdd_W", plain)).toBe(0);
  expect(Math.max(...["R", "G", "B"].map((c) => at(`ColorAdd_${c}`, plain)))).toBeCloseTo(100, 9);
  expect(at("ColorAdd_W", colourValues(show, rgbw.id, { xy: xyOfKelvin(5600), white: true }).values)).toBe(100);
});

test("a picked colour sets the primaries as they are, opens the wheel, and finds the nearest slot", () => {
  const rows = newDesk();
  for (const line of [
    "patch 1 petrel-spot as 1",
    "patch 1 gull-scroller as 2",
    "patch 1 tide-bar as 3",
    "patch 1 foghorn-beams as 4",
  ])
    runLine(rows, line);
  const [spot, scroller, bar, beams] = Object.values(rows.world.show.fixtures);
  const of = (id: string) => colourValues(rows.world.show, id, { rgb: [1, 0.5, 0] }).values;
  expect(of(spot!.id)[`${spot!.id}.0.ColorSub_M`]!.value).toBeCloseTo(50, 9);
  expect(of(spot!.id)[`${spot!.id}.0.Color1`]!.value).toBe(1);
  const slots = rows.world.show.types["gull-scroller"]!.modes[0]!.channels[1]!.functions[0]!.steps!;
  const chosen = slots.find((s) => s.value === of(scroller!.id)[`${scroller!.id}.0.Color1`]!.value)!;
  const orange = xyOfHex("#ff8000");
  for (const s of slots)
    expect(apart(xyOfHex(s.colour!), orange)).toBeGreaterThanOrEqual(apart(xyOfHex(chosen.colour!), orange));
  expect(of(bar!.id)[`${bar!.id}.12.ColorAdd_G`]!.value).toBe(50);
  expect(of(beams!.id)[`${beams!.id}.0.HSB_Hue`]!.value).toBeCloseTo(30, 6);
});
