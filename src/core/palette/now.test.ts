/** Catches a picker that points at another colour than fixtures show. */
import { newDesk, runLine } from "../desk/desk";
import { compute } from "../play/player";
import { apart, xyOfKelvin } from "../colour/chromaticity";
import { coloursNow, type StageAt } from "./now";

function deskWith(...lines: string[]) {
  const desk = newDesk();
  for (const line of lines) if (runLine(desk, line)) throw new Error(line);
  compute(desk.player);
  const { rig, stage } = desk.player;
  const at: StageAt = (key) => {
    const p = rig.index.get(key);
    if (p === undefined) return undefined;
    return { value: stage.value[p]!, attribute: rig.specs[p]!.functions[stage.fn[p]!]!.attribute };
  };
  const ids = Object.values(desk.world.show.fixtures)
    .sort((a, b) => a.number - b.number)
    .map((f) => f.id);
  return (most?: number) => coloursNow(desk.world.show, at, ids, most);
}

test("each colour once, in order, of whatever types; what has none is passed over", () => {
  const now = deskWith(
    "patch 4 kelp-wash as 1",
    "patch 2 petrel-spot as 11",
    "patch 2 dimmer as 21",
    "1 + 2 + 11 colour at xy 0.4 0.38",
    "3 colour at 3200K",
    "4 + 12 colour at xy 0.25 0.3",
  );
  const [first, second, third, ...more] = now();
  expect(more).toEqual([]);
  expect(apart(first!, [0.4, 0.38])).toBeLessThan(0.001);
  expect(apart(second!, xyOfKelvin(3200))).toBeLessThan(0.001);
  expect(apart(third!, [0.25, 0.3])).toBeLessThan(0.001);
  expect(now(2)).toEqual([first, second]);
});

test("a rig without colour shows none", () => {
  expect(deskWith("patch 2 dimmer as 1", "all at full")()).toEqual([]);
});
