/** The window's side of the looks worker. */
import type { Rippled } from "@/core/cue/looks";
import { writeDiff, type Diff } from "@/core/show/diff";
import type { World } from "@/core/show/world";
import { FromLooksSchema, type ToLooks } from "@/engine/looksMessages";

export interface LooksLink {
  /** @param diff as text. */
  diff(diff: string): void;
  /** The cues whose look a diff would change, without doing it. */
  ripple(diff: Diff): Promise<Rippled[]>;
  close(): void;
}

export function startLooks(world: World): LooksLink {
  const worker = new Worker(new URL("../engine/looks.worker.ts", import.meta.url), { type: "module" });
  const waiting = new Map<number, (rippled: Rippled[]) => void>();
  let count = 0;
  const say = (message: ToLooks) => worker.postMessage(message);
  worker.addEventListener("message", ({ data }: MessageEvent) => {
    const parsed = FromLooksSchema.safeParse(data);
    if (!parsed.success) return;
    waiting.get(parsed.data.id)?.(parsed.data.rippled);
    waiting.delete(parsed.data.id);
  });
  say({ kind: "open", world: world as never });
  return {
    diff: (diff) => say({ kind: "diff", diff }),
    ripple: (diff) => new Promise((resolve) => {
      const id = ++count;
      waiting.set(id, resolve);
      say({ kind: "ripple", diff: writeDiff(diff), id });
    }),
    close: () => worker.terminate(),
  };
}
