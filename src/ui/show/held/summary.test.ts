/** Catches a programmer that shows another value, range or source than the stage has. */
import { newDesk, runLine, wait, type Desk } from "@/core/desk/desk";
import { copyRaw } from "@/core/play/stage/glide";
import { SOURCE_DEFAULT, SOURCE_PROGRAMMER, frameBytes, openFrame, wholeHalf } from "@/engine/frame";
import { layoutOfRig } from "@/engine/layout";
import { FROM_PROGRAMMER } from "@/core/play/stage/stage";
import { viewOf } from "@/engine/view";
import { summarise } from "./summary";

/** The summary of what a desk has selected, from a frame as the engine fills it. */
function summary(desk: Desk) {
  const { rig, stage, layers } = desk.player;
  const layout = layoutOfRig(rig, 1, 8);
  const frame = openFrame(layout, new ArrayBuffer(frameBytes(layout)));
  const half = wholeHalf(frame);
  half.value.set(stage.value);
  copyRaw(stage, half.raw);
  half.fn.set(stage.fn);
  stage.source.forEach((s, p) => {
    half.source[p] = s >= 0 ? layers.list[s]! : s === FROM_PROGRAMMER ? SOURCE_PROGRAMMER : SOURCE_DEFAULT;
    half.cue[p] = s >= 0 ? layers.cue[s]! : 0;
  });
  return summarise(desk.world, half, viewOf(layout, frame));
}
function deskOf(...lines: string[]): Desk {
  const desk = newDesk();
  for (const line of ["patch 3 kelp-wash as 1", "patch 2 petrel-spot as 11", "patch 1 tide-bar as 21", ...lines]) {
    const refusal = line.startsWith("wait") ? wait(desk, Number(line.slice(5))) : runLine(desk, line);
    if (refusal) throw new Error(`${line}: ${refusal.what}`);
  }
  return desk;
}
const row = (families: ReturnType<typeof summary>, attribute: string) =>
  families.flatMap((f) => f.rows).find((r) => r.attribute === attribute)!;

test("nothing selected, nothing told; only attributes that are there", () => {
  expect(summary(deskOf("none"))).toEqual([]);
  const families = summary(deskOf("1"));
  expect(families.map((f) => f.family)).toEqual(["Intensity", "Position", "Colour", "Beam", "Focus"]);
  expect(families.flatMap((f) => f.rows.map((r) => r.attribute))).not.toContain("ColorSub_C");
  expect(row(families, "Dimmer")).toMatchObject({
    text: "0.0 %",
    form: "default",
    source: "default",
    min: 0,
    max: 100,
  });
  expect(row(families, "Shutter1").text).toBe("open");
});

test("what is held says so, for how many, with its own time", () => {
  const families = summary(deskOf("1 thru 2 at 20 to 60 delay 0 to 2", "1 thru 3"));
  expect(row(families, "Dimmer")).toMatchObject({
    low: 0,
    high: 60,
    text: "0 … 60 %",
    form: "held",
    source: "held for 2 of 3",
    time: "several",
  });
  expect(families.find((f) => f.family === "Intensity")!.source).toBe("held");
  expect(row(summary(deskOf("1 pan at 20 fade 3")), "Pan")).toMatchObject({
    text: "20.0°",
    form: "held",
    source: "held",
    time: "fade 3 s",
  });
});

test("what lists give says which cue, and of which list where it is not the armed one", () => {
  const desk = deskOf(
    "1 at 50",
    "record cue 4 fade 0",
    "clear",
    "2 at 30",
    "record list 2 cue 7 fade 0",
    "clear",
    "go",
    "go list 2",
    "wait 1",
  );
  runLine(desk, "1");
  expect(row(summary(desk), "Dimmer")).toMatchObject({ text: "50.0 %", form: "list", source: "cue 4" });
  runLine(desk, "2");
  expect(row(summary(desk), "Dimmer").source).toMatch(/^cue 7 of /);
  runLine(desk, "1 thru 2");
  expect(row(summary(desk), "Dimmer")).toMatchObject({ source: "several sources", text: "30 … 50 %" });
});

test("of attributes that share a channel one is in use; masters do not change what is told", () => {
  const desk = deskOf("11 strobe at 5 gobo at 3", "11 at full", "grand at 50");
  const families = summary(desk);
  expect(row(families, "Shutter1Strobe")).toMatchObject({ text: "5 Hz", form: "held" });
  expect(row(families, "Shutter1")).toMatchObject({ form: "default", source: "not in use" });
  expect(row(families, "Gobo1").text).toBe("net");
  expect(row(families, "Dimmer").text).toBe("100.0 %");
});

test("several types at once: what all share comes first, and what is of some only says of how many", () => {
  const colour = (...lines: string[]) => summary(deskOf(...lines)).find((f) => f.family === "Colour")!.rows;
  const focus = summary(deskOf("1 + 11 thru 12")).find((f) => f.family === "Focus")!.rows;
  const shared = focus.findIndex((r) => r.only !== undefined);
  expect(focus.slice(0, shared).map((r) => r.attribute)).toContain("Zoom");
  expect(focus.slice(shared).every((r) => r.only === "2 of 3")).toBe(true);
  expect(colour("1 + 11").every((r) => r.only === "1 of 2")).toBe(true);
  expect(colour("1 thru 3").every((r) => r.only === undefined)).toBe(true);
});
