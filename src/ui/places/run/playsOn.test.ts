/** Catches a release of all that leaves something on without a word, or takes a limiter down. */
import { newDesk, runLine } from "@/core/desk/desk";
import { playingNow } from "@/engine/fill";
import { playsOn, releaseWords } from "./playsOn";

test("first what goes is released and what stands by its level is named; then levels come down, never a limiter's", () => {
  const desk = newDesk();
  const press = () => {
    const on = playsOn(desk.world.show, playingNow(desk.player).runs);
    return { on, words: releaseWords(on) };
  };
  for (const line of [
    "patch 4 dimmer as 1",
    "1 at full",
    "record list 1 cue 1",
    "record list 6 cue 1",
    "record list 7 cue 1",
    "set list 6 kind submaster",
    'set list 6 name "Haze"',
    "set list 7 kind limiter",
    "clear",
    "go list 1",
    "level list 6 at 80",
    "level list 7 at 50",
  ])
    expect([line, runLine(desk, line)]).toEqual([line, undefined]);
  expect(press().words?.does).toMatch(/^Releases 1 .*stays: 6 Haze at 80 %/);
  expect(runLine(desk, "release all")).toBeUndefined();
  expect(press().words).toEqual({ label: "Level to 0", does: "Brings down 6 Haze at 80 %." });
  for (const { list } of press().on.stands) void runLine(desk, `level list ${list.number} at 0`);
  expect(press().words).toBeNull();
});
