/** Catches fades on one parameter that together give other than their layers give. */
import { newDesk, runLine } from "../../desk/desk";
import { stageTime } from "../../units/units";
import { play } from "../lists/act";
import { setWorld } from "../edit/edit";
import { copyRaw } from "./glide";
import { advance } from "../lists/due";
import { compute, createPlayer, isMoving } from "../player";
import type { Player } from "../state";
import { restorePlay, savePlay } from "../keep/saved";
import { stacksMove } from "./stacks";
import { touchAll } from "./stage";

/** Four lists that fade over each other on the same dimmers and colours, a level among them. */
function overlapping(): Player {
  const desk = newDesk();
  const lines = ["patch 6 kelp-wash as 1 at 1:1", "patch 2 lantern-par as 11 at 2:1"];
  for (let list = 1; list <= 4; list++)
    lines.push(
      `1 thru 6 at ${list * 20} pan at ${list * 15 - 40} colour at #${list}0${list}0ff`,
      "11 + 12 at 70",
      `record list ${list} cue 1 fade ${4 + list} delay ${list / 2}`,
      "clear",
    );
  for (const line of lines) expect(runLine(desk, line)).toBeUndefined();
  const player = createPlayer(desk.world);
  Object.keys(desk.world.show.lists).forEach((list, i) => play(player, { kind: "go", list }, stageTime(i * 0.4)));
  play(player, { kind: "level", list: Object.keys(desk.world.show.lists)[2]!, value: 40 }, stageTime(2));
  return player;
}

test("several fades on a parameter run in a stack and give what the layers give, to the bit", () => {
  const [stacked, plain] = [overlapping(), overlapping()];
  let seen = 0;
  for (let t = 2; t < 12; t += 0.137) {
    for (const player of [stacked, plain]) advance(player, stageTime(t));
    // Touching everything takes it out of its stacks: it is worked out layer by layer.
    touchAll(plain.stage);
    compute(stacked);
    compute(plain);
    if (stacksMove(stacked.stage.stacks)) seen += 1;
    expect([...stacked.stage.value]).toEqual([...plain.stage.value]);
    const raw = [stacked, plain].map(({ stage }) => (copyRaw(stage, stage.raw), [...stage.raw]));
    expect(raw[0]).toEqual(raw[1]);
    expect([...stacked.stage.source]).toEqual([...plain.stage.source]);
    expect([...stacked.frame]).toEqual([...plain.frame]);
  }
  expect(seen).toBeGreaterThan(30);
  expect(isMoving(stacked)).toBe(false);
});

test("an edit after the last save is on stage when the show is opened again", () => {
  const desk = newDesk();
  for (const line of [
    "patch 2 dimmer as 1 at 1:1",
    "1 + 2 at 50",
    "record list 1 cue 1 fade 0",
    "clear",
    "go list 1",
    "wait 1",
  ])
    runLine(desk, line);
  const saved = savePlay(desk.player);
  for (const line of ["1 at 80", "update list 1 cue 1", "clear"]) expect(runLine(desk, line)).toBeUndefined();
  const again = createPlayer(desk.world, stageTime(saved.now));
  restorePlay(again, saved);
  compute(again);
  expect([...again.frame.subarray(0, 2)]).toEqual([204, 128]);
  setWorld(again, desk.world);
  compute(again);
  expect([...again.frame.subarray(0, 2)]).toEqual([204, 128]);
});
