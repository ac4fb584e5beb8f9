"use client";

import { useEffect, useRef } from "react";
import type { Hands } from "@/core/show/hands";
import { publish } from "@/engine/frame";
import { indexOf } from "@/engine/layout";
import { viewOf, type StageView } from "@/engine/view";
import { useSession, useShow, useShowNow } from "@/ui/show/useSession";
import { leaveBlind, useBlind } from "@/ui/show/blind";
import { laidOf, lay, ownFrame } from "@/ui/stage/plan/laid";
import { liveStage, lookOf, type Under } from "@/ui/stage/plan/under";

const NOTHING: Hands["held"] = {};

/**
 * Keeps what the hands see while blind: the stage, or the cue that is open, with what is held on it, in a frame of
 * memory like the engine's, for pictures and numbers alike.
 */
export function BlindStage() {
  const { store } = useSession();
  const blind = useShow((s) => s.world.hands.blind);
  const layout = useShow((s) => s.view?.layout);
  const show = useShow((s) => s.world.show);
  const held = useShowNow((s) => (blind ? s.world.hands.held : NOTHING));
  const list = useBlind((s) => s.list);
  const cue = useBlind((s) => s.cue);
  const peeks = useBlind((s) => s.peeks);
  const on = blind && !peeks;
  const under = useRef<Under>(() => undefined);
  const laid = useRef<ReturnType<typeof laidOf>>([]);
  useEffect(() => {
    if (!on || !layout) return;
    const look = list && cue ? lookOf(show, { list, cue }, layout) : undefined;
    under.current = look ?? liveStage(layout, () => store.getState().view);
  }, [store, on, layout, list, cue, show]);
  useEffect(() => {
    if (on && layout) laid.current = laidOf(show, indexOf(layout), held);
  }, [on, layout, show, held]);
  useEffect(() => {
    if (!on || !layout) return;
    const { frame, shared } = ownFrame(layout);
    const put = (view: StageView | null) => {
      useBlind.setState({ view });
      store.setState({ look: (cue && view) || undefined });
    };
    const began = performance.now();
    let handle = 0;
    const draw = () => {
      handle = requestAnimationFrame(draw);
      const gone = (performance.now() - began) / 1000;
      const isNew = publish(frame, (half) => {
        under.current(half, gone);
        lay(half, laid.current, gone);
      });
      // A painter that does not share the memory is told by another view of it.
      if (isNew && !shared) put(viewOf(layout, frame));
    };
    draw();
    put(viewOf(layout, frame));
    return () => {
      cancelAnimationFrame(handle);
      put(null);
    };
  }, [store, on, layout, cue]);
  // Ended by a line or another window.
  useEffect(() => {
    if (!blind) leaveBlind();
  }, [blind]);
  return null;
}
