"use client";

import { useEffect, useRef } from "react";
import { trackingOf } from "@/core/cue/tracking";
import { rehearse } from "@/core/desk/rehearse";
import type { Intent } from "@/core/show/intent";
import { isRefusal } from "@/core/show/refusal";
import { guarded } from "@/session/hands";
import { useSession } from "../useSession";

/** More cells at once are not worked out before they are asked for. */
const MOST = 400;
/** If the page has no time before, milliseconds. */
const LATEST_MS = 120;

/** While an edit of a list is typed the page works it out in its idle time, so that Enter only has to draw it. */
export function useRehearsal(list: string): (intents: readonly Intent[], cells: number) => void {
  const session = useSession();
  const waits = useRef(0);
  useEffect(() => () => cancelIdleCallback(waits.current), []);
  return (intents, cells) => {
    cancelIdleCallback(waits.current);
    if (intents.length === 0 || cells > MOST) return;
    const work = () => {
      const done = guarded(() => rehearse(session.store.getState().world, intents));
      if (isRefusal(done)) return;
      const after = done.world.show.lists[list];
      if (after) trackingOf(after, done.world.show);
    };
    waits.current = requestIdleCallback(work, { timeout: LATEST_MS });
  };
}
