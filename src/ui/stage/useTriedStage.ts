"use client";

import { useEffect } from "react";
import { playedAt, lastFn, playingOf } from "@/core/play/playing";
import { isStepped } from "@/core/play/rig";
import { resolveEntry } from "@/core/program/resolve";
import { isStop } from "@/core/show/effectSchema";
import { specOf } from "@/core/show/model";
import type { Show } from "@/core/show/schema";
import { frameBytes, openFrame, publish, wholeHalf, type Layout } from "@/engine/frame";
import type { StageView } from "@/engine/view";
import { useStageTools } from "./stageTools";

/**
 * The live stage with what the thing under the hand would hold laid over it: a frame of memory of its own, which
 * nothing but the picture reads.
 * @param tell hands the memory to the painter, again after every change where it cannot be shared.
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
    const laid = Object.entries(tried.held).flatMap(([key, entry]) => {
      const at = stage.index.get(key);
      const spec = specOf(show, key);
      if (at === undefined || !spec) return [];
      const value = resolveEntry(show, key, spec, entry);
      const { effect } = entry;
      const mixes = spec.functions.map((f) => !isStepped(f));
      const plays = effect && !isStop(effect) ? playingOf(show, key, spec, mixes, entry) : undefined;
      return value || plays ? [{ at, value, plays }] : [];
    });
    const shared = typeof SharedArrayBuffer !== "undefined" && crossOriginIsolated;
    const memory = shared ? new SharedArrayBuffer(frameBytes(layout)) : new ArrayBuffer(frameBytes(layout));
    const frame = openFrame(layout, memory);
    const began = performance.now();
    let handle = 0;
    const draw = () => {
      handle = requestAnimationFrame(draw);
      const gone = (performance.now() - began) / 1000;
      const live = wholeHalf(stage.frame);
      publish(frame, (half) => {
        half.value.set(live.value);
        half.raw.set(live.raw);
        half.fn.set(live.fn);
        for (const { at, value, plays } of laid) {
          if (value) {
            half.value[at] = half.raw[at] = value.value;
            half.fn[at] = value.fn;
          }
          if (!plays) continue;
          half.value[at] = half.raw[at] = playedAt(plays, gone * plays.speed, half.value[at]!, half.fn[at]!, 1);
          half.fn[at] = lastFn();
        }
      });
      if (!shared) tell(layout, memory);
    };
    draw();
    tell(layout, memory);
    return () => cancelAnimationFrame(handle);
  }, [tried, show, stage, tell]);
  return tried && stage ? tried.says : null;
}
