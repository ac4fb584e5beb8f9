/** Working out many intents as one step, a piece between frames, so that no hand waits for them. */
import { applyIntents, type Intent } from "@/core/show/change/intent";
import type { Change, Diff } from "@/core/show/change/diff";
import { INTENTS } from "@/core/intents";
import { isRefusal, refuse, type Refusal } from "@/core/show/refusal";
import type { World } from "@/core/show/world";

const nextFrame = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 0));
const TRIES = 3;

export interface Pieces {
  pieces: readonly (readonly Intent[])[];
  says: string;
  /** Told how many pieces are worked out; returns false to stop, and then nothing has changed. */
  progress(done: number): boolean;
}

/**
 * Works the pieces out on the world as it is; where the world changes meanwhile, again from the start.
 * @returns the new world and the whole diff, not yet done; the refusal of a piece; "stopped" where progress stopped it.
 */
export async function workOut(
  now: () => World,
  { pieces, progress }: Pieces,
): Promise<{ world: World; diff: Diff } | Refusal | "stopped"> {
  for (let tries = 0; tries < TRIES; tries++) {
    const before = now();
    const diff: Change[] = [];
    let world = before;
    for (let i = 0; i < pieces.length && now() === before; i++) {
      const done = applyIntents(INTENTS, world, pieces[i]!);
      if (isRefusal(done)) return done;
      world = done.world;
      for (const change of done.diff) diff.push(change);
      if (!progress(i + 1)) return "stopped";
      await nextFrame();
    }
    if (now() === before) return { world, diff };
  }
  return refuse("the show was changed while this was worked out", "Try again when nobody else changes it");
}
