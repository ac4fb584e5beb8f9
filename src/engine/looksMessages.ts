/** What the looks worker and its window say to each other. */
import { z } from "@/core/units/zod";
import { HandsSchema } from "@/core/program/hands";
import { ShowSchema } from "@/core/show/schema";

export const ToLooksSchema = z.discriminatedUnion("kind", [
  z.object({ kind: z.literal("open"), world: z.object({ show: ShowSchema, hands: HandsSchema }) }),
  /** Diffs are text: cheap to hand over however large. */
  z.object({ kind: z.literal("diff"), diff: z.string() }),
  /** Which looks would this diff change? */
  z.object({ kind: z.literal("ripple"), diff: z.string(), id: z.number().int() }),
]);
export type ToLooks = z.infer<typeof ToLooksSchema>;

export const FromLooksSchema = z.object({
  kind: z.literal("rippled"),
  id: z.number().int(),
  rippled: z.array(z.object({ list: z.string(), cue: z.string(), fixtures: z.array(z.string()) })),
});
export type FromLooks = z.infer<typeof FromLooksSchema>;
