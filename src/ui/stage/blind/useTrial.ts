"use client";

import { useEffect, useMemo } from "react";
import { identify } from "@/core/program/intents";
import { spreadItems } from "@/core/select/place";
import { splitItem } from "@/core/show/ids";
import { useSession, useShow } from "@/ui/show/useSession";
import type { ToPainter } from "@/ui/stage/plan/messages";
import { useStageTools } from "@/ui/stage/stageTools";

/** Lights up the step of a trial on the picture alone. @returns whether a trial runs. */
export function useTrial(tell: (message: ToPainter) => void): boolean {
  const session = useSession();
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
  // On the output the step is identified: nothing of it is held, and it ends with the trial.
  const out = useStageTools((s) => s.outside) && runs;
  useEffect(() => {
    if (out && steps) session.act([identify.of({ items: whole.filter((_, k) => steps.step[k] === now) })], "identify");
  }, [session, out, steps, now, whole]);
  useEffect(() => {
    if (!out) return;
    return () => void session.act([identify.of({ items: [] })], "identify off");
  }, [session, out]);
  return runs;
}
