/** Spread: how places are given to ordered items (SEMANTICS 2). */
import { z } from "../units/zod";
import { ItemSchema } from "./ids";

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
