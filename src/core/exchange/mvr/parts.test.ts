/** Catches groups, layers and focus points of an MVR file that come in wrongly, twice, or do not come back from our own. */
import { strToU8, zipSync } from "fflate";
import { newDesk, performOn, runLine, type Desk } from "../../desk/desk";
import { isRefusal } from "../../show/refusal";
import { resolveEntry } from "../../program/resolve";
import { targetsOf } from "../../show/model";
import { fixtureNumbered, groupsByNumber, palettesByNumber } from "../../show/world";
import { importFixtures } from "../importIntent";
import { groupsNew, pointsNew } from "./parts";
import { bringParts, type POINTS_AS } from "./partsIntent";
import { planMvr } from "./plan";
import { readMvr } from "./read";
import { writeMvr } from "./write";

const spot = (id: number, at: string, more = "") =>
  `<Fixture uuid="11111111-2222-4333-8444-5555555555${String(id).padStart(2, "0")}" name="Spot ${id}"><Matrix>{1,0,0}{0,1,0}{0,0,1}{${at}}</Matrix><GDTFSpec>Halyard@Petrel Spot</GDTFSpec><GDTFMode>Compact</GDTFMode>${more}<FixtureID>${id}</FixtureID></Fixture>`;
const FILE = zipSync({
  "GeneralSceneDescription.xml": strToU8(`<GeneralSceneDescription verMajor="1" verMinor="6"><Scene><Layers>
    <Layer uuid="l1" name="Rig"><Matrix>{1,0,0}{0,1,0}{0,0,1}{0,1000,0}</Matrix><ChildList>
      ${spot(1, "0,0,6000", "<Focus>AAAA</Focus>")}
      <GroupObject uuid="g1" name="Bridge"><ChildList>
        ${spot(3, "2000,0,6000")}
        <GroupObject uuid="g2" name="Left"><ChildList>${spot(2, "-2000,0,6000", "<Focus>aaaa</Focus>")}</ChildList></GroupObject>
      </ChildList></GroupObject>
      <FocusPoint uuid="aaaa" name="Centre"><Matrix>{1,0,0}{0,1,0}{0,0,1}{0,3000,0}</Matrix></FocusPoint>
      <FocusPoint uuid="bbbb" name="Balcony"><Matrix>{1,0,0}{0,1,0}{0,0,1}{0,-9000,2000}</Matrix></FocusPoint>
    </ChildList></Layer>
    <Layer uuid="l2" name="Empty"><ChildList/></Layer>
  </Layers></Scene></GeneralSceneDescription>`),
});

function bring(desk: Desk, bytes: Uint8Array, as: (typeof POINTS_AS)[number]) {
  const { show } = desk.world;
  const read = readMvr(bytes, show);
  if (isRefusal(read)) throw new Error(read.what);
  const plan = planMvr(show, read, "update");
  const made = {
    groups: [...groupsNew(show, read, plan, "layer"), ...groupsNew(show, read, plan, "group")],
    points: pointsNew(show, read, plan),
  };
  const rows = plan.rows.map(({ updates, fixture }) => ({ updates, fixture }));
  const intents = [importFixtures.of({ rows, types: plan.types })];
  if (made.groups.length + made.points.length > 0) intents.push(bringParts.of({ ...made, as }));
  const refused = performOn(desk, { intents, events: [] });
  if (refused) throw new Error(refused.what);
  return made;
}
const groupsOf = ({ world: { show } }: Desk) =>
  groupsByNumber(show).map((g) => [g.name, g.members.map((m) => show.fixtures[m]!.number)]);
const at = (desk: Desk, number: number, attribute: string, palette: string) => {
  const { show } = desk.world;
  const { key, spec } = targetsOf(show, fixtureNumbered(show, number)!.id, attribute)[0]!;
  const { id } = palettesByNumber(show).find((p) => p.name === palette)!;
  return resolveEntry(show, key, spec, { attribute, value: { palette: id } })?.value;
};

test("layers and groups, nested ones too, become groups; those without fixtures do not", () => {
  const desk = newDesk();
  bring(desk, FILE, "aim");
  expect(groupsOf(desk)).toEqual([
    ["Rig", [1, 3, 2]],
    ["Bridge", [3, 2]],
    ["Left", [2]],
  ]);
});

test("a focus point is where its layer puts it; the palette is of the fixtures turned to it, else of all that move", () => {
  const desk = newDesk();
  const { points } = bring(desk, FILE, "aim");
  expect(points).toEqual([
    { name: "Centre", at: { x: 0, y: 4, z: 0 }, numbers: [1, 2] },
    { name: "Balcony", at: { x: 0, y: -8, z: 2 }, numbers: [] },
  ]);
  // Fixture 1 hangs 6 m above and 3 m before the point: atan(3 / 6).
  expect(Math.abs(at(desk, 1, "Tilt", "Centre")!)).toBeCloseTo(26.565, 2);
  expect(at(desk, 3, "Tilt", "Centre")).toBeUndefined();
  expect(at(desk, 3, "Tilt", "Balcony")).toBeDefined();
  // An aim follows the fixture where it hangs.
  expect(runLine(desk, "1 place 0 1 3")).toBeUndefined();
  expect(Math.abs(at(desk, 1, "Tilt", "Centre")!)).toBeCloseTo(45, 2);
});

test("as pan and tilt the palette holds what each has there now", () => {
  const desk = newDesk();
  bring(desk, FILE, "degrees");
  expect(Math.abs(at(desk, 1, "Tilt", "Centre")!)).toBeCloseTo(26.57, 5);
  expect(runLine(desk, "1 place 0 1 3")).toBeUndefined();
  expect(Math.abs(at(desk, 1, "Tilt", "Centre")!)).toBeCloseTo(26.57, 5);
});

test("brought in twice, nothing comes a second time", () => {
  const desk = newDesk();
  bring(desk, FILE, "aim");
  expect(bring(desk, FILE, "aim")).toEqual({ groups: [], points: [] });
});

test("groups, points, unit numbers, custom ids and classes come back from our own file; what it cannot say is told", () => {
  const desk = newDesk();
  bring(desk, FILE, "aim");
  for (const line of ['1 note "unit 5; custom id 77; class Front"', "delete group 1", "2 + 3", "record group 9"])
    expect(runLine(desk, line)).toBeUndefined();
  const { bytes, left } = writeMvr(desk.world.show);
  expect(left.join()).toMatch(/3 places in a second group/);
  const fresh = newDesk();
  bring(fresh, bytes, "aim");
  expect(groupsOf(fresh).map(([name]) => name)).toEqual(expect.arrayContaining(["Bridge"]));
  expect(palettesByNumber(fresh.world.show).map((p) => p.name)).toEqual(["Centre", "Balcony"]);
  expect(fixtureNumbered(fresh.world.show, 1)!.note).toBe("unit 5; custom id 77; class Front");
});
