"use client";

import { useComputedColorScheme } from "@mantine/core";
import { useReducedMotion } from "@mantine/hooks";
import { IconPlugConnected } from "@tabler/icons-react";
import {
  useCallback,
  useDeferredValue,
  useEffect,
  useEffectEvent,
  useMemo,
  useRef,
  useState,
  type PointerEvent,
} from "react";
import { aim } from "@/core/command/building";
import { order, select } from "@/core/select/intents";
import { splitItem } from "@/core/show/ids";
import { useSession, useShow, useSize } from "@/ui/show/useSession";
import type { Layout } from "@/engine/layout";
import { AimMark } from "./AimMark";
import { BlindFrame } from "@/ui/stage/blind/BlindFrame";
import { EmptyStage } from "@/ui/stage/EmptyStage";
import { useBlind } from "@/ui/show/blind";
import { drawn, inside, lampAt, ON_IT, spotsOf, within, type Box } from "./hit";
import { planOf } from "@/picture/packed";
import { fitStage, toMetres, toPixels } from "@/picture/plan";
import { StageBar } from "@/ui/stage/StageBar";
import { setPressed, setStageTools, useStageTools } from "@/ui/stage/stageTools";
import { useCamera } from "./useCamera";
import { useTrial } from "@/ui/stage/blind/useTrial";
import { useTriedStage } from "@/ui/stage/blind/useTriedStage";
import { usePainter } from "./usePainter";
import { useWireStage } from "@/ui/stage/room/wireStage";
import classes from "./Plan.module.css";

const SAME_SPOT = 4;

/** Working on the plan itself: what a drag means, and what it shows while it lasts. */
export interface PlanEdit {
  /** Whether a drag that begins on a lamp moves the selected ones. */
  moves: boolean;
  /** A drag across the plan, in metres; undefined where dragging selects an area. */
  onDrag?(from: { x: number; y: number }, to: { x: number; y: number }): void;
  onMove(dx: number, dy: number): void;
  /** What the drag would make: corners in metres. */
  preview(from: { x: number; y: number }, to: { x: number; y: number }): { x: number; y: number }[];
}

/**
 * The stage from above, lit as it is now. Click selects, shift adds or takes away; dragging over the floor
 * selects an area in the direction of the drag, dragging from lamp to lamp draws an order.
 * @param live whether it is the live stage, whatever is worked on blind.
 */
