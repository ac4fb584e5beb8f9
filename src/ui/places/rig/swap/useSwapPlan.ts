"use client";

import { useEffect, useState } from "react";
import { swapping, type SwapRequest, type Swapped } from "@/core/rig/swap";
import { attempt, isRefusal, refusalText } from "@/core/show/refusal";
import type { World } from "@/core/show/world";

/** So long a piece may keep the page from being drawn, milliseconds. */
const PIECE_MS = 12;

export interface SwapPlan {
  /** 0 to 1. */
  share: number;
  result: Swapped | null;
  trouble: string | null;
}

const BEGUN: SwapPlan = { share: 0, result: null, trouble: null };

/** What a swap would do, worked out between frames; starts again when what is asked for changes. */
export function useSwapPlan(world: World, request: SwapRequest): SwapPlan {
  const [plan, setPlan] = useState<SwapPlan>(BEGUN);
  const asked = JSON.stringify(request);
  useEffect(() => {
    const work = swapping(world.show, world.hands, JSON.parse(asked) as SwapRequest);
    let timer: ReturnType<typeof setTimeout>;
    const step = () => {
      const until = performance.now() + PIECE_MS;
      for (;;) {
        const next = attempt(() => work.next());
        if (isRefusal(next)) return setPlan({ share: 1, result: null, trouble: refusalText(next) });
        if (next.done) return setPlan({ share: 1, result: next.value, trouble: null });
        if (performance.now() < until) continue;
        setPlan({ share: next.value, result: null, trouble: null });
        break;
      }
      timer = setTimeout(step, 0);
    };
    timer = setTimeout(step, 0);
    return () => clearTimeout(timer);
  }, [world.show, world.hands, asked]);
  return plan;
}
