/** Something suspicious in a show: what, where, why it matters, and what would cure it. */
import { z } from "../units/zod";
import { IdSchema } from "../show/ids";
import type { Intent } from "../show/change/intent";

/** What findings are about, in the order they are shown. */
export const CONCERNS = [
  "Looks that were signed off",
  "Left on",
  "Wires and addresses",
  "Drift",
  "Moves in the dark",
  "Cues",
  "Palettes, groups and effects",
  "Fixtures",
] as const;

export const FindingSchema = z.object({
  /** The same thing found again has the same key: it stays dismissed. */
  key: z.string(),
  concern: z.enum(CONCERNS),
  what: z.string(),
  why: z.string(),
  /** The cue it is in. */
  list: IdSchema.optional(),
  cue: IdSchema.optional(),
  /** The fixtures it is about. */
  fixtures: z.array(z.string()).optional(),
  cures: z.array(
    z.object({ says: z.string(), intents: z.array(z.custom<Intent>((v) => typeof v === "object" && v !== null)) }),
  ),
});
export type Finding = z.infer<typeof FindingSchema>;

/** The name of a cue in findings. */
export const cueName = (list: { number: number; name: string }, cue: { number: number; name: string }): string =>
  `cue ${Math.round(cue.number * 1000) / 1000}${list.number === 1 ? "" : ` of list ${list.number}`}`;

const MOST = 12;

/** "fixtures 1, 2 and 5", numbers in order. */
export function fixturesText(show: { fixtures: Record<string, { number: number }> }, ids: readonly string[]): string {
  const numbers = ids.flatMap((id) => show.fixtures[id]?.number ?? []).sort((a, b) => a - b);
  const shown = numbers.slice(0, MOST).join(", ");
  return `${numbers.length === 1 ? "fixture" : "fixtures"} ${shown}${numbers.length > MOST ? ` and ${numbers.length - MOST} more` : ""}`;
}
