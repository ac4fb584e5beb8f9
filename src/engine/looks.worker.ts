/** Looks and ripple, away from the hands and from the engine's clock. */
import { ripple } from "@/core/cue/looks";
import { applyDiff, readDiff } from "@/core/show/diff";
import type { World } from "@/core/show/world";
import { ToLooksSchema, type FromLooks } from "./looksMessages";

let world: World | undefined;
const say = (message: FromLooks): void => postMessage(message);

addEventListener("message", ({ data }: MessageEvent) => {
  const parsed = ToLooksSchema.safeParse(data);
  if (!parsed.success) return;
  const message = parsed.data;
  if (message.kind === "open") world = message.world as World;
  else if (!world) return;
  else {
    const diff = readDiff(message.diff);
    if (!diff) return;
    const after = applyDiff(world, diff);
    if (message.kind === "diff") world = after;
    else say({ kind: "rippled", id: message.id, rippled: ripple(world.show, after.show) });
  }
});
