/** Catches a link inside a palette that is not told, or gives something else once it is the palette's own. */
import { newDesk, performOn, runLine } from "../desk/desk";
import { palettesByNumber } from "../show/world";
import { linksInside, ownOfLinks } from "./linksInside";
import { writePalette } from "../palette/writeIntent";

test("what follows another is told, and made its own it gives the same and follows no more", () => {
  const desk = newDesk();
  const does = (...lines: string[]) => {
    for (const line of lines) expect([line, runLine(desk, line)]).toEqual([line, undefined]);
  };
  does("patch 2 kelp-wash as 1", "1 + 2", "red at 80", 'record palette 1 "Red"', "palette 1");
  does("at 60", 'record palette 2 "Look" type', "clear");
  const [red, look] = palettesByNumber(desk.world.show);
  const links = linksInside(desk.world.show, look!.id);
  expect(links.map((l) => l.to)).toEqual([red!.id]);
  const values = ownOfLinks(desk.world.show, look!.id, links[0]!.keys);
  expect(
    performOn(desk, { intents: [writePalette.of({ palette: look!.id, values, type: true })], events: [] }),
  ).toBeUndefined();
  expect(linksInside(desk.world.show, look!.id)).toEqual([]);
  does("set palette 1 1 ColorAdd_R at 10 type", "1", "palette 2");
  const reds = Object.values(desk.world.hands.held).filter((e) => e.attribute === "ColorAdd_R");
  expect(reds.length).toBeGreaterThan(0);
});

test("what follows another is dropped: nothing is said there any more, the rest stays", () => {
  const desk = newDesk();
  const does = (...lines: string[]) => {
    for (const line of lines) expect([line, runLine(desk, line)]).toEqual([line, undefined]);
  };
  does("patch 2 kelp-wash as 1", "1 + 2", "red at 80", 'record palette 1 "Red"', "palette 1");
  does("at 60", 'record palette 2 "Look" type', "clear", "set palette 2 drop palette 1");
  const [, look] = palettesByNumber(desk.world.show);
  expect(linksInside(desk.world.show, look!.id)).toEqual([]);
  does("1", "palette 2");
  expect(new Set(Object.values(desk.world.hands.held).map((e) => e.attribute))).toEqual(new Set(["Dimmer"]));
  expect(runLine(desk, "set palette 2 drop palette 1")?.what).toMatch(/follows/);
});
