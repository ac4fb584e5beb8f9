/** Catches hands that work blind and see something else than what they hold. */
import { newDesk, runLine } from "@/core/desk/desk";
import { compute } from "@/core/play/player";
import { targetsOf } from "@/core/show/model";
import { layoutOf } from "@/engine/fill";
import { publish, SOURCE_DEFAULT, wholeHalf } from "@/engine/frame";
import { viewOf } from "@/engine/view";
import { sourceText } from "@/ui/show/held/summary";
import { laidOf, lay, ownFrame } from "@/ui/stage/plan/laid";
import { liveStage, lookOf } from "@/ui/stage/plan/under";

const desk = newDesk();
for (const line of [
  "patch 3 petrel-spot as 1",
  "1 + 2 at 40 pan at 10",
  "record cue 1 fade 0",
  "clear",
  "1 at 70",
  "record cue 2 fade 0",
  "clear",
  "3 zoom at 30",
  'record palette 31 "Close"',
  "clear",
  "go",
  "blind on",
  "2 at 90",
  "3 palette 31",
  "3 Dimmer wave sine low 0 high 100 bpm 60",
])
  if (runLine(desk, line)) throw new Error(line);
compute(desk.player);

const { show, hands } = desk.world;
const layout = layoutOf(desk.player);
const live = viewOf(layout, ownFrame(layout).frame);
publish(live.frame, (half) => {
  half.raw.set(desk.player.stage.value);
  half.value.set(desk.player.stage.value);
  half.fn.set(desk.player.stage.fn);
  half.source.fill(SOURCE_DEFAULT);
});
const keyOf = (n: number, attribute: string) => {
  const fixture = Object.values(show.fixtures).find((f) => f.number === n)!;
  return live.index.get(targetsOf(show, fixture.id, attribute)[0]!.key)!;
};

/** What hands see after so many seconds: a value, and where it comes from in words. */
function seen(under: NonNullable<ReturnType<typeof lookOf>>, gone = 0) {
  const half = ownFrame(layout).frame.halves[0];
  under(half, gone);
  lay(half, laidOf(show, live.index, hands.held), gone);
  return (n: number, attribute: string) => {
    const p = keyOf(n, attribute);
    return [Math.round(half.raw[p]! * 10) / 10, sourceText(desk.world, half.source[p]!, half.cue[p]!)];
  };
}

test("over the live stage: what is held is seen, palettes and effects too, and the rest is as it is", () => {
  const at = seen(liveStage(layout, () => live));
  expect(wholeHalf(live.frame).raw[keyOf(2, "Dimmer")]).toBe(40);
  expect(at(2, "Dimmer")).toEqual([90, "held"]);
  expect(at(3, "Zoom")).toEqual([30, "held"]);
  expect(at(1, "Dimmer")).toEqual([40, "default"]);
  // A beat a second: after half of one it is at the other end, after a whole one where it was.
  const wave = (gone: number) =>
    seen(
      liveStage(layout, () => live),
      gone,
    )(3, "Dimmer")[0] as number;
  expect(Math.abs(wave(0.5) - wave(0))).toBeCloseTo(100, 0);
  expect(wave(1)).toBeCloseTo(wave(0), 0);
});

test("over a cue's look: its own, what tracks into it, and what is held, each with where it comes from", () => {
  const list = Object.values(show.lists)[0]!;
  const second = Object.values(list.cues).find((c) => c.number === 2)!;
  const at = seen(lookOf(show, { list: list.id, cue: second.id }, layout)!);
  expect(at(1, "Dimmer")).toEqual([70, "cue 2"]);
  expect(at(1, "Pan")).toEqual([10, "cue 1"]);
  expect(at(2, "Dimmer")).toEqual([90, "held"]);
  expect(at(2, "Pan")).toEqual([10, "cue 1"]);
  expect(at(3, "Pan")).toEqual([0, "default"]);
  expect(lookOf(show, { list: list.id, cue: "c999" }, layout)).toBeUndefined();
});

test("what the hands see changes nothing of the stage", () => {
  const before = [...wholeHalf(live.frame).raw];
  seen(
    liveStage(layout, () => live),
    3,
  );
  expect([...wholeHalf(live.frame).raw]).toEqual(before);
});

test("a stage of another rig, published before its layout has come, is passed over", () => {
  const small = { ...layout, size: 2 };
  const half = ownFrame(small).frame.halves[0];
  expect(() => liveStage(small, () => live)(half, 0)).not.toThrow();
  expect([...half.raw]).toEqual([0, 0]);
});
