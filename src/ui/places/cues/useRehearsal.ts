"use client";

import { useEffect, useRef } from "react";
import { trackingOf } from "@/core/cue/tracking";
import { rehearse } from "@/core/desk/rehearse";
import type { Intent } from "@/core/show/change/intent";
import { isRefusal } from "@/core/show/refusal";
import { guarded } from "@/session/hands";
import { useSession } from "@/ui/show/useSession";

/** More cells at once are not worked out before they are asked for. */
const MOST = 400;
/** If the page has no time before, or cannot tell, milliseconds. */
const LATEST_MS = 120;

/** Does work when the page has time. @returns a way to leave it. */
function whenIdle(work: () => void): () => void {
  if (typeof requestIdleCallback === "undefined") {
    const timer = setTimeout(work, LATEST_MS);
    return () => clearTimeout(timer);
  }
  const waits = requestIdleCallback(work, { timeout: LATEST_MS });
  return () => cancelIdleCallback(waits);
}

/** While an edit of a list is typed the page works it out in its idle time, so that Enter only has to draw it. */
export function useRehearsal(list: string): (intents: readonly Intent[], cells: number) => void {
  const session = useSession();
  const leave = useRef<() => void>(undefined);
  useEffect(() => () => leave.current?.(), []);
  return (intents, cells) => {
    leave.current?.();
    if (intents.length === 0 || cells > MOST) return;
    const work = () => {
      const done = rehearse(session.store.getState().world, intents);
      const after = isRefusal(done) ? undefined : done.world.show.lists[list];
      if (after && !isRefusal(done)) trackingOf(after, done.world.show);
    };
    // What goes wrong here goes wrong again at Enter, and is told there.
    leave.current = whenIdle(() => void guarded(work));
  };
}
