"use client";

import type { Hands } from "@/core/show/hands";
import { namesIn } from "@/core/units/names";
import { isAim } from "@/core/show/value";
import { useShow } from "@/ui/show/useSession";
import { toPixels, type View } from "@/picture/plan";
import classes from "./Plan.module.css";

const points = new WeakMap<Hands["held"], string>();

/** The one point that all of what is held aims at, as text; empty where there is none or several. */
function pointOf(held: Hands["held"]): string {
  const known = points.get(held);
  if (known !== undefined) return known;
  const found = new Set<string>();
  for (const key of namesIn(held)) {
    const { value } = held[key]!;
    if (value !== undefined && isAim(value)) found.add(value.aim.join(" "));
  }
  const made = found.size === 1 ? [...found][0]! : "";
  points.set(held, made);
  return made;
}

/** The point the held values aim at, where all of them aim at one. */
export function AimMark({ view, aiming }: { view: View; aiming: boolean }) {
  const point = useShow((s) => pointOf(s.world.hands.held));
  if (point === "") return null;
  const [x, y, z] = point.split(" ").map(Number) as [number, number, number];
  const [left, top] = toPixels(view, x, y);
  return (
    <span className={classes.aim} data-aiming={aiming} style={{ left, top }} data-testid="aim-mark">
      {z === 0 ? "" : `${z} m up`}
    </span>
  );
}
