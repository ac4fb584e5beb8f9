/** The hands: what is selected, held and armed. A second small document beside the show. */
import { z } from "../units/zod";
import { IdSchema, ItemSchema, ParamKeySchema } from "./ids";
import { SpreadSchema } from "./spreadSchema";
import { EntrySchema } from "./value";

export { BY, NO_SPREAD, SpreadSchema, type Spread } from "./spreadSchema";

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
  /** Armed beside it: plain keys act on all of them. */
  alsoArmed: z.array(IdSchema).max(1000).default([]),
  blind: z.boolean(),
  /** Shows the selection full and open; never recorded. */
  highlight: z.boolean(),
  /** Shown full and open too, whatever is selected; never recorded. */
  identified: z.array(ItemSchema).max(20_000).default([]),
  /** Values pinned on the stage until unparked, scaled by nothing. */
  parked: z.record(ParamKeySchema, EntrySchema),
});
export type Hands = z.infer<typeof HandsSchema>;
