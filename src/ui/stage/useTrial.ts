"use client";

import { useEffect, useMemo } from "react";
import { spreadItems } from "@/core/select/place";
import { splitItem } from "@/core/show/ids";
import { useShow } from "../useSession";
import type { ToPainter } from "./messages";
import { useStageTools } from "./stageTools";

/** Lights up the step of a trial on the picture alone. @returns whether a trial runs. */
export function useTrial(tell: (message: ToPainter) => void): boolean {
  const trial = useStageTools((s) => s.trial);
  const { show, hands } = useShow((s) => s.world);
  const whole = hands.stepping?.whole ?? hands.selection;
  const runs = trial !== null;
  const steps = useMemo(
    () => (runs ? spreadItems(show, whole, hands.spread) : null),
    [runs, show, whole, hands.spread],
  );
  const now = steps && runs ? trial % Math.max(1, steps.count) : 0;
  useEffect(() => {
    const lit = steps ? whole.filter((_, k) => steps.step[k] === now).map((i) => splitItem(i).fixture) : null;
    tell({ kind: "trial", lit });
  }, [tell, steps, now, whole]);
  return runs;
}
