/** Catches a fixture of two DMX breaks whose second does not stand where its file, its line or its table says. */
import { strToU8, zipSync } from "fflate";
import { BASE, channel, description, fn, mode, zipped } from "@tests/setup/gdtf";
import { newDesk, performOn, runLine, wait, type Desk } from "../../desk/desk";
import { footprint } from "../../fixture/type";
import { isRefusal } from "../../show/refusal";
import { fixtureNumbered } from "../../show/world";
import { readGdtf, writeGdtf } from "../gdtf/file";
import { importFixtures } from "../importIntent";
import { planMvr } from "./plan";
import { readMvr } from "./read";
import { writeMvr } from "./write";

const second = (offset: string, attribute: string) =>
  channel(offset, "Base", attribute, fn(attribute)).replace('DMXBreak="1"', 'DMXBreak="2"');
/** A dimmer and a frost on its first input; a zoom and an iris of two bytes on its second. */
const LAMP = zipped(
  description(
    BASE +
      mode(
        channel("1", "Base", "Dimmer") + channel("2", "Base", "Frost1") + second("1", "Zoom") + second("2,3", "Iris"),
      ),
    "Twin",
  ),
);
const fixture = (id: number, addresses: readonly [number, string][]) =>
  `<Fixture uuid="11111111-2222-4333-8444-5555555555${String(id).padStart(2, "0")}" name="Twin ${id}"><Matrix>{1,0,0}{0,1,0}{0,0,1}{0,0,0}</Matrix><GDTFSpec>Twin.gdtf</GDTFSpec><GDTFMode>Basic</GDTFMode><FixtureID>${id}</FixtureID><Addresses>${addresses.map(([part, at]) => `<Address break="${part}">${at}</Address>`).join("")}</Addresses></Fixture>`;
const file = (...fixtures: string[]) =>
  zipSync({
    "Twin.gdtf": LAMP,
    "GeneralSceneDescription.xml": strToU8(
      `<GeneralSceneDescription verMajor="1" verMinor="6"><Scene><Layers><Layer uuid="l" name="Rig"><ChildList>${fixtures.join("")}</ChildList></Layer></Layers></Scene></GeneralSceneDescription>`,
    ),
  });

function bring(desk: Desk, bytes: Uint8Array): string[] {
  const read = readMvr(bytes, desk.world.show);
  if (isRefusal(read)) throw new Error(read.what);
  const plan = planMvr(desk.world.show, read, "update");
  const rows = plan.rows.map(({ updates, fixture: made }) => ({ updates, fixture: made }));
  const refused = performOn(desk, { intents: [importFixtures.of({ rows, types: plan.types })], events: [] });
  if (refused) throw new Error(refused.what);
  return [...read.notes, ...plan.rows.flatMap((r) => (r.problem ? [r.problem] : []))];
}
const does = (desk: Desk, ...lines: string[]) => {
  for (const line of lines) expect([line, runLine(desk, line)]).toEqual([line, undefined]);
};
const sends = (desk: Desk, universe: number, slot: number, count = 1) => {
  wait(desk, 0.1);
  const place = desk.player.rig.universes.indexOf(universe);
  return place < 0 ? [] : [...desk.player.frame.slice(place * 512 + slot - 1, place * 512 + slot - 1 + count)];
};
const addresses = (desk: Desk, number = 1) => fixtureNumbered(desk.world.show, number)!.addresses;

test("each break sends at its own address, in whatever universe, and nothing where the other would have followed", () => {
  const desk = newDesk();
  expect(bring(desk, file(fixture(1, [[0, "1.101"], [1, "3.7"]])))).toEqual([]); // prettier-ignore
  does(desk, "1 at full", "1 zoom at 0.4", "1 iris at 50");
  expect(sends(desk, 1, 101, 4)).toEqual([255, 0, 0, 0]);
  expect(sends(desk, 3, 7, 4)).toEqual([102, 128, 0, 0]);
});

test("without addresses of breaks they follow each other, and breaks count from whatever the file begins with", () => {
  const desk = newDesk();
  bring(desk, file(fixture(1, [[0, "1.101"]]), fixture(2, [[1, "2.1"], [2, "4.1"]]))); // prettier-ignore
  does(desk, "1 + 2 zoom at 0.4");
  expect([sends(desk, 1, 103), sends(desk, 4, 1)]).toEqual([[102], [102]]);
  expect(addresses(desk, 2)).toEqual([
    { universe: 2, slot: 1 },
    { universe: 4, slot: 1, part: 2 },
  ]);
});

test("what the second break takes is taken; a line puts it elsewhere and is told again by lines that do the same", () => {
  const desk = newDesk();
  bring(desk, file(fixture(1, [[0, "1.101"], [1, "3.7"]]))); // prettier-ignore
  expect(runLine(desk, "patch 1 dimmer as 9 at 3:8")?.what).toMatch(/3:8/);
  does(desk, "patch 1 dimmer as 9 at 1:103", "1 address 6:1", "1 also at 7:1 break 2", "1 zoom at 0.4");
  expect([sends(desk, 7, 1), sends(desk, 3, 7)]).toEqual([[102], []]);
  expect(runLine(desk, "9 also at 8:1 break 2")?.what).toMatch(/no second DMX break/);
});

test("a break that lies on another fixture comes in without an address, and says so", () => {
  const desk = newDesk();
  does(desk, "patch 1 dimmer as 9 at 3:8");
  expect(bring(desk, file(fixture(1, [[0, "1.101"], [1, "3.7"]]))).join()).toMatch(/3:7\(2\) is in use by fixture 9/); // prettier-ignore
  expect(addresses(desk)).toEqual([]);
});

test("both come back from our own MVR and GDTF files", () => {
  const desk = newDesk();
  bring(desk, file(fixture(1, [[0, "1.101"], [1, "3.7"]]))); // prettier-ignore
  const fresh = newDesk();
  bring(fresh, writeMvr(desk.world.show).bytes);
  expect(addresses(fresh)).toEqual(addresses(desk));
  does(fresh, "1 zoom at 0.4");
  expect(sends(fresh, 3, 7)).toEqual([102]);
  const type = Object.values(desk.world.show.types)[0]!;
  const { file: _, ...plain } = type;
  const again = readGdtf(writeGdtf(plain), { types: {} });
  if (isRefusal(again)) throw new Error(again.what);
  expect(again.type.modes[0]!.breaks).toEqual([2]);
  expect(footprint(again.type.modes[0]!)).toBe(footprint(type.modes[0]!));
});

test("another type keeps the addresses of breaks it has, and loses the others", () => {
  const desk = newDesk();
  bring(desk, file(fixture(1, [[0, "1.101"], [1, "3.7"]]))); // prettier-ignore
  does(desk, "swap type 1 dimmer");
  expect(addresses(desk)).toEqual([{ universe: 1, slot: 101 }]);
});
