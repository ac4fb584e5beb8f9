"use client";

import { Canvas, useFrame, useThree } from "@react-three/fiber";
import { useEffect, useMemo, useRef, useState, type RefObject } from "react";
import { Plane, Raycaster, Vector2, Vector3, type PerspectiveCamera } from "three";
import { OrbitControls } from "three/examples/jsm/controls/OrbitControls.js";
import type { Show } from "@/core/show/schema";
import type { RoomLamp } from "@/picture/room/lamps";
import type { Lit } from "@/picture/lit";
import { GIVES_UP, StageRoom } from "./stageRoom";
import type { Viewpoint } from "@/ui/base/preferences/registry";
import { walked } from "./viewpoints";

export interface RoomProps {
  lamps: readonly RoomLamp[];
  show: Pick<Show, "scenery" | "types">;
  /** Lamps in the order they are selected. */
  selection: readonly string[];
  /** What is drawn now; undefined before there is anything. */
  lit(): Lit | undefined;
  /** Where it is looked at from when it is shown. */
  start: Viewpoint;
  /** Set from outside to look from elsewhere. */
  look: RefObject<Viewpoint | null>;
  /** Where it is looked at from now, for keeping. */
  now: RefObject<Pick<Viewpoint, "from" | "to"> | null>;
  /** Walks around these while there are any. */
  walk: readonly Viewpoint[] | null;
  aiming: boolean;
  onPick(id: string | null, add: boolean): void;
  onAim(point: { x: number; y: number }, join: boolean): void;
  onPace(pace: { frames: number; level: number }): void;
}

const SLOW_MS = 1000 / 30;
const QUICK_MS = 1000 / 52;
/** So long it has to be slow, and ten times as long quick, before something is given up or taken back, seconds. */
const PATIENCE = 0.7;
const SAME_SPOT = 5;

const PLAIN = { imageRendering: "pixelated" } as const;

/** The room in three dimensions, lit from a frame. */
export function RoomCanvas(props: RoomProps) {
  // Held here: a dpr that is set from within is set back whenever the canvas is rendered anew.
  const [half, setHalf] = useState(false);
  return (
    <Canvas
      dpr={half ? 0.5 : 1}
      // Smoothing what is drawn at half the resolution takes a tenth of a frame.
      style={half ? PLAIN : undefined}
      // Colours as they are: converting and mapping them for every point costs more than the light does.
      linear
      flat
      legacy
      frameloop="always"
      gl={{ antialias: false, powerPreference: "high-performance", alpha: false }}
      camera={{ fov: 50, near: 0.25, far: 120, up: [0, 0, 1], position: props.start.from }}
    >
      <Room {...props} setHalf={setHalf} />
    </Canvas>
  );
}

interface InnerProps extends RoomProps {
  setHalf(half: boolean): void;
}

function Room(props: InnerProps) {
  const { lamps, show, selection, lit, start, look, now, walk, aiming, onPick, onAim, onPace, setHalf } = props;
  const { camera, gl } = useThree();
  const room = useMemo(() => new StageRoom(lamps, show), [lamps, show]);
  useEffect(() => () => room.dispose(), [room]);
  useEffect(() => room.select(new Set(selection)), [room, selection]);
  const controls = useRef<OrbitControls | null>(null);
  useEffect(() => {
    const made = new OrbitControls(camera as PerspectiveCamera, gl.domElement);
    made.target.set(...start.to);
    made.maxPolarAngle = Math.PI * 0.52;
    made.minDistance = 0.5;
    made.maxDistance = 90;
    made.update();
    controls.current = made;
    return () => made.dispose();
  }, [camera, gl]); // oxlint-disable-line react-hooks/exhaustive-deps
  useEffect(() => {
    if (controls.current) controls.current.enabled = !aiming && walk === null;
  }, [aiming, walk]);
  useHands({ room, camera: camera as PerspectiveCamera, element: gl.domElement, aiming, onPick, onAim });
  const pace = useRef({ slow: 0, quick: 0, level: 0, frames: 0, since: 0, walking: 0 });
  useFrame((state, delta) => {
    const p = pace.current;
    const seconds = state.clock.elapsedTime;
    const current = lit();
    if (current) room.update(current, seconds);
    if (walk && walk.length > 0) {
      p.walking += delta;
      const { from, to } = walked(walk, p.walking);
      camera.position.set(...from);
      camera.lookAt(...to);
      controls.current?.target.set(...to);
    } else p.walking = 0;
    const wanted = look.current;
    if (wanted && controls.current) {
      camera.position.set(...wanted.from);
      controls.current.target.set(...wanted.to);
      controls.current.update();
      look.current = null;
    }
    const target = controls.current?.target ?? new Vector3();
    now.current = { from: camera.position.toArray(), to: target.toArray() };
    p.slow = delta * 1000 > SLOW_MS * 1.08 ? p.slow + Math.min(delta, 0.3) : Math.max(0, p.slow - delta);
    p.quick = delta * 1000 < QUICK_MS ? p.quick + delta : 0;
    const level =
      p.slow > PATIENCE
        ? Math.min(GIVES_UP.length, p.level + 1)
        : p.quick > PATIENCE * 10
          ? Math.max(0, p.level - 1)
          : p.level;
    if (level !== p.level) {
      p.level = level;
      p.slow = p.quick = 0;
      room.giveUp(level);
      setHalf(level >= GIVES_UP.length);
    }
    room.draw(gl, camera);
    p.frames += 1;
    if (seconds - p.since >= 1) {
      onPace({ frames: p.frames / (seconds - p.since), level: p.level });
      p.frames = 0;
      p.since = seconds;
    }
    // The room draws itself.
  }, 1);
  return null;
}

