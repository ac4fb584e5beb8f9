/** Catches a version that opens a show of the one before and plays it otherwise. */
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { canonical } from "@/core/exchange/canonical";
import { readShowFile, writeShowFile } from "@/core/exchange/showFile";
import { isRefusal } from "@/core/show/refusal";
import { SHOW_VERSION } from "@/core/show/schema";
import { newDesk, runLine, wait } from "@/core/desk/desk";
import { newHands } from "@/core/show/world";

const file = (name: string) => readFileSync(join(__dirname, name));

test.each([2, 3])("a show saved by version %d opens and plays to the same bytes", (version) => {
  const show = readShowFile(new Uint8Array(file(`version-${version}.comet.zip`)));
  if (isRefusal(show)) throw new Error(show.what);
  expect(show.version).toBe(SHOW_VERSION);
  const { story, frames } = JSON.parse(file(`version-${version}.json`).toString()) as {
    story: (string | number)[];
    frames: string[];
  };
  const desk = newDesk({ show, hands: newHands(show) });
  story.forEach((step, i) => {
    if (typeof step === "number") wait(desk, step);
    else expect(runLine(desk, step)).toBeUndefined();
    expect([i, Buffer.from(desk.player.frame).toString("base64")]).toEqual([i, frames[i]]);
  });
  const again = readShowFile(writeShowFile(show));
  expect(isRefusal(again) ? again : canonical(again)).toBe(canonical(show));
});
