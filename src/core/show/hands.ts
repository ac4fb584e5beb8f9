/** The hands: what is selected, held and armed. A second small document beside the show. */
import { z } from "../units/zod";
import { IdSchema, ItemSchema, ParamKeySchema } from "./ids";
import { EntrySchema } from "./value";

export const BY = ["order", "left", "front", "centre", "around", "steps"] as const;

export const SpreadSchema = z.object({
  mirror: z.number().int().min(1).max(1000),
  bunch: z.number().int().min(1).max(1000),
  repeat: z.number().int().min(0).max(1000),
  by: z.enum(BY),
  /** By steps: the step given to each item, from 1. Items without one come after, each on its own. */
  steps: z.record(ItemSchema, z.number().int().min(1).max(100_000)).optional(),
});
export type Spread = z.infer<typeof SpreadSchema>;

export const NO_SPREAD: Spread = { mirror: 1, bunch: 1, repeat: 0, by: "order" };

export const HandsSchema = z.object({
  selection: z.array(ItemSchema),
  /** The whole being stepped through, and the step reached; null when not stepping. */
  stepping: z.object({ whole: z.array(ItemSchema), step: z.number().int().min(0) }).nullable(),
  /** The selection before this one. */
  last: z.array(ItemSchema),
  spread: SpreadSchema,
  held: z.record(ParamKeySchema, EntrySchema),
  /** Held, but left out of what is recorded. */
  keptOut: z.record(ParamKeySchema, z.literal(true)).default({}),
  /** The palette a held value took the place of: where an update goes. */
  cameFrom: z.record(ParamKeySchema, IdSchema).default({}),
  /** What was held or let go last, where it takes its time. */
  over: z
    .object({ seconds: z.number().min(0).max(86_400), keys: z.array(ParamKeySchema) })
    .nullable()
    .default(null),
  /** Empty where the show has no list. */
  armed: z.union([IdSchema, z.literal("")]),
  blind: z.boolean(),
  /** Shows the selection full and open; never recorded. */
  highlight: z.boolean(),
  /** Shown full and open too, whatever is selected; never recorded. */
  identified: z.array(ItemSchema).max(20_000).default([]),
  /** Values pinned on the stage until unparked, scaled by nothing. */
  parked: z.record(ParamKeySchema, EntrySchema),
});
export type Hands = z.infer<typeof HandsSchema>;
