/** Trial before deed: what the thing under the hand would hold, shown on the stage picture alone. */
import { INTENTS } from "@/core/intents";
import type { Building } from "@/core/command/building";
import { applyIntents } from "@/core/show/change/intent";
import { isRefusal } from "@/core/show/refusal";
import type { Item } from "@/core/show/ids";
import type { Session } from "@/session/state";
import { setStageTools } from "@/ui/stage/stageTools";

/** So long a hand rests on a thing before it is tried, milliseconds: passing over shows nothing. */
const RESTS = 180;
let waiting: ReturnType<typeof setTimeout> | undefined;

function lookAt(session: Session, says: string, build: (b: Building) => void, items?: readonly Item[]): void {
  const { world } = session.store.getState();
  if ((items ?? world.hands.selection).length === 0) return;
  const made = session.wouldHold(build, items);
  const done = isRefusal(made) ? made : applyIntents(INTENTS, world, made);
  if (isRefusal(done)) return;
  const { held: before } = world.hands;
  const held = Object.fromEntries(Object.entries(done.world.hands.held).filter(([key, e]) => before[key] !== e));
  if (Object.keys(held).length > 0) setStageTools({ tried: { says, held } });
}

/** Ends the trial. */
export function endTrying(): void {
  clearTimeout(waiting);
  setStageTools({ tried: null });
}

/** For a tile: while the hand rests on it, the stage picture shows what it would hold. */
export const trying = (session: Session, says: string, build: (b: Building) => void, items?: readonly Item[]) => ({
  onPointerEnter: (event: { pointerType: string }) => {
    clearTimeout(waiting);
    // A finger that touches a tile presses it.
    if (event.pointerType === "touch") return;
    waiting = setTimeout(() => lookAt(session, says, build, items), RESTS);
  },
  onPointerLeave: endTrying,
  onPointerDown: endTrying,
});
