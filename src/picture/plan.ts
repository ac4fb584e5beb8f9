/** The rig as the painter needs it: lamps with places, signs and the parameters that light them; and how it lies on a picture. */
import type { Logs } from "@/core/colour/filter";
import type { Kind } from "@/core/fixture/type";
import type { rotationOf } from "@/core/patch/room";

/** A light source: the whole of a fixture, or one of its cells. */
export interface Source {
  x: number;
  y: number;
  /** Parameter indices, -1 for none. */
  dimmer: number;
  shutter: number;
  /** Emitters: parameter and the linear sRGB it adds. */
  emitters: [param: number, r: number, g: number, b: number][];
  /** Cyan, magenta, yellow filters. */
  filters: number[];
  /** What each of them lets through. */
  logs: Logs;
  /** Colour wheel and the linear sRGB of its slots; the first slot at index 0. */
  wheel: number;
  slots: [number, number, number][];
  hue: number;
  /** What a beam server projects: its page, pattern and size. */
  page: number;
  pattern: number;
  size: number;
}

export interface Lamp {
  id: string;
  number: number;
  /** Out of service: it gives no light. */
  away: boolean;
  kind: Kind;
  x: number;
  y: number;
  z: number;
  /** Rows of the rotation it hangs by. */
  hung: ReturnType<typeof rotationOf>;
  dimmer: number;
  pan: number;
  tilt: number;
  zoom: number;
  sources: Source[];
}

/** From metres to pixels: px = ox + x * scale, py = oy - y * scale. */
export interface View {
  scale: number;
  ox: number;
  oy: number;
}

/** Pixels for a metre at least: a stadium still fits. */
const SMALLEST = 0.5;
/** The view that fits all lamps, with room around them for signs and numbers. @param margin pixels. */
export function fitView(lamps: readonly { x: number; y: number }[], width: number, height: number, margin = 42): View {
  const xs = lamps.map((l) => l.x);
  const ys = lamps.map((l) => l.y);
  const [left, right, front, back] = lamps.length
    ? [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)]
    : [-6, 6, -1, 8];
  const scale = Math.max(
    SMALLEST,
    Math.min((width - 2 * margin) / Math.max(right - left, 4), (height - 2 * margin) / Math.max(back - front, 4), 90),
  );
  return { scale, ox: width / 2 - ((left + right) / 2) * scale, oy: height / 2 + ((front + back) / 2) * scale };
}

/** Pixels at the foot of the stage where its tools lie. */
const TOOLS_HEIGHT = 26;

/** The view of a stage with tools at its foot: no lamp is fitted below them. */
export const fitStage = (lamps: readonly { x: number; y: number }[], width: number, height: number): View =>
  fitView(lamps, width, height - TOOLS_HEIGHT);

/** Where a point of the picture is in the room, metres. */
export const toMetres = (view: View, x: number, y: number): { x: number; y: number } => ({
  x: (x - view.ox) / view.scale,
  y: (view.oy - y) / view.scale,
});

export const toPixels = (view: View, x: number, y: number): [number, number] => [
  view.ox + x * view.scale,
  view.oy - y * view.scale,
];
