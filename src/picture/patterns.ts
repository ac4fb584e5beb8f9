/** What beam servers project: the patterns of their first page, drawn as seen along the beam and from above. */
import { light, lightOf, aim, aimAt } from "./light";
import type { Lit } from "./lit";
import { toPixels, type Lamp, type Source, type View } from "./plan";

/** The box patterns are drawn in; they are thrown from its foot. */
export const BOX = { width: 44, height: 32, x: 22, y: 30 } as const;

const SHAPES: Record<string, string> = {
  "1 0": "M22 30 L6 4 M22 30 L38 4 M6 4 Q22 -2 38 4",
  "1 1": "M22 30 L2 10 M22 30 L10 4 M22 30 L22 1 M22 30 L34 4 M22 30 L42 10",
  "1 2": "M4 6 L40 6 M22 30 L4 6 M22 30 L40 6",
  "1 3": "M2 16 Q9 2 16 16 T30 16 T44 16",
  "1 4":
    "M22 16 m-4 0 a4 4 0 1 0 8 0 a4 4 0 1 0 -8 0 M22 16 m-9 0 a9 9 0 1 0 18 0 a9 9 0 1 0 -18 0 M22 16 m-14 0 a14 14 0 1 0 28 0 a14 14 0 1 0 -28 0",
  "1 5": "M6 5 h.1 M14 10 h.1 M24 4 h.1 M34 9 h.1 M9 18 h.1 M19 21 h.1 M29 17 h.1 M38 22 h.1 M14 28 h.1 M26 28 h.1",
};
/** A sequence goes round: which patterns it takes is the server's own. */
const SEQUENCE = "M12 16 a10 10 0 1 1 4 8 m0 0 l1 -6 m-1 6 l-6 0";

/** The name of a pattern among pictures of gobos. */
export const patternName = (page: number, content: number): string =>
  `Pattern/${SHAPES[`${page} ${content}`] ? `${page} ${content}` : "sequence"}`;
/** All of them. */
export const PATTERN_NAMES: readonly string[] = [...Object.keys(SHAPES), "sequence"].map((key) => `Pattern/${key}`);

/** The lines of a pattern in its box; undefined for what is no drawn one, a sequence. */
export const patternShape = (page: number, content: number): string | undefined => SHAPES[`${page} ${content}`];

/** A pattern as a picture file: white where light is. */
export const patternSvg = (name: string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 -6 ${BOX.width} ${BOX.width}" width="128" height="128" fill="none" stroke="#fff" stroke-width="2.4" stroke-linecap="round"><path d="${SHAPES[name.slice("Pattern/".length)] ?? SEQUENCE}"/></svg>`;

/** What a source projects now; undefined where it has no patterns or is dark. */
export function projected(
  { page, pattern, size }: Source,
  { value }: Lit,
): { page: number; pattern: number; size: number } | undefined {
  if (pattern < 0) return undefined;
  return {
    page: page >= 0 ? Math.round(value[page]!) : 1,
    pattern: Math.round(value[pattern]!),
    size: size >= 0 ? Math.min(1, Math.max(0, value[size]! / 100)) : 1,
  };
}

/** Where a pattern lies on the plan: its foot in metres, the way it is thrown (0 across, 1 along), and how far across and along its box is. */
export interface Throw {
  x: number;
  y: number;
  dx: number;
  dy: number;
  across: number;
  along: number;
}

/** A pattern is thrown along the beam; one that goes straight down lies round its lamp. @param size 0..1. */
export function throwOf(lamp: Lamp, size: number): Throw {
  aimAt(lamp, 0, 0, SPREAD);
  const [dx, dy] = [aim.x - lamp.x, aim.y - lamp.y];
  const far = Math.hypot(dx, dy);
  const across = 2 * aim.spread * size;
  if (far > across / 2) return { x: lamp.x, y: lamp.y, dx: dx / far, dy: dy / far, across, along: far };
  const along = (across * BOX.height) / BOX.width;
  return { x: aim.x, y: aim.y - along / 2, dx: 0, dy: 1, across, along };
}
/** Degrees across, at full size. */
const SPREAD = 60;

const paths = new Map<string, Path2D>();
const pathOf = (shape: string): Path2D => {
  const known = paths.get(shape) ?? new Path2D(shape);
  paths.set(shape, known);
  return known;
};

/** Draws what beam servers project, as light. */
export function drawPatterns(
  c: OffscreenCanvasRenderingContext2D,
  servers: readonly Lamp[],
  half: Lit,
  view: View,
): void {
  for (const lamp of servers)
    for (const source of lamp.sources) {
      const now = projected(source, half);
      if (!now || now.size <= 0) continue;
      lightOf(lamp, source, half);
      if (light.level <= 0.004) continue;
      const at = throwOf(lamp, now.size);
      const [x, y] = toPixels(view, at.x, at.y);
      c.save();
      c.translate(x, y);
      // Its box stands upright on its foot; on the plan upstage is up.
      c.rotate(Math.atan2(at.dx, at.dy));
      c.scale((at.across * view.scale) / BOX.width, (at.along * view.scale) / BOX.y);
      c.translate(-BOX.x, -BOX.y);
      const path = new Path2D();
      path.addPath(pathOf(patternShape(now.page, now.pattern) ?? SEQUENCE), c.getTransform());
      c.resetTransform();
      c.lineCap = "round";
      c.globalCompositeOperation = "lighter";
      c.strokeStyle = `rgb(${light.r},${light.g},${light.b})`;
      for (const [width, alpha] of STROKES) {
        c.lineWidth = width;
        c.globalAlpha = alpha * (0.25 + 0.75 * light.level);
        c.stroke(path);
      }
      c.restore();
    }
}
/** Light that glows: wide and faint, then narrow. */
const STROKES = [
  [9, 0.12],
  [5, 0.2],
  [1.8, 0.9],
] as const;
