"use client";

import { converter, formatHex } from "culori";
import { useRef, type PointerEvent } from "react";
import { colour } from "@/core/command/buildingColour";
import { useSession } from "@/ui/show/useSession";
import type { AttributeRow } from "@/ui/show/held/summary";
import classes from "./Programmer.module.css";

const toHsv = converter("hsv");

/** The colour the selection shows, on average, as hue and saturation; null where it mixes none. */
function shown(rows: readonly AttributeRow[]): { hue: number; sat: number; hex: string } | null {
  const mid = (name: string) => {
    const row = rows.find((r) => r.attribute === name);
    return row ? (row.low + row.high) / 200 : undefined;
  };
  const [r, g, b] = [mid("ColorAdd_R"), mid("ColorAdd_G"), mid("ColorAdd_B")];
  const [c, m, y] = [mid("ColorSub_C"), mid("ColorSub_M"), mid("ColorSub_Y")];
  const rgb =
    r !== undefined
      ? { mode: "rgb" as const, r, g: g ?? 0, b: b ?? 0 }
      : c !== undefined
        ? { mode: "rgb" as const, r: 1 - c, g: 1 - (m ?? 0), b: 1 - (y ?? 0) }
        : null;
  if (!rgb) return null;
  const hsv = toHsv(rgb);
  return { hue: hsv?.h ?? 0, sat: hsv?.s ?? 0, hex: formatHex(rgb) };
}

/** Hue across, full colour at the top, white at the bottom. Sets the types' own primaries. */
export function ColourField({ rows }: { rows: readonly AttributeRow[] }) {
  const session = useSession();
  const dragging = useRef(false);
  const now = shown(rows);
  const pick = (event: PointerEvent<HTMLDivElement>, join: boolean) => {
    const edge = event.currentTarget.getBoundingClientRect();
    const x = Math.min(1, Math.max(0, (event.clientX - edge.left) / edge.width));
    const y = Math.min(1, Math.max(0, (event.clientY - edge.top) / edge.height));
    session.hold((b) => colour(b, [formatHex({ mode: "hsv", h: x * 360, s: 1 - y, v: 1 })]), join);
  };
  return (
    <div
      className={classes.field}
      role="slider"
      aria-label="Colour field"
      aria-valuenow={Math.round(now?.hue ?? 0)}
      aria-valuetext={now?.hex ?? "no colour"}
      tabIndex={-1}
      data-testid="colour-field"
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        dragging.current = true;
        pick(e, false);
      }}
      onPointerMove={(e) => dragging.current && pick(e, true)}
      onPointerUp={() => (dragging.current = false)}
    >
      {now && (
        <span
          className={classes.spot}
          style={{ left: `${(now.hue / 360) * 100}%`, top: `${(1 - now.sat) * 100}%`, background: now.hex }}
        />
      )}
    </div>
  );
}
