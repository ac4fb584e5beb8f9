/** Catches a version that opens a show of the one before and plays it otherwise. */
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { canonical } from "@/core/exchange/canonical";
import { readShowFile, writeShowFile } from "@/core/exchange/showFile";
import { isRefusal } from "@/core/show/refusal";
import { SHOW_VERSION } from "@/core/show/schema";
import { newDesk, runLine, wait } from "@/core/desk/desk";
import { placeInCycle, voiceOf } from "@/core/effect/voices";
import { EffectSchema } from "@/core/show/effectSchema";
import { migrate } from "@/core/show/checking/migrate";
import type { Show } from "@/core/show/schema";
import { newHands } from "@/core/show/world";

const file = (name: string) => readFileSync(join(__dirname, name));

test.each([2, 3, 4, 5, 6, 7])("a show saved by version %d opens and plays to the same bytes", (version) => {
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

test("a wave that an entry of version 4 had runs on as a voice of its own", () => {
  const made = migrate({
    format: "bold-comet-show",
    version: 4,
    lists: {
      l1: {
        cues: {
          c2: {
            entries: {
              "f3.0.Zoom": {
                attribute: "Zoom",
                effect: {
                  wave: "sine",
                  low: 10,
                  high: 40,
                  bpm: 20,
                  across: 360,
                  start: 0,
                  width: 100,
                  direction: "forward",
                  place: 0.25,
                },
              },
            },
          },
        },
      },
    },
  });
  const { lists } = (made as { document: { lists: Show["lists"] } }).document;
  const { effect } = lists.l1!.cues.c2!.entries["f3.0.Zoom"]!;
  expect(EffectSchema.safeParse(effect).success).toBe(true);
  expect(voiceOf({ effects: {} }, effect)).toMatchObject({ speed: 1 / 3, voice: { range: { low: 10, high: 40 } } });
  const sounded = voiceOf({ effects: {} }, effect)!;
  expect(placeInCycle(sounded.voice, effect as { at: number; of: number })).toBeCloseTo(0.25);
});
