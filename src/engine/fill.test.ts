/** Catches a lane that tells that its list has the stage where another shows. */
import { newDesk, runLine, wait } from "@/core/desk/desk";
import { listNumbered } from "@/core/show/world";
import { playingNow } from "./fill";

const lists = () => {
  const desk = newDesk();
  const does = (...lines: string[]) => {
    for (const line of lines) expect([line, runLine(desk, line)]).toEqual([line, undefined]);
    wait(desk, 4);
  };
  does(
    "patch 4 kelp-wash as 1",
    "1 thru 4 at 50 red at 20 pan at 10",
    "record list 2 cue 1 fade 0",
    "1 thru 4 red at 80",
    "record list 3 cue 1 fade 0",
    "clear",
  );
  const has = (number: number) => playingNow(desk.player).runs[listNumbered(desk.world.show, number)!.id]!.has;
  return { does, has };
};

test("the later list has it, and what lies under it comes back", () => {
  const { does, has } = lists();
  does("go list 2");
  expect([has(2), has(3)]).toEqual(["all", "none"]);
  does("go list 3");
  expect(has(3)).toBe("all");
  does("release list 3");
  expect([has(2), has(3)]).toEqual(["all", "none"]);
});

test("a higher priority has it, whoever came last", () => {
  const { does, has } = lists();
  does("set list 2 priority 5", "go list 2", "go list 3");
  expect([has(2), has(3)]).toEqual(["all", "none"]);
});

test("what is held over a list is not its own", () => {
  const { does, has } = lists();
  does("go list 2", "1 at 20");
  expect(has(2)).toBe("some");
  does("clear");
  expect(has(2)).toBe("all");
});
