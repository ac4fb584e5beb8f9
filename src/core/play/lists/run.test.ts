/** Catches a list whose clock, waits or way round the end are wrong. */
import { newDesk, runLine, wait } from "../../desk/desk";
import { listNumbered } from "../../show/world";
import { runsOnTheSpot } from "./kinds/cues";

function desk(...lines: string[]) {
  const made = newDesk();
  for (const line of [
    "patch 2 dimmer as 1",
    "1 at 50",
    "record cue 1 fade 2",
    "clear",
    "2 at 50",
    "record cue 2 fade 0",
    "clear",
    "set list 1 end wrap",
    ...lines,
  ]) {
    const refusal = runLine(made, line);
    if (refusal) throw new Error(`${line}: ${refusal.what}`);
  }
  return made;
}
const onTheSpot = (...lines: string[]) => runsOnTheSpot(listNumbered(desk(...lines).world.show, 1)!);

test("a list runs on the spot where no cue of its round takes time", () => {
  expect(onTheSpot()).toBe(false);
  expect(onTheSpot("set cue 1 auto 0", "set cue 2 auto 0")).toBe(true);
  expect(onTheSpot("set cue 1 auto 0", "set cue 2 auto done 0")).toBe(false); // waits for the two seconds of cue 1
  expect(onTheSpot("set cue 1 auto done 0", "set cue 2 auto 0")).toBe(true);
  expect(onTheSpot("set cue 1 auto 0", "set cue 2 auto 0.02")).toBe(false);
  expect(onTheSpot("set cue 1 auto 0", "set cue 2 auto 0", "set list 1 end stop")).toBe(false);
});

test("what is said to run on the spot stops, what is not goes on", () => {
  const cueAfter = (lines: string[], seconds: number) => {
    const made = desk(...lines);
    runLine(made, "go");
    wait(made, seconds);
    const list = listNumbered(made.world.show, 1)!;
    return list.cues[made.player.runs.get(list.id)!.cue!]!.number;
  };
  expect(cueAfter(["set cue 1 auto 0", "set cue 2 auto 0"], 100)).toBe(2);
  expect([10.5, 11.5].map((t) => cueAfter(["set cue 1 auto 1", "set cue 2 auto 1"], t))).toEqual([1, 2]);
});
