/** What can be undone, kept beside the journal: a reload, a crash or another host takes nothing from it. */
import { z } from "@/core/units/zod";
import { readDiff, type Diff } from "@/core/show/change/diff";
import {
  EMPTY_HISTORY,
  extendLast,
  isRemembered,
  redone,
  remember,
  undone,
  type History,
} from "@/core/show/change/history";
import { database, entriesUpTo, readRange, unseal, unsealText } from "./database";

/** How a journal entry counts: a step of its own, part of the one before (a drag), an undo or a redo. */
export const StepSchema = z.object({ how: z.enum(["done", "joined", "undone", "redone"]), says: z.string() });
export type StepKept = z.infer<typeof StepSchema>;

/** The history after journal entries, oldest first. What cannot be told apart begins it anew. */
export function replaySteps(entries: readonly { diff: Diff | undefined; step: StepKept | undefined }[]): History {
  let history = EMPTY_HISTORY;
  for (const { diff, step } of entries) {
    if (!diff) history = EMPTY_HISTORY;
    else if (!step) history = diff.some(isRemembered) ? EMPTY_HISTORY : history;
    else if (step.how === "undone") history = undone(history) ?? EMPTY_HISTORY;
    else if (step.how === "redone") history = redone(history) ?? EMPTY_HISTORY;
    else history = step.how === "joined" ? extendLast(history, diff) : remember(history, step.says, diff);
  }
  return history;
}

/** The history of a show up to a journal entry, as far back as it is kept. */
export async function loadHistory(id: string, seq: number): Promise<History> {
  const db = await database();
  const range = entriesUpTo(id, seq);
  const [diffs, steps] = await Promise.all([readRange(db, "journal", range), readRange(db, "steps", range)]);
  const stepAt = new Map(steps.map(({ key, value }) => [key[1], StepSchema.safeParse(unseal(value)).data]));
  // Entries before a gap do not lead up to the present.
  const start = diffs.findLastIndex(({ key }, i) => i > 0 && key[1] !== diffs[i - 1]!.key[1] + 1);
  return replaySteps(
    diffs.slice(Math.max(0, start)).map(({ key, value }) => {
      const text = unsealText(value);
      return { diff: text === undefined ? undefined : readDiff(text), step: stepAt.get(key[1]) };
    }),
  );
}
