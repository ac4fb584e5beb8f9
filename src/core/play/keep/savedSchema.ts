/** Playing as it is kept and read: the form of it. */
import { z } from "../../units/zod";
import { IdSchema, ParamKeySchema } from "../../show/ids";
import { FramesSchema } from "../../show/deckSchema";
import { EFFECT_OVER } from "../stage/layers";

const finite = z.number().finite();
const FadeSchema = z.object({
  from: finite,
  to: finite,
  at: finite,
  delay: finite,
  fade: finite,
  bend: z.number().int().min(0).max(3).optional(),
});

const LayerSchema = z.object({
  key: ParamKeySchema,
  list: z.union([IdSchema, z.literal("")]),
  cue: IdSchema,
  stamp: finite,
  own: FadeSchema,
  weight: FadeSchema,
  /** Attributes that carry it; states saved before they were kept have the functions' places instead. */
  from: z.string().max(60).optional(),
  to: z.string().max(60).optional(),
  fromFn: z.number().int().min(0).optional(),
  toFn: z.number().int().min(0).optional(),
  role: z.number().int().min(0).max(EFFECT_OVER),
  scaled: z.boolean(),
});

/** The way into a cue by hand, with how the list stood before it. */
const HandSchema = z.object({
  start: finite,
  longest: finite.min(0),
  before: z.object({
    cue: IdSchema.nullable(),
    next: IdSchema.nullable(),
    left: IdSchema.nullable(),
    carried: z.boolean(),
    byHand: z.boolean(),
    arrived: finite,
    complete: finite,
    roundAt: finite,
    since: finite,
    stamp: finite,
    time: finite,
    layers: z.array(LayerSchema.extend({ priority: finite })),
  }),
});

export const SavedPlaySchema = z.object({
  now: finite,
  sequence: z.number().int().min(0),
  grand: finite.min(0).max(1),
  blackout: z.boolean(),
  runs: z.array(
    z.object({
      id: IdSchema,
      cue: IdSchema.nullable(),
      next: IdSchema.nullable(),
      left: IdSchema.nullable(),
      carried: z.boolean(),
      flash: z.boolean(),
      flashed: z.boolean(),
      level: finite.min(0).max(100),
      arrived: finite,
      complete: finite,
      roundAt: finite.default(-1),
      since: finite.default(0),
      stamp: finite.default(0),
      time: finite,
      effectTime: finite.optional(),
      effectRate: finite.min(0).max(1000).default(1),
      rate: finite.min(0).max(10_000),
      paused: z.boolean(),
      /** Of its times, 1 as written; where it is not kept, its clock's. */
      pace: finite.min(0).max(10).optional(),
      beats: z.boolean().default(false),
      bpm: finite.min(0).max(6000).nullable().default(null),
      beatAt: finite.default(0),
      /** Seconds since its last step. */
      stepped: finite.default(0),
      way: z.union([z.literal(1), z.literal(-1)]).default(1),
      steps: z.number().int().min(0).default(0),
      end: z
        .union([z.literal(0), z.literal(100)])
        .nullable()
        .default(null),
      byHand: z.boolean().default(false),
      follows: z.boolean().default(false),
      synced: z.boolean().default(false),
      timedTo: finite.default(-1),
      hand: HandSchema.nullable().default(null),
      /** How far its moves in black are. */
      black: z
        .array(
          z.object({
            fixture: IdSchema,
            left: finite,
            since: finite.nullable(),
            after: finite.nullable(),
            begun: z.boolean(),
            done: z.boolean(),
          }),
        )
        .default([]),
    }),
  ),
  /** Levels on their way to a value. */
  ramps: z
    .array(z.object({ list: IdSchema.nullable(), from: finite, to: finite, at: finite, seconds: finite.min(0) }))
    .default([]),
  /** How far held effects are in their cycles. */
  held: z.array(z.object({ key: ParamKeySchema, cycles: finite })).default([]),
  layers: z.array(LayerSchema),
  timecode: z
    .object({
      frames: FramesSchema,
      speed: z.union([z.literal(1), z.literal(0), z.literal(-1)]),
      outside: z.boolean(),
    })
    .optional(),
  /** What macros have still to run, and how long that is ahead. */
  waiting: z
    .array(
      z.object({
        ahead: finite,
        macro: z.number().int(),
        lines: z.array(z.string().max(2000)).max(10_000),
      }),
    )
    .max(1000)
    .default([]),
});
export type SavedHand = z.infer<typeof HandSchema>;
export type SavedPlay = z.infer<typeof SavedPlaySchema>;

/** A saved state from text, null where it is none. */
export function readSaved(text: string): SavedPlay | null {
  try {
    const parsed = SavedPlaySchema.safeParse(JSON.parse(text));
    return parsed.success ? parsed.data : null;
  } catch {
    return null;
  }
}
