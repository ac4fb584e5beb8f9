"use client";

import { isAim } from "@/core/show/value";
import { useShow } from "../useSession";
import { toPixels, type View } from "@/picture/plan";
import classes from "./Stage.module.css";

/** The point the held values aim at, where all of them aim at one. */
export function AimMark({ view, aiming }: { view: View; aiming: boolean }) {
  const point = useShow(({ world: { hands } }) => {
    const points = new Set<string>();
    for (const entry of Object.values(hands.held))
      if (entry.value !== undefined && isAim(entry.value)) points.add(entry.value.aim.join(" "));
    return points.size === 1 ? [...points][0]! : "";
  });
  if (point === "") return null;
  const [x, y, z] = point.split(" ").map(Number) as [number, number, number];
  const [left, top] = toPixels(view, x, y);
  return (
    <span className={classes.aim} data-aiming={aiming} style={{ left, top }} data-testid="aim-mark">
      {z === 0 ? "" : `${z} m up`}
    </span>
  );
}
