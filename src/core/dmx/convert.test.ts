import fc from "fast-check";
import { LIBRARY } from "../fixture/library/library";
import { parametersOf } from "../fixture/parameters";
import { footprint } from "../fixture/type";
import { toDmx } from "./convert";

const functions = LIBRARY.flatMap((t) => t.modes.flatMap((m) => m.channels.flatMap((c) => c.functions)));

test("every value of every function lies in its DMX range, and rises or falls with it", () => {
  fc.assert(
    fc.property(fc.constantFrom(...functions), fc.double({ min: -1, max: 2, noNaN: true }), fc.double({ min: 0, max: 1, noNaN: true }), (fn, a, more) => {
      const at = (share: number) => toDmx(fn, fn.from + (fn.to - fn.from) * share);
      expect(at(a)).toBeGreaterThanOrEqual(fn.dmxFrom);
      expect(at(a)).toBeLessThanOrEqual(fn.dmxTo);
      expect(at(a + more)).toBeGreaterThanOrEqual(at(a));
    }),
  );
});

test("slots send their middle, rounded down; half way lies between", () => {
  const wheel = functions.find((f) => f.attribute === "Color1" && f.steps?.length === 8)!;
  expect([1, 2, 3, 2.5, 8].map((slot) => toDmx(wheel, slot))).toEqual([7, 23, 39, 31, 119]);
});

test("a trigger at rest sends 0", () => {
  expect(toDmx(functions.find((f) => f.attribute === "TapSync")!, 0)).toBe(0);
});

test.each([["dimmer", "standard", 1], ["petrel-spot", "standard", 23], ["petrel-spot", "compact", 16], ["kelp-wash", "standard", 12], ["lantern-par", "rgbw", 4], ["tide-bar", "cells", 36], ["tide-bar", "simple", 3], ["twin-blinder", "standard", 2], ["squall-strobe", "standard", 3], ["gull-scroller", "standard", 2], ["foghorn-beams", "standard", 8], ["mist-hazer", "standard", 2]])("%s %s has %i channels", (id, mode, channels) => {
  expect(footprint(LIBRARY.find((t) => t.id === id)!.modes.find((m) => m.name === mode)!)).toBe(channels);
});

test("defaults are those of the meaning", () => {
  const spot = parametersOf(LIBRARY.find((t) => t.id === "petrel-spot")!.modes[0]!, false);
  const value = (head: string) => spot.find((s) => s.head === head)!.default;
  expect(["Pan", "Dimmer", "Shutter1", "ColorSub_C", "Color1", "Gobo1", "Iris", "Zoom", "Focus1", "Prism1"].map(value)).toEqual([0, 0, 1, 0, 1, 1, 100, 25, 50, 0]);
  const bar = parametersOf(LIBRARY.find((t) => t.id === "tide-bar")!.modes[0]!, true);
  expect(bar.filter((s) => s.head === "Dimmer").map((s) => [s.cell, s.default])).toEqual([[0, 0], ...Array.from({ length: 12 }, (_, i) => [i + 1, 100])]);
  expect(bar.find((s) => s.head === "ColorAdd_R")!.default).toBe(100);
  expect(parametersOf(LIBRARY.find((t) => t.id === "lantern-par")!.modes[0]!, false).map((s) => s.default)).toEqual([0, 0, 0, 0]);
});
