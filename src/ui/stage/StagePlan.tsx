"use client";

import { useComputedColorScheme } from "@mantine/core";
import { useEffect, useMemo, useRef, useState, type PointerEvent } from "react";
import { select } from "@/core/select/intents";
import { splitItem } from "@/core/show/ids";
import { useSession, useShow, useSize } from "../useSession";
import { inside, lampAt, type Box } from "./hit";
import { PaceSchema, type ToPainter } from "./messages";
import { fitView, lampsOf } from "./plan";
import classes from "./Stage.module.css";

const SAME_SPOT = 4;

/** The stage from above, lit as it is now. Click selects, shift adds or takes away, dragging selects an area in the direction of the drag. */
export function StagePlan() {
  const session = useSession();
  const host = useRef<HTMLDivElement>(null);
  const painter = useRef<Worker | null>(null);
  const { width, height } = useSize(host);
  const scheme = useComputedColorScheme("dark");
  const show = useShow((s) => s.world.show);
  const stage = useShow((s) => s.view);
  const selection = useShow((s) => s.world.hands.selection);
  const [box, setBox] = useState<Box | null>(null);
  const lamps = useMemo(() => (stage ? lampsOf(show, stage.index) : []), [show.fixtures, show.types, stage?.index]); // eslint-disable-line react-hooks/exhaustive-deps
  const view = useMemo(() => fitView(lamps, width, height), [lamps, width, height]);

  useEffect(() => {
    const element = document.createElement("canvas");
    element.className = classes.canvas!;
    host.current!.prepend(element);
    const worker = new Worker(new URL("./painter.worker.ts", import.meta.url), { type: "module" });
    const canvas = element.transferControlToOffscreen();
    worker.postMessage({ kind: "canvas", canvas } satisfies ToPainter, [canvas]);
    worker.addEventListener("message", ({ data }: MessageEvent) => {
      const pace = PaceSchema.safeParse(data);
      if (pace.success && host.current) host.current.dataset.pace = `${pace.data.frames.toFixed(1)} ${pace.data.ms.toFixed(2)}`;
    });
    painter.current = worker;
    return () => {
      painter.current = null;
      worker.terminate();
      element.remove();
    };
  }, []);
  const tell = (message: ToPainter) => painter.current?.postMessage(message);

  useEffect(() => {
    if (stage) tell({ kind: "memory", layout: stage.layout, memory: stage.frame.buffer });
  }, [stage]);
  useEffect(() => tell({ kind: "plan", lamps }), [lamps]);
  useEffect(() => {
    if (width > 0) tell({ kind: "view", width, height, ratio: devicePixelRatio, view, daylight: scheme === "light" });
  }, [width, height, view, scheme]);
  useEffect(() => {
    const order: Record<string, number> = {};
    const cells: Record<string, number[]> = {};
    selection.forEach((value, i) => {
      const { fixture, cell } = splitItem(value);
      if (cell === 0) order[fixture] = i + 1;
      else (cells[fixture] ??= []).push(cell);
    });
    tell({ kind: "selection", order, cells });
  }, [selection]);

  const at = (event: PointerEvent) => {
    const edge = host.current!.getBoundingClientRect();
    return { x: event.clientX - edge.left, y: event.clientY - edge.top };
  };
  const choose = (items: string[], add: boolean) => {
    const now = session.store.getState().world.hands.selection;
    const next = !add ? items : items.every((i) => now.includes(i)) ? now.filter((i) => !items.includes(i)) : [...now, ...items.filter((i) => !now.includes(i))];
    session.act([select.of({ items: next })], "select");
  };
  const onPointerDown = (event: PointerEvent<HTMLDivElement>) => {
    if (event.button !== 0) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    const p = at(event);
    setBox({ x1: p.x, y1: p.y, x2: p.x, y2: p.y });
  };
  const onPointerMove = (event: PointerEvent<HTMLDivElement>) => {
    if (!box) return;
    const p = at(event);
    setBox({ ...box, x2: p.x, y2: p.y });
  };
  const onPointerUp = (event: PointerEvent<HTMLDivElement>) => {
    if (!box) return;
    setBox(null);
    const add = event.shiftKey || event.ctrlKey || event.metaKey;
    const still = Math.hypot(box.x2 - box.x1, box.y2 - box.y1) < SAME_SPOT;
    const hit = still ? lampAt(lamps, view, box.x2, box.y2) : undefined;
    const chosen = still ? (hit ? [hit.id] : []) : inside(lamps, view, box).map((l) => l.id);
    if (chosen.length > 0 || !add) choose(chosen, add);
  };

  return (
    <div
      ref={host} className={classes.stage} data-testid="stage" role="application" aria-label="Stage plan"
      onPointerDown={onPointerDown} onPointerMove={onPointerMove} onPointerUp={onPointerUp} onPointerCancel={() => setBox(null)}
    >
      {lamps.length === 0 && <p className={classes.empty}>The stage is empty. Patch the first fixtures in Rig, or type: patch 12 petrel-spot</p>}
      {box && Math.hypot(box.x2 - box.x1, box.y2 - box.y1) >= SAME_SPOT && (
        <div className={classes.marquee} style={{ left: Math.min(box.x1, box.x2), top: Math.min(box.y1, box.y2), width: Math.abs(box.x2 - box.x1), height: Math.abs(box.y2 - box.y1) }} />
      )}
    </div>
  );
}
