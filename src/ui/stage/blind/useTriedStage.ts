"use client";

import { useEffect } from "react";
import type { Show } from "@/core/show/schema";
import { publish, wholeHalf } from "@/engine/frame";
import type { Layout } from "@/engine/layout";
import type { StageView } from "@/engine/view";
import { copyStage, laidOf, lay, ownFrame } from "@/ui/stage/plan/laid";
import { useStageTools } from "@/ui/stage/stageTools";

/**
 * The stage with what the thing under the hand would hold laid over it: a frame of memory of its own, which nothing
 * but the picture reads.
 * @param stage what it is laid over. @param tell hands the memory to the painter, again after every change where it
 * cannot be shared.
 * @returns what is tried, in words; null while nothing is.
 */
export function useTriedStage(
  on: boolean,
  show: Show,
  stage: StageView | undefined,
  tell: (layout: Layout, memory: ArrayBufferLike) => void,
): string | null {
  const tried = useStageTools((s) => (on ? s.tried : null));
  useEffect(() => {
    if (!tried || !stage) return;
    const { layout } = stage;
    const laid = laidOf(show, stage.index, tried.held);
    const { frame, shared } = ownFrame(layout);
    const began = performance.now();
    let handle = 0;
    const draw = () => {
      handle = requestAnimationFrame(draw);
      const live = wholeHalf(stage.frame);
      publish(frame, (half) => {
        copyStage(half, live);
        lay(half, laid, (performance.now() - began) / 1000);
      });
      if (!shared) tell(layout, frame.buffer);
    };
    draw();
    tell(layout, frame.buffer);
    return () => cancelAnimationFrame(handle);
  }, [tried, show, stage, tell]);
  return tried && stage ? tried.says : null;
}
