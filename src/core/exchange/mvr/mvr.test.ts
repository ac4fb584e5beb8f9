/** Catches a rig that does not come back from its MVR file (DIN SPEC 15801), or one of another hand read wrongly. */
import fc from "fast-check";
import { strToU8, zipSync } from "fflate";
import { demoWorld } from "@tests/setup/demo";
import { newDesk, runLine } from "../../desk/desk";
import { INTENTS } from "../../intents";
import { rotationOf } from "../../patch/room";
import { applyIntents } from "../../show/change/intent";
import { isRefusal } from "../../show/refusal";
import type { Show } from "../../show/schema";
import { newHands, newShow } from "../../show/world";
import { importFixtures } from "../importIntent";
import { writeGdtf } from "../gdtf/file";
import { LIBRARY } from "../../fixture/library/library";
import { hungText, placedBy } from "./matrix";
import { piecesNew, planMvr } from "./plan";
import { readMvr } from "./read";
import { writeMvr } from "./write";
import { runs } from "@tests/setup/runs";

function brought(show: Show, bytes: Uint8Array, how: "add" | "update"): Show {
  const read = readMvr(bytes, show);
  if (isRefusal(read)) throw new Error(read.what);
  const { rows, types } = planMvr(show, read, how);
  const done = applyIntents(INTENTS, { show, hands: newHands(show) }, [
    importFixtures.of({
      rows: rows.map(({ updates, fixture }) => ({ updates, fixture })),
      types,
      pieces: piecesNew(show, read.pieces),
    }),
  ]);
  if (isRefusal(done)) throw new Error(done.what);
  return done.world.show;
}
/** A micrometre is as fine as a file says it. */
const fine = ({ x, y, z }: { x: number; y: number; z: number }) => [x, y, z].map((v) => v.toFixed(4));
const plain = (show: Show) => ({
  fixtures: Object.values(show.fixtures)
    .map(({ number, name, type, mode, addresses, place, turn, virtualDimmer, position }) => ({
      number,
      name,
      type,
      mode,
      addresses,
      place: fine(place),
      turn: fine(turn),
      virtualDimmer,
      position,
    }))
    .sort((a, b) => a.number - b.number),
  scenery: Object.values(show.scenery)
    .map(({ id: _, ...piece }) => piece)
    .sort((a, b) => a.name.localeCompare(b.name)),
});

test("the demo's rig comes back from its MVR file in a new show", () => {
  const { show } = demoWorld();
  const { bytes } = writeMvr(show);
  expect(plain(brought(newShow("Fresh"), bytes, "add"))).toEqual(plain(show));
});

test("turns and places go through matrices and back", () => {
  const angle = fc.double({ min: -180, max: 180, noNaN: true });
  const metre = fc.double({ min: -50, max: 50, noNaN: true });
  fc.assert(
    fc.property(fc.tuple(angle, angle, angle), fc.tuple(metre, metre, metre), ([x, y, z], [a, b, c]) => {
      const placed = placedBy(hungText({ x: a, y: b, z: c }, { x, y, z }))!;
      const [wanted, got] = [rotationOf({ x, y, z }), rotationOf(placed.turn)];
      wanted.forEach((row, i) => row.forEach((v, k) => expect(got[i]![k]).toBeCloseTo(v, 4)));
      expect(Math.hypot(placed.place.x - a, placed.place.y - b, placed.place.z - c)).toBeLessThan(1e-4);
    }),
  );
});

test("a file updates by its ids, says what changes, and leaves what it does not have", () => {
  const desk = newDesk();
  for (const line of ["patch 3 petrel-spot as 1 at 1:1", "patch 1 kelp-wash as 20 at 2:1", "1 at 50", "record cue 1"])
    runLine(desk, line);
  const { bytes } = writeMvr(desk.world.show);
  for (const line of ["1 renumber 101", "2 address 5:1", "3 place 4 4 4", '20 name "Rail"'])
    expect(runLine(desk, line)).toBeUndefined();
  const read = readMvr(bytes, desk.world.show);
  if (isRefusal(read)) throw new Error(read.what);
  const { rows } = planMvr(desk.world.show, read, "update");
  expect(rows.map((r) => [r.by, r.changes.map((c) => c.what)])).toEqual([
    ["uuid", ["number"]],
    ["uuid", ["address"]],
    ["uuid", ["place"]],
    ["uuid", ["name"]],
  ]);
  const after = brought(desk.world.show, bytes, "update");
  expect(Object.values(after.fixtures).map((f) => f.number)).toEqual([1, 2, 3, 20]);
  expect(after.lists).toEqual(desk.world.show.lists);
});

const scene = (inner: string, aux = "") =>
  `<?xml version="1.0"?><GeneralSceneDescription verMajor="1" verMinor="6"><Scene><AUXData>${aux}</AUXData><Layers><Layer uuid="00000000-0000-0000-0000-000000000001" name="L"><ChildList>${inner}</ChildList></Layer></Layers></Scene></GeneralSceneDescription>`;
const packed = (xml: string, more: Record<string, Uint8Array> = {}) =>
  zipSync({ "GeneralSceneDescription.xml": strToU8(xml), ...more });

