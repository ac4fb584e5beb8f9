/** Catches a palette that gives fixtures something else after it was only told otherwise how to keep it. */
import fc from "fast-check";
import { apart } from "../colour/chromaticity";
import { newDesk, runLine, type Desk } from "../desk/desk";
import { LIBRARY } from "../fixture/library/library";
import { resolveEntry } from "../program/resolve";
import { paramKey } from "../show/ids";
import { modelOf } from "../show/model";
import { WIDTHS } from "../show/paletteSchema";
import { fixturesByNumber, palettesByNumber } from "../show/world";
import { colourSeen } from "./seen";
import { runs } from "@tests/setup/runs";

const does = (desk: Desk, ...lines: string[]) =>
  lines.forEach((line) => expect([line, runLine(desk, line)]).toEqual([line, undefined]));

/** What a palette gives every parameter of the show. */
function given(desk: Desk, id: string): Record<string, number> {
  const { show } = desk.world;
  return Object.fromEntries(
    fixturesByNumber(show).flatMap((f) =>
      modelOf(show, f).specs.flatMap((spec): [string, number][] => {
        const key = paramKey(f.id, spec.cell, spec.head);
        const means = resolveEntry(show, key, spec, { attribute: spec.head, value: { palette: id } });
        return means ? [[key, means.value + means.fn * 1e6]] : [];
      }),
    ),
  );
}
const close = (a: Record<string, number>, b: Record<string, number>) => {
  expect(Object.keys(b)).toEqual(expect.arrayContaining(Object.keys(a)));
  for (const key in a) expect([key, b[key]]).toEqual([key, expect.closeTo(a[key]!, 1)]);
};

const values = fc.array(
  fc.record({
    fixture: fc.integer({ min: 1, max: 5 }),
    zoom: fc.integer({ min: 8, max: 40 }),
    hue: fc.constantFrom("#ff0000", "#20a0ff", "#ffc080"),
  }),
  { minLength: 1, maxLength: 6 },
);

function deskWith(rows: { fixture: number; zoom: number; hue: string }[], width: string): { desk: Desk; id: string } {
  const desk = newDesk();
  does(desk, "patch 3 kelp-wash as 1", "patch 2 petrel-spot as 4");
  for (const { fixture, zoom, hue } of rows) does(desk, `${fixture} zoom at ${zoom} colour at ${hue}`);
  does(desk, `record palette 1 ${width}`, "clear");
  return { desk, id: palettesByNumber(desk.world.show)[0]!.id };
}

test("another reference, folding in, and any other width change nothing a fixture gets", () => {
  fc.assert(
    fc.property(
      values,
      fc.constantFrom(...WIDTHS),
      fc.constantFrom(...WIDTHS),
      fc.integer({ min: 1, max: 5 }),
      (rows, width, next, reference) => {
        const { desk, id } = deskWith(rows, width);
        const before = given(desk, id);
        if (runLine(desk, `set palette 1 reference ${reference}`) === undefined) close(before, given(desk, id));
        does(desk, "set palette 1 fold in");
        close(before, given(desk, id));
        does(desk, `set palette 1 width ${next}`);
        close(before, given(desk, id));
      },
    ),
    { numRuns: runs(60) },
  );
});

test("deleted with hard values, no stage and no cue changes", () => {
  fc.assert(
    fc.property(values, fc.constantFrom(...WIDTHS), (rows, width) => {
      const { desk } = deskWith(rows, width);
      does(desk, "all at 60 palette 1", "record cue 1 fade 0", "clear", "1 palette 1", "go");
      const before = [...desk.player.frame];
      does(desk, "delete palette 1");
      expect([...desk.player.frame]).toEqual(before);
      expect(Object.values(desk.world.show.palettes)).toEqual([]);
      does(desk, "undo");
      expect([...desk.player.frame]).toEqual(before);
    }),
    { numRuns: runs(30) },
  );
});

const kinds = LIBRARY.flatMap((type) =>
  type.modes
    .filter((mode) => mode.channels.some((c) => /^Color(Add|Sub)_/.test(c.functions[0]!.attribute)))
    .map((mode) => ({ type: type.id, mode: mode.name })),
);

test("a colour for any comes out within 0.002 in u'v' on every type that mixes, where its gamut allows", () => {
  const desk = newDesk();
  does(desk, "patch 1 kelp-wash as 1 unpatched");
  kinds.forEach(({ type, mode }, k) => does(desk, `patch 1 "${type}" mode "${mode}" as ${k + 2} unpatched`));
  for (const [n, hex] of ["#ffd0a0", "#d0e8ff", "#ffb0c0", "#c8ffd0"].entries()) {
    does(desk, `1 colour at ${hex}`, `record palette ${n + 1} any only colour`, "clear");
    const { show } = desk.world;
    const palette = palettesByNumber(show)[n]!;
    const wanted = palette.any.colour!.xy;
    let met = 0;
    for (const fixture of fixturesByNumber(show)) {
      const { specs } = modelOf(show, fixture);
      const seen = colourSeen(specs, (spec) => {
        const means = resolveEntry(show, paramKey(fixture.id, spec.cell, spec.head), spec, {
          attribute: spec.head,
          value: { palette: palette.id },
        });
        return { attribute: spec.head, value: means?.value ?? spec.default };
      })!;
      if (apart(seen.xy, wanted) < 0.002) met += 1;
      // A warm-white and amber pair reaches few colours; whoever mixes three reaches all of these.
      else expect(specs.filter((s) => /^Color(Add_[RGB]|Sub_[CMY])$/.test(s.head)).length).toBeLessThan(3);
    }
    expect(met).toBeGreaterThan(15);
  }
});

test("a link that goes round is refused with the way it goes", () => {
  const desk = newDesk();
  does(
    desk,
    "patch 1 dimmer as 1",
    "1 at 50",
    'record palette 1 "One" each',
    "1 palette 1",
    'record palette 2 "Two" each',
    "1 palette 2",
  );
  const no = runLine(desk, "record palette 1 overwrite");
  expect(no?.what).toMatch(/palette 1 "One", palette 2 "Two", palette 1 "One"/);
});
