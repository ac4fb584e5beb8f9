/** Catches a type made by hand that cannot be used, or that loses what a channel depends on. */
import fc from "fast-check";
import { LIBRARY } from "../fixture/library/library";
import { newDesk, runLine } from "../desk/desk";
import { INTENTS } from "../intents";
import { applyIntents } from "../show/change/intent";
import { isRefusal } from "../show/refusal";
import { draftProblem, evenSlots, idFor, inBytes, moved, newChannel, newFunction, newType, without } from "./typeDraft";
import { putType, typeChanges } from "./typeIntent";
import type { Channel } from "../fixture/type";

test("a new type, and one with channels in any order and bytes, can be used", () => {
  expect(draftProblem(newType())).toBeUndefined();
  fc.assert(
    fc.property(
      fc.constantFrom(...LIBRARY),
      fc.nat(),
      fc.nat(),
      fc.constantFrom(1 as const, 2 as const, 3 as const, 4 as const),
      (type, a, b, bytes) => {
        const [mode, ...rest] = type.modes as [(typeof type.modes)[number], ...typeof type.modes];
        const n = mode.channels.length;
        const order = moved(mode.channels, a % n, b % n).map((c, k) => (k === a % n ? inBytes(c, bytes) : c));
        expect(draftProblem({ ...type, modes: [{ ...mode, channels: order }, ...rest] })).toBeUndefined();
        if (n > 1)
          expect(
            draftProblem({ ...type, modes: [{ ...mode, channels: without(mode.channels, a % n) }, ...rest] }),
          ).toBeUndefined();
      },
    ),
  );
});

test("what a channel depends on follows it when channels are moved or taken out", () => {
  const [control, gobo]: [Channel, Channel] = [newChannel("Control1"), newChannel("Gobo1Pos")];
  gobo.functions.push({ ...newFunction("Gobo1PosRotate", 0, 255), master: { channel: 0, from: 128, to: 255 } });
  const range = { name: "slow", dmxFrom: 0, dmxTo: 255, from: 0, to: 10 };
  gobo.functions.push({
    ...newFunction("Gobo1PosShake", 0, 255),
    ranges: [range, { ...range, master: { channel: 0, from: 1, to: 9 } }],
  });
  const channels = [control, gobo, newChannel("Dimmer")];
  const hangs = (made: readonly Channel[], k: number) => made[k]!.functions[2]!.ranges![1]!.master?.channel;
  expect([hangs(moved(channels, 0, 2), 0), hangs(without(channels, 2), 1)]).toEqual([2, 0]);
  expect(hangs(without(channels, 0), 0)).toBeUndefined();
  expect(moved(channels, 0, 2)[0]!.functions[1]!.master!.channel).toBe(2);
  expect(without(channels, 0)[0]!.functions[1]!.master).toBeUndefined();
  expect(without(channels, 2)[1]!.functions[1]!.master!.channel).toBe(0);
});

test("slots of equal width fill their function to the end", () => {
  const wheel = evenSlots(newFunction("Color1", 0, 127), [{ name: "open" }, { name: "red" }, { name: "blue" }]);
  expect(wheel.steps!.map((s) => [s.value, s.dmxFrom, s.dmxTo])).toEqual([
    [1, 0, 41],
    [2, 42, 83],
    [3, 84, 127],
  ]);
});

test("a changed type says what it changes, and what no longer fits loses its address alone", () => {
  const desk = newDesk();
  for (const line of ["patch 2 kelp-wash as 1 at 1:1", "1 thru 2 at 50", "1 red at 80", "record cue 1", "clear"])
    runLine(desk, line);
  const type = desk.world.show.types["kelp-wash"]!;
  const [mode] = type.modes;
  const bigger = {
    ...type,
    modes: [
      {
        ...mode!,
        channels: [...mode!.channels.filter((c) => c.functions[0]!.attribute !== "Zoom"), newChannel("Frost1", 0, 2)],
      },
    ],
  };
  expect(typeChanges(desk.world.show, bigger).join("; ")).toBe(
    "2 fixtures in mode standard would take 13 slots instead of 12; 2 fixtures in mode standard would lose Zoom; what is stored of it is kept inactive; 2 fixtures in mode standard would gain Frost1",
  );
  const done = applyIntents(INTENTS, desk.world, [putType.of({ type: bigger })]);
  if (isRefusal(done)) throw new Error(done.what);
  const { show } = done.world;
  expect(Object.values(show.fixtures).map((f) => f.addresses.length)).toEqual([1, 0]);
  expect(show.lists).toEqual(desk.world.show.lists);
  expect(idFor(show, { ...type, maker: "Saltmarsh", model: "Kelp Wash" })).toBe("saltmarsh-kelp-wash");
});

test("highlight goes by what the type says, and leaves where it points", () => {
  const desk = newDesk();
  for (const line of ["patch 1 petrel-spot as 1 at 1:1", "1 pan at 50"]) runLine(desk, line);
  const type = structuredClone(desk.world.show.types["petrel-spot"]!);
  for (const c of type.modes[0]!.channels) {
    const name = c.functions[0]!.attribute;
    if (name === "Zoom") c.highlight = 10;
    if (name === "Pan") c.highlight = 0;
  }
  const done = applyIntents(INTENTS, desk.world, [putType.of({ type })]);
  if (isRefusal(done)) throw new Error(done.what);
  const after = newDesk(done.world);
  for (const line of ["1", "highlight on"]) expect(runLine(after, line)).toBeUndefined();
  const at = (name: string) =>
    after.player.stage.value[after.player.rig.keys.findIndex((k) => k.endsWith(`.0.${name}`))];
  expect([at("Zoom"), at("Pan"), at("Dimmer")]).toEqual([10, 50, 100]);
});
