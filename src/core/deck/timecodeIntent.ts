/** How timecode is counted, and the times of cues on it, as intents. */
import { z } from "../units/zod";
import { listIn } from "../cue/intents/cueDraft";
import {
  MOST_FRAMES,
  FRAME_RATES,
  framesIn,
  framesOfLabel,
  labelOfFrames,
  nominalRate,
  textOfFrames,
} from "../timecode/frames";
import { defineIntent } from "../show/change/intent";
import { IdSchema } from "../show/ids";
import { exact, listText } from "../show/words/lineText";
import { fail } from "../show/refusal";
import { plain } from "../units/units";

/** Another rate: the times of cues keep what they read. */
export const setTimecode = defineIntent({
  kind: "setTimecode",
  fields: { rate: z.enum(FRAME_RATES).optional(), freewheel: z.number().min(0).max(3600).optional() },
  apply(world, { rate, freewheel }) {
    const now = world.show.timecode;
    if (freewheel !== undefined) now.freewheel = freewheel;
    if (rate === undefined || rate === now.rate) return;
    for (const list of Object.values(world.show.lists))
      for (const cue of Object.values(list.cues)) {
        if (cue.at === undefined) continue;
        const label = labelOfFrames(cue.at, now.rate);
        const frames = (label.frames / nominalRate(now.rate)) * nominalRate(rate);
        cue.at = framesOfLabel({ ...label, frames: Math.round(frames * 1e6) / 1e6 }, rate);
      }
    now.rate = rate;
  },
  says: (_, { rate, freewheel }) =>
    [
      rate &&
        `counts timecode at ${rate === "29.97df" ? "29.97 frames a second, drop-frame" : `${rate} frames a second`}`,
      freewheel !== undefined && `lets it go on by itself for ${plain(freewheel)} s when its source is lost`,
    ]
      .filter(Boolean)
      .join("; "),
  lines: (_, { rate, freewheel }) => [
    ...(rate ? [`set timecode rate ${rate === "29.97df" ? "29.97" : rate}`] : []),
    ...(freewheel === undefined ? [] : [`set timecode freewheel ${exact(freewheel)}`]),
  ],
});

/** Moves the times of all cues of a list that have one. */
export const shiftTimes = defineIntent({
  kind: "shiftTimes",
  fields: { list: IdSchema, by: z.number().min(-86_400).max(86_400), cues: z.array(IdSchema).max(20_000).optional() },
  apply(world, { list: id, by, cues }) {
    const list = listIn(world, id);
    const { rate } = world.show.timecode;
    const timed = Object.values(list.cues).filter((c) => c.at !== undefined && (!cues || cues.includes(c.id)));
    if (timed.length === 0)
      fail(`no cue of list ${list.number} has a time`, `Such as: set list ${list.number} cue 1 at 0:00:10`);
    const frames = framesIn(by, rate);
    for (const cue of timed) {
      const at = Math.round((cue.at! + frames) * 1e6) / 1e6;
      if (at < 0 || at > MOST_FRAMES)
        fail(`cue ${cue.number} at ${textOfFrames(cue.at!, rate)} would come before 0 or after a day`, "Shift by less");
      cue.at = at;
    }
  },
  says: ({ show }, { list, by, cues }) =>
    `moves the times of ${cues ? `${cues.length} cues` : "all cues"} of list ${show.lists[list]?.number ?? "?"} by ${by > 0 ? "+" : ""}${plain(by, 3)} s`,
  lines: (world, { list, by }) => [`set ${listText(world, list)} times by ${by >= 0 ? "+" : ""}${exact(by)}`],
});