test("another hand's file: a group moves what hangs in it, absolute and dotted addresses, a missing type is told", () => {
  const spot = writeGdtf(LIBRARY.find((t) => t.id === "petrel-spot")!);
  const fixture = (name: string, spec: string, address: string, matrix = "{1,0,0}{0,1,0}{0,0,1}{1000,2000,3000}") =>
    `<Fixture uuid="11111111-2222-4333-8444-55555555555${name.length}" name="${name}"><Matrix>${matrix}</Matrix><GDTFSpec>${spec}</GDTFSpec><GDTFMode>Compact</GDTFMode><FixtureID>${name.length}</FixtureID><Addresses><Address break="0">${address}</Address></Addresses></Fixture>`;
  const group = `<GroupObject uuid="x" name="g"><Matrix>{0,1,0}{-1,0,0}{0,0,1}{0,5000,0}</Matrix><ChildList>${fixture("abc", "Own@Spot.gdtf", "1030")}</ChildList></GroupObject>`;
  const read = readMvr(
    packed(scene(fixture("a", "Own@Spot", "2.5") + group + fixture("abcd", "Nobody@Ghost.gdtf", "1")), {
      "Own@Spot.gdtf": spot,
    }),
    newShow("x"),
  );
  if (isRefusal(read)) throw new Error(read.what);
  expect(read.fixtures.map((f) => [f.number, f.type.id, f.mode, f.addresses, f.place, f.turn.z])).toEqual([
    [1, "petrel-spot", "compact", [{ universe: 2, slot: 5 }], { x: 1, y: 2, z: 3 }, 0],
    // Turned by 90 degrees about z: x becomes y.
    [3, "petrel-spot", "compact", [{ universe: 3, slot: 6 }], { x: -2, y: 6, z: 3 }, 90],
  ]);
  expect(read.notes.join("; ")).toContain("Ghost");
});

test("addresses that clash are left out in words, not refused", () => {
  const desk = newDesk();
  runLine(desk, "patch 2 kelp-wash as 1 at 1:1");
  const { bytes } = writeMvr(desk.world.show);
  const other = newDesk();
  runLine(other, "patch 1 dimmer as 50 at 1:5");
  const read = readMvr(bytes, other.world.show);
  if (isRefusal(read)) throw new Error(read.what);
  const { rows } = planMvr(other.world.show, read, "add");
  expect(rows.map((r) => [r.fixture.addresses.length, r.problem !== undefined])).toEqual([
    [0, true],
    [1, false],
  ]);
});

test("files that were damaged neither crash nor hang", () => {
  const desk = newDesk();
  runLine(desk, "patch 3 petrel-spot as 1 at 1:1");
  const { bytes } = writeMvr(desk.world.show);
  const xml = strToU8(
    scene(
      `<Fixture name="a"><Matrix>{1,0,0}{0,1,0}{0,0,1}{0,0,0}</Matrix><GDTFSpec>Halyard@Petrel Spot</GDTFSpec><FixtureID>4</FixtureID></Fixture>`,
    ),
  );
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.nat(), fc.nat(255)), { minLength: 1, maxLength: 8 }),
      fc.boolean(),
      (edits, inside) => {
        const damaged = (inside ? xml : bytes).slice();
        for (const [at, byte] of edits) damaged[at % damaged.length] = byte;
        const read = readMvr(inside ? packed(new TextDecoder().decode(damaged)) : damaged, newShow("x"));
        if (isRefusal(read)) expect(read.what.length).toBeGreaterThan(10);
        else planMvr(newShow("x"), read, "add");
      },
    ),
    { numRuns: runs(120) },
  );
});

test("what other programs count and sort fixtures by is kept in notes, and what is left out is said", () => {
  const said = `<UnitNumber>5</UnitNumber><CustomId>77</CustomId><Classing>c1</Classing>`;
  const one = (id: string, more: string) =>
    `<Fixture uuid="11111111-2222-4333-8444-555555555551" name="a"><Matrix>{1,0,0}{0,1,0}{0,0,1}{0,0,0}</Matrix><GDTFSpec>Halyard@Petrel Spot</GDTFSpec><FixtureID>${id}</FixtureID>${more}<Addresses><Address break="0">1</Address><Address break="1">3.7</Address></Addresses></Fixture>`;
  const symbol = `<Truss uuid="t" name="T"><Matrix>{1,0,0}{0,1,0}{0,0,1}{1000,0,0}</Matrix><Geometries><Symbol uuid="s" symdef="d"><Matrix>{4,0,0}{0,0.3,0}{0,0,0.3}{0,2000,6000}</Matrix></Symbol></Geometries></Truss>`;
  const read = readMvr(
    packed(
      scene(
        one("A12", said) + `<FocusPoint uuid="p" name="Centre"><Matrix>{1,0}</Matrix></FocusPoint>` + symbol,
        `<Class uuid="c1" name="Front"/><Symdef uuid="d" name="Box"><ChildList><Geometry3D fileName="truss.glb"/></ChildList></Symdef>`,
      ),
    ),
    newShow("x"),
  );
  if (isRefusal(read)) throw new Error(read.what);
  expect(read.fixtures[0]).toMatchObject({
    number: undefined,
    note: "FixtureID A12; unit 5; custom id 77; class Front",
  });
  const notes = read.notes.join("\n");
  expect(notes).toMatch(/fixture A12: its FixtureID is no number and is kept in its note/);
  expect(notes).toMatch(/focus point "Centre" is left out/);
  // The symbol's own matrix counts: 4 m long, 2 m upstage, 6 m high, about 1 m across.
  expect(read.pieces[0]).toMatchObject({ from: { x: -1, y: 2 }, to: { x: 3, y: 2 }, z: 6 });
  expect(planMvr(newShow("x"), read, "add").rows[0]!.problem).toMatch(
    /3:7\(2\) is of a DMX break that Petrel Spot in mode \w+ lacks/,
  );
  const show = brought(newShow("x"), packed(scene(one("A12", said), `<Class uuid="c1" name="Front"/>`)), "add");
  expect(Object.values(show.fixtures)[0]!.note).toBe("FixtureID A12; unit 5; custom id 77; class Front");
});