interface Hands {
  room: StageRoom;
  camera: PerspectiveCamera;
  element: HTMLCanvasElement;
  aiming: boolean;
  onPick: RoomProps["onPick"];
  onAim: RoomProps["onAim"];
}

/** A press selects the lamp under it; while aiming, presses and drags point at the floor. Drags turn the camera. */
function useHands({ room, camera, element, aiming, onPick, onAim }: Hands): void {
  useEffect(() => {
    const ray = new Raycaster();
    const floor = new Plane(new Vector3(0, 0, 1), 0);
    const at = new Vector2();
    let pressed: { x: number; y: number } | null = null;
    const cast = (event: PointerEvent) => {
      const box = element.getBoundingClientRect();
      at.set(((event.clientX - box.left) / box.width) * 2 - 1, -((event.clientY - box.top) / box.height) * 2 + 1);
      ray.setFromCamera(at, camera);
    };
    const aim = (event: PointerEvent, join: boolean) => {
      cast(event);
      const point = ray.ray.intersectPlane(floor, new Vector3());
      if (point) onAim({ x: point.x, y: point.y }, join);
    };
    const down = (event: PointerEvent) => {
      if (event.button !== 0) return;
      pressed = { x: event.clientX, y: event.clientY };
      if (!aiming) return;
      element.setPointerCapture(event.pointerId);
      aim(event, false);
    };
    const move = (event: PointerEvent) => {
      if (pressed && aiming) aim(event, true);
    };
    const up = (event: PointerEvent) => {
      const from = pressed;
      pressed = null;
      if (!from || aiming || Math.hypot(event.clientX - from.x, event.clientY - from.y) > SAME_SPOT) return;
      cast(event);
      const hit = nearest(ray, room);
      onPick(hit, event.shiftKey || event.ctrlKey || event.metaKey);
    };
    element.addEventListener("pointerdown", down);
    element.addEventListener("pointermove", move);
    element.addEventListener("pointerup", up);
    return () => {
      element.removeEventListener("pointerdown", down);
      element.removeEventListener("pointermove", move);
      element.removeEventListener("pointerup", up);
    };
  }, [room, camera, element, aiming, onPick, onAim]);
}

/** The lamp nearest to a ray, of those it passes by less than a hand's breadth for each few metres. */
function nearest(ray: Raycaster, room: StageRoom): string | null {
  const place = new Vector3();
  let best: { id: string; along: number } | null = null;
  for (const lamp of room.lamps) {
    place.set(lamp.x, lamp.y, lamp.z);
    const along = place.clone().sub(ray.ray.origin).dot(ray.ray.direction);
    if (along <= 0) continue;
    const off = ray.ray.distanceToPoint(place);
    const reach = Math.max(lamp.size[0] * 0.75, 0.2, along * 0.012);
    if (off < reach && (!best || along < best.along)) best = { id: lamp.id, along };
  }
  return best?.id ?? null;
}