export function StagePlan({ edit, live = false }: { edit?: PlanEdit; live?: boolean }) {
  const session = useSession();
  const host = useRef<HTMLDivElement>(null);
  const { width, height } = useSize(host);
  const scheme = useComputedColorScheme("dark");
  const calm = useReducedMotion();
  // The plan of thousands is laid out after all else has followed an edit.
  const show = useDeferredValue(useShow((s) => s.world.show));
  const stage = useShow((s) => s.view);
  const selection = useShow((s) => s.world.hands.selection);
  const [box, setBox] = useState<Box | null>(null);
  const lamps = useMemo(() => spotsOf(show), [show.fixtures, show.types]); // oxlint-disable-line react-hooks/exhaustive-deps
  const scenery = useMemo(() => Object.values(show.scenery), [show.scenery]);
  const fitted = useMemo(
    () => fitStage([...lamps, ...scenery.flatMap((s) => [s.from, s.to])], width, height),
    [lamps, scenery, width, height],
  );
  const camera = useCamera(host, fitted);
  const { zoom: zoomAt, look: lookFrom } = camera;
  const zoom = useCallback((by: number) => zoomAt({ x: width / 2, y: height / 2 }, by), [zoomAt, width, height]);
  const fit = useCallback(
    (what: "all" | "selection") => {
      const chosen = new Set(selection.map((i) => splitItem(i).fixture));
      lookFrom(
        what === "all"
          ? null
          : fitStage(
              lamps.filter((l) => chosen.has(l.id)),
              width,
              height,
            ),
      );
    },
    [lookFrom, lamps, selection, width, height],
  );
  const { view } = camera;
  const area = useStageTools((s) => s.area);
  const aiming = useStageTools((s) => s.aiming) && !edit;
  const ordering = useStageTools((s) => (edit ? null : s.ordering));
  const [fromWire, setFromWire] = useState(false);
  const moving = useRef(false);
  /** Lamps a line was drawn through so far, and whether they are added. */
  const [loop, setLoop] = useState<{ x: number; y: number }[]>([]);
  const [path, setPath] = useState<{ ids: string[]; add: boolean } | null>(null);
  const sequence = useMemo(
    () => (path && path.ids.length > 1 ? drawn(selection, path.ids, path.add) : selection),
    [selection, path],
  );

  const tell = usePainter(host, classes.canvas!);

  const blind = useBlind((s) => (live || edit ? null : s.view));
  const tellMemory = useCallback(
    (layout: Layout, memory: ArrayBufferLike) => tell({ kind: "memory", layout, memory }),
    [tell],
  );
  const seen = blind ?? stage;
  const wired = fromWire && !blind;
  const tried = useTriedStage(!edit && !wired, show, seen, tellMemory);
  useEffect(() => {
    if (seen && !wired && tried === null) tellMemory(seen.layout, seen.frame.buffer);
  }, [tellMemory, seen, wired, tried]);
  const received = useWireStage(wired, show, stage?.layout, tellMemory);
  const plan = useMemo(() => (stage ? planOf(show, stage.index) : null), [lamps, stage?.layout]); // oxlint-disable-line react-hooks/exhaustive-deps
  useEffect(() => {
    if (plan) tell({ kind: "plan", plan, scenery });
  }, [tell, plan, scenery]);
  useEffect(() => {
    const ratio = devicePixelRatio;
    if (width > 0) tell({ kind: "view", width, height, ratio, view, daylight: scheme === "light", calm });
  }, [tell, width, height, view, scheme, calm]);
  useEffect(() => {
    const places: Record<string, number> = {};
    const cells: Record<string, number[]> = {};
    sequence.forEach((value, i) => {
      const { fixture, cell } = splitItem(value);
      if (cell === 0) places[fixture] = i + 1;
      else (cells[fixture] ??= []).push(cell);
    });
    tell({ kind: "selection", order: places, cells });
  }, [tell, sequence]);

  const inBlack = useShow((s) => s.playing.moving);
  useEffect(() => tell({ kind: "traces", traces: blind || wired ? [] : inBlack }), [tell, inBlack, blind, wired]);

  const trial = useTrial(tell);

  const adds = (event: PointerEvent) => event.shiftKey || event.ctrlKey || event.metaKey;
  const at = (event: PointerEvent) => {
    const edge = host.current!.getBoundingClientRect();
    return { x: event.clientX - edge.left, y: event.clientY - edge.top };
  };
  const choose = (items: string[], add: boolean) => {
    const now = session.store.getState().world.hands.selection;
    const next = !add
      ? items
      : items.every((i) => now.includes(i))
        ? now.filter((i) => !items.includes(i))
        : [...now, ...items.filter((i) => !now.includes(i))];
    session.act([select.of({ items: next })], "select");
  };
  const aimAt = (p: { x: number; y: number }, join: boolean) => {
    const { x, y } = toMetres(view, p.x, p.y);
    session.hold((b) => aim(b, { aim: [round(x), round(y), 0] }), join);
  };
  const onPointerDown = (event: PointerEvent<HTMLDivElement>) => {
    if ((event.target as HTMLElement).closest("button")) return;
    const p = at(event);
    if (camera.grab(event, p)) {
      event.currentTarget.setPointerCapture(event.pointerId);
      setBox(null);
      setPath(null);
      return;
    }
    if (event.button !== 0) return;
    if (ordering) {
      const { x, y } = toMetres(view, p.x, p.y);
      session.act([order.of({ how: ordering, at: { x: round(x), y: round(y) } })]);
      return setStageTools({ ordering: null });
    }
    event.currentTarget.setPointerCapture(event.pointerId);
    setPressed(true);
    if (aiming) {
      setBox({ x1: p.x, y1: p.y, x2: p.x, y2: p.y });
      return aimAt(p, false);
    }
    setLoop([p]);
    const under = edit?.moves ? lampAt(lamps, view, p.x, p.y) : undefined;
    moving.current = under !== undefined;
    const lamp = edit ? undefined : lampAt(lamps, view, p.x, p.y, ON_IT);
    setPath(lamp ? { ids: [lamp.id], add: adds(event) } : null);
    if (under && !selection.includes(under.id) && !event.shiftKey) choose([under.id], false);
    setBox({ x1: p.x, y1: p.y, x2: p.x, y2: p.y });
  };
  const onPointerMove = (event: PointerEvent<HTMLDivElement>) => {
    const p = at(event);
    if (camera.move(event, p)) return;
    if (!box) return;
    setBox({ ...box, x2: p.x, y2: p.y });
    if (aiming) return aimAt(p, true);
    if (area === "lasso") setLoop((now) => [...now, p]);
    const next = path && lampAt(lamps, view, p.x, p.y, ON_IT);
    if (next && !path.ids.includes(next.id)) setPath({ ...path, ids: [...path.ids, next.id] });
  };
  const onPointerUp = (event: PointerEvent<HTMLDivElement>) => {
    camera.letGo(event);
    setPressed(false);
    if (!box) return;
    setBox(null);
    setPath(null);
    if (aiming) return;
    const far = Math.hypot(box.x2 - box.x1, box.y2 - box.y1) >= SAME_SPOT;
    const [from, to] = [toMetres(view, box.x1, box.y1), toMetres(view, box.x2, box.y2)];
    if (far && moving.current) return edit!.onMove(to.x - from.x, to.y - from.y);
    if (far && edit?.onDrag) return edit.onDrag(from, to);
    if (path && path.ids.length > 1) return choose(sequence, false);
    const add = adds(event);
    const still = !far || path !== null;
    const hit = still ? lampAt(lamps, view, box.x1, box.y1) : undefined;
    const chosen = still
      ? hit
        ? [hit.id]
        : []
      : (area === "lasso" && !edit ? within(lamps, view, loop) : inside(lamps, view, box)).map((l) => l.id);
    if (chosen.length > 0 || !add) choose(chosen, add);
  };

  const takeOver = useEffectEvent((event: KeyboardEvent) => {
    if (event.code !== "Space" || !box) return;
    event.preventDefault();
    camera.take({ x: box.x2, y: box.y2 });
    setBox(null);
    setPath(null);
  });
  useEffect(() => {
    addEventListener("keydown", takeOver);
    return () => removeEventListener("keydown", takeOver);
  }, []);

  const dragged = box !== null && Math.hypot(box.x2 - box.x1, box.y2 - box.y1) >= SAME_SPOT;
  const ghosts =
    box && dragged && edit
      ? ghostsOf(
          edit,
          moving.current,
          lamps.filter((l) => selection.includes(l.id)),
          toMetres(view, box.x1, box.y1),
          toMetres(view, box.x2, box.y2),
        )
      : [];
  const sent = Object.keys(show.outputs).length > 0;

  return (
    <div
      ref={host}
      className={classes.stage}
      data-testid="stage"
      role="application"
      aria-label="Stage plan"
      onPointerDown={onPointerDown}
      onPointerMove={onPointerMove}
      onPointerUp={onPointerUp}
      onPointerCancel={(e) => (camera.letGo(e), setPressed(false), setBox(null), setPath(null))}
      data-aiming={aiming || ordering !== null}
    >
      {lamps.length === 0 && !edit && <EmptyStage />}
      {sent && (
        <button
          type="button"
          title={
            fromWire
              ? "From the wire: shows what arrived at the stand-in node. Press for live"
              : "Live: shows what the engine plays. Press to show what arrives at the stand-in node"
          }
          className={classes.source}
          aria-pressed={fromWire}
          data-testid="from-wire"
          onClick={() => setFromWire(!fromWire)}
        >
          <IconPlugConnected size={14} />{" "}
          <span>
            {fromWire
              ? received === null
                ? "from the wire: node not reached"
                : `from the wire: ${received.streams.length} universes`
              : "Live"}
          </span>
        </button>
      )}
      {!edit && !live && <BlindFrame />}
      <AimMark view={view} aiming={aiming} />
      {aiming && <p className={classes.tool}>Press or drag where the selected movers are to point. Esc ends it.</p>}
      {ordering && (
        <p className={classes.tool}>
          Press the point {ordering === "centre" ? "to go out from" : "to go around"}. Esc ends it.
        </p>
      )}
      {trial && (
        <p className={classes.tool}>
          Trial: the steps light up on this picture only. Nothing is held, nothing is sent.
        </p>
      )}
      {tried && <p className={classes.tool}>Trial on this picture only: {tried}</p>}
      <StageBar onZoom={zoom} onFit={fit} fitted={camera.fitted} some={selection.length > 0} areas={!edit} />
      {ghosts.map((g, i) => {
        const [x, y] = toPixels(view, g.x, g.y);
        return <i key={i} className={classes.ghost} style={{ left: x, top: y }} />;
      })}
      {box && path && dragged && (
        <svg className={classes.line} aria-hidden>
          <polyline
            points={[
              ...path.ids
                .flatMap((id) => lamps.find((l) => l.id === id) ?? [])
                .map((l) => toPixels(view, l.x, l.y).join()),
              `${box.x2},${box.y2}`,
            ].join(" ")}
          />
        </svg>
      )}
      {box && dragged && !path && !aiming && area === "lasso" && !edit && (
        <svg className={classes.line} aria-hidden>
          <polygon points={loop.map((p) => `${p.x},${p.y}`).join(" ")} />
        </svg>
      )}
      {box && dragged && !path && !aiming && (area === "marquee" || edit) && ghosts.length === 0 && (
        <div
          className={classes.marquee}
          style={{
            left: Math.min(box.x1, box.x2),
            top: Math.min(box.y1, box.y2),
            width: Math.abs(box.x2 - box.x1),
            height: Math.abs(box.y2 - box.y1),
          }}
        />
      )}
    </div>
  );
}

/** Centimetres are as fine as a hand points. */
const round = (v: number): number => Math.round(v * 100) / 100;

function ghostsOf(
  edit: PlanEdit,
  moves: boolean,
  selected: readonly { x: number; y: number }[],
  from: { x: number; y: number },
  to: { x: number; y: number },
): { x: number; y: number }[] {
  if (moves) return selected.map((l) => ({ x: l.x + to.x - from.x, y: l.y + to.y - from.y }));
  return edit.onDrag ? edit.preview(from, to) : [];
}
