"use client";

import { useRef, type PointerEvent } from "react";
import { hold } from "@/core/command/building";
import { targetsOf } from "@/core/show/model";
import { useSession, useStageSummary } from "@/ui/show/useSession";
import type { AttributeRow } from "@/ui/show/held/summary";
import classes from "./Programmer.module.css";

const MOST_DOTS = 80;

/** Pan across, tilt up; a dot for each selected fixture. Dragging moves them all by the same. */
export function PositionPad({ rows }: { rows: readonly AttributeRow[] }) {
  const session = useSession();
  const last = useRef<{ x: number; y: number; first: boolean } | null>(null);
  const pan = rows.find((r) => r.attribute === "Pan")!;
  const tilt = rows.find((r) => r.attribute === "Tilt")!;
  const dots = useStageSummary(
    (half, view) => {
      const { show, hands } = session.store.getState().world;
      return hands.selection.slice(0, MOST_DOTS).flatMap((item): [number, number][] => {
        const at = (name: string) => view.index.get(targetsOf(show, item, name)[0]?.key ?? "");
        const [p, t] = [at("Pan"), at("Tilt")];
        return p === undefined || t === undefined
          ? []
          : [[Math.round(half.raw[p]! * 10) / 10, Math.round(half.raw[t]! * 10) / 10]];
      });
    },
    [] as [number, number][],
    [rows.length],
  );

  const move = (event: PointerEvent<HTMLDivElement>) => {
    const from = last.current;
    if (!from) return;
    const edge = event.currentTarget.getBoundingClientRect();
    const fine = event.shiftKey ? 0.1 : 1;
    const dx = ((event.clientX - from.x) / edge.width) * (pan.max - pan.min) * fine;
    const dy = (-(event.clientY - from.y) / edge.height) * (tilt.max - tilt.min) * fine;
    if (dx === 0 && dy === 0) return;
    last.current = { x: event.clientX, y: event.clientY, first: false };
    session.hold((b) => {
      hold(b, "Pan", [dx], true);
      hold(b, "Tilt", [dy], true);
    }, !from.first);
  };
  return (
    <div
      className={classes.pad}
      role="application"
      aria-label="Position pad: drag to move pan and tilt"
      data-testid="position-pad"
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        last.current = { x: e.clientX, y: e.clientY, first: true };
      }}
      onPointerMove={move}
      onPointerUp={() => (last.current = null)}
    >
      <svg
        viewBox={`${pan.min} ${-tilt.max} ${pan.max - pan.min} ${tilt.max - tilt.min}`}
        preserveAspectRatio="none"
        aria-hidden
      >
        <line x1={pan.min} x2={pan.max} y1={0} y2={0} vectorEffect="non-scaling-stroke" />
        <line x1={0} x2={0} y1={-tilt.max} y2={-tilt.min} vectorEffect="non-scaling-stroke" />
        <path d={dots.map(([p, t]) => `M${p} ${-t}h0`).join("")} vectorEffect="non-scaling-stroke" />
      </svg>
    </div>
  );
}
