/** Catches a colour that comes out as another: emitters, filters and whites, there and back. */
import fc from "fast-check";
import { apart, isColour, kelvinNear, uvOf, xyOf, xyOfHex, xyOfKelvin, type Xy } from "./chromaticity";
import { EMITTERS, FILTERS, SOURCE } from "./emitters";
import { filtered, filterGamut, filtersFor } from "./filter";
import { FILTER_COLOURS } from "./filterList";
import { chromaOf, gamutOf, lightOf, mixOf } from "./mix";
import { runs } from "@tests/setup/runs";

const of = (...names: string[]) => names.map((n) => EMITTERS[`ColorAdd_${n}`]!);
const SETS = [
  of("R", "G", "B"),
  of("R", "G", "B", "W"),
  of("R", "G", "B", "RY", "GY"),
  of("R", "G", "B", "W", "RY", "UV"),
];
const distance = (a: Xy, b: Xy) => Math.hypot(a[0] - b[0], a[1] - b[1]);
const anyXy = fc.tuple(
  fc.double({ min: 0.05, max: 0.72, noNaN: true }),
  fc.double({ min: 0.02, max: 0.8, noNaN: true }),
);

test("xy to emitters and back, for any mix of any set", () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...SETS),
      fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 6, maxLength: 6 }),
      (set, drawn) => {
        const wanted = chromaOf(set, drawn);
        if (!wanted) return;
        const mix = mixOf(set, wanted);
        expect(mix.off).toBe(0);
        expect(distance(chromaOf(set, mix.shares)!, wanted)).toBeLessThan(0.002);
        for (const share of mix.shares) expect(share >= 0 && share <= 1).toBe(true);
        // The brightest: no less light than the mix it was drawn from, at any scale.
        expect(lightOf(set, mix.shares)[1]).toBeGreaterThanOrEqual(lightOf(set, drawn)[1] - 1e-6);
      },
    ),
    { numRuns: runs(300) },
  );
});

test("out of the gamut the nearest in u'v' is taken, and how far is said", () => {
  fc.assert(
    fc.property(fc.constantFrom(...SETS), anyXy, (set, wanted) => {
      const mix = mixOf(set, wanted);
      const got = chromaOf(set, mix.shares)!;
      expect(apart(got, wanted)).toBeCloseTo(mix.off, 5);
      const corners = gamutOf(set);
      if (mix.off === 0) return;
      // No place on the outline is nearer.
      for (let i = 0; i < corners.length; i++) {
        const [a, b] = [uvOf(corners[i]!), uvOf(corners[(i + 1) % corners.length]!)];
        for (let t = 0; t <= 1; t += 0.1) {
          const at = xyOf([a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t]);
          expect(apart(at, wanted)).toBeGreaterThanOrEqual(mix.off - 1e-6);
        }
      }
    }),
    { numRuns: runs(200) },
  );
});

test("filters: full ones give their own xy, none gives the source, and any mix is met and bright", () => {
  expect(distance(filtered([0, 0, 0]), SOURCE.xy)).toBeLessThan(1e-9);
  for (const [k, name] of ["ColorSub_C", "ColorSub_M", "ColorSub_Y"].entries()) {
    const full = [0, 1, 2].map((i) => (i === k ? 1 : 0)) as [number, number, number];
    expect(distance(filtered(full), FILTERS[name]!)).toBeLessThan(1e-9);
  }
  const share = fc.double({ min: 0, max: 1, noNaN: true });
  fc.assert(
    fc.property(fc.tuple(share, share, share), (drawn) => {
      const wanted = filtered(drawn);
      const { shares, off } = filtersFor(wanted);
      expect(off).toBeLessThan(1e-6);
      expect(distance(filtered(shares as [number, number, number]), wanted)).toBeLessThan(0.002);
      expect(Math.min(...shares)).toBeLessThan(1e-6);
    }),
    { numRuns: runs(200) },
  );
  fc.assert(
    fc.property(anyXy, (wanted) => {
      const { shares, off } = filtersFor(wanted);
      expect(apart(filtered(shares as [number, number, number]), wanted)).toBeCloseTo(off, 6);
      if (off > 0) for (const at of filterGamut()) expect(apart(at, wanted)).toBeGreaterThanOrEqual(off - 1e-4);
    }),
    { numRuns: runs(100) },
  );
});

// CIE 15: illuminant A, D55, D65, D75; Planck at 2,000 K and 4,000 K by Wyszecki and Stiles.
test.each([
  [2856, [0.4476, 0.4074]],
  [2000, [0.5267, 0.4133]],
  [4000, [0.3805, 0.3768]],
  [5503, [0.3324, 0.3474]],
  [6504, [0.3127, 0.329]],
  [7504, [0.299, 0.3149]],
] as [number, Xy][])("%i K is the white it is", (kelvin, xy) => {
  expect(distance(xyOfKelvin(kelvin), xy)).toBeLessThan(0.0005);
});

test("from 1,000 to 20,000 K there is no jump, and every white is a colour", () => {
  for (let kelvin = 1000; kelvin < 20_000; kelvin += 10) {
    const at = xyOfKelvin(kelvin);
    expect(isColour(at)).toBe(true);
    expect(apart(at, xyOfKelvin(kelvin + 10))).toBeLessThan(0.003);
  }
});

test("whites of RGBW are met within 0.002, all emitters joining", () => {
  const set = of("R", "G", "B", "W");
  for (const kelvin of [1800, 2700, 3200, 4000, 4500, 5600, 6504, 9000, 20_000]) {
    const mix = mixOf(set, xyOfKelvin(kelvin));
    expect(mix.off).toBe(0);
    expect(distance(chromaOf(set, mix.shares)!, xyOfKelvin(kelvin))).toBeLessThan(0.002);
  }
});

test("what no light has is no colour; every emitter and filter of the list is one", () => {
  for (const xy of [
    [0.9, 0.05],
    [0, 0],
    [0.05, 0.1],
    [0.7, 0.4],
  ] as Xy[])
    expect(isColour(xy)).toBe(false);
  for (const { xy } of Object.values(EMITTERS)) expect(isColour(xy)).toBe(true);
  for (const { hex } of FILTER_COLOURS) expect(isColour(xyOfHex(hex))).toBe(true);
  expect(new Set(FILTER_COLOURS.map((f) => f.name)).size).toBe(FILTER_COLOURS.length);
});

test("the white nearest to any colour: that of the locus for those on it, and none is nearer for any other", () => {
  fc.assert(
    fc.property(fc.integer({ min: 1000, max: 20_000 }), (kelvin) => {
      const found = kelvinNear(xyOfKelvin(kelvin));
      expect(found.off).toBeLessThan(1e-4);
      // In mired, as far as the eye goes: the locus has hardly any length up there.
      expect(Math.abs(1e6 / found.kelvin - 1e6 / kelvin)).toBeLessThan(0.5);
    }),
    { numRuns: runs(200) },
  );
  fc.assert(
    fc.property(anyXy, (xy) => {
      const { off } = kelvinNear(xy);
      for (let kelvin = 1000; kelvin <= 20_000; kelvin += 250)
        expect(apart(xyOfKelvin(kelvin), xy)).toBeGreaterThanOrEqual(off - 1e-4);
    }),
    { numRuns: runs(100) },
  );
});
