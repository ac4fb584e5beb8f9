/** What playing by hand is made of: macros, pages with their lanes and pads, views, timecode. */
import { FRAME_RATES, MOST_FRAMES } from "../timecode/frames";
import { z } from "../units/zod";
import { IdSchema } from "./ids";

const finite = z.number().finite();
const number = z.number().int().min(1).max(999_999);
const name = z.string().max(200);

/** A line of a macro. */
export const MacroLineSchema = z.string().min(1).max(2000);
/** Lines of the language, run in order as if typed. */
export const MacroSchema = z.object({
  id: IdSchema,
  number,
  name,
  lines: z.array(MacroLineSchema).min(1).max(1000),
});
export type Macro = z.infer<typeof MacroSchema>;

/** What a place of a page can hold: a playback as a lane; or, as a pad, a playback, an effect, a palette or a macro. */
export const PLACED = ["list", "effect", "palette", "macro"] as const;
export const PlacedSchema = z.object({
  what: z.enum(PLACED),
  id: IdSchema,
  as: z.enum(["lane", "pad"]),
  /** A pad that plays only while it is held. */
  held: z.literal(true).optional(),
});
export type Placed = z.infer<typeof PlacedSchema>;

/** The most places of a page. */
export const MOST_PLACES = 100;
export const PageSchema = z.object({
  id: IdSchema,
  number,
  name,
  /** By place, counted from 1. */
  places: z.record(z.string().regex(/^([1-9]|[1-9]\d|100)$/), PlacedSchema),
});
export type Page = z.infer<typeof PageSchema>;

/** The places of the app. */
export const VIEW_PLACES = ["rig", "build", "cues", "run", "check"] as const;
/** How a place is arranged: the settings of its panels, sheets, columns and filters, by their names, as texts. */
export const ArrangementSchema = z.record(z.string().min(1).max(120), z.string().max(8000));
export const ViewSchema = z.object({
  id: IdSchema,
  number,
  name,
  place: z.enum(VIEW_PLACES),
  arrangement: ArrangementSchema,
});
export type View = z.infer<typeof ViewSchema>;

/** Timecode: how frames are counted, and how long it goes on by itself when its source is lost, seconds. */
export const TimecodeSchema = z.object({ rate: z.enum(FRAME_RATES), freewheel: finite.min(0).max(3600) });
export type Timecode = z.infer<typeof TimecodeSchema>;
export const NEW_TIMECODE: Timecode = { rate: "30", freewheel: 1 };

/** A time on timecode, in frames at its rate. */
export const FramesSchema = finite.min(0).max(MOST_FRAMES);
