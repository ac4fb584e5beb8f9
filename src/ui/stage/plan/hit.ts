/** Which lamps a pointer means. */
import type { Show } from "@/core/show/schema";
import { fixturesByNumber } from "@/core/show/world";
import { toPixels, type Lamp, type View } from "@/picture/plan";

/** A lamp as a pointer finds it. */
export type Spot = Pick<Lamp, "id" | "number" | "kind" | "x" | "y">;

/** A drag, from its start to where it is. */
export interface Box {
  x1: number;
  y1: number;
  x2: number;
  y2: number;
}

/** The lamps of a show as pointers find them, by number. */
export const spotsOf = (show: Show): Spot[] =>
  fixturesByNumber(show).map(({ id, number, type, place: { x, y } }) => ({
    id,
    number,
    kind: show.types[type]!.kind,
    x,
    y,
  }));

const REACH = 16;
/** On a lamp rather than near it. */
export const ON_IT = 10;
const HALF_BAR = 0.6;

/** The lamp under a point: the nearest within reach; a bar is as long as its cells. */
export function lampAt(lamps: readonly Spot[], view: View, x: number, y: number, reach = REACH): Spot | undefined {
  let best: Spot | undefined;
  let nearest = reach;
  for (const lamp of lamps) {
    const [px, py] = toPixels(view, lamp.x, lamp.y);
    const along = lamp.kind === "bar" ? Math.max(0, Math.abs(x - px) - HALF_BAR * view.scale) : x - px;
    const distance = Math.hypot(along, y - py);
    if (distance < nearest) [nearest, best] = [distance, lamp];
  }
  return best;
}

/** Lamps in an area, in the direction it was dragged; equal places by number. */
export function inside(lamps: readonly Spot[], view: View, { x1, y1, x2, y2 }: Box): Spot[] {
  const [left, right, top, bottom] = [Math.min(x1, x2), Math.max(x1, x2), Math.min(y1, y2), Math.max(y1, y2)];
  const across = right - left >= bottom - top;
  const along = (x: number, y: number) => (across ? x * Math.sign(x2 - x1) : y * Math.sign(y2 - y1));
  return lamps
    .map((lamp) => ({ lamp, at: toPixels(view, lamp.x, lamp.y) }))
    .filter(({ at: [x, y] }) => x >= left && x <= right && y >= top && y <= bottom)
    .map(({ lamp, at: [x, y] }) => ({ lamp, key: Math.round(along(x, y)) }))
    .sort((a, b) => a.key - b.key || a.lamp.number - b.lamp.number)
    .map(({ lamp }) => lamp);
}

/** Lamps within a line drawn around them, by number. @param loop points of the picture. */
export function within(lamps: readonly Spot[], view: View, loop: readonly { x: number; y: number }[]): Spot[] {
  const inLoop = (x: number, y: number): boolean => {
    let found = false;
    for (let i = 0, j = loop.length - 1; i < loop.length; j = i++) {
      const [a, b] = [loop[i]!, loop[j]!];
      if (a.y > y !== b.y > y && x < ((b.x - a.x) * (y - a.y)) / (b.y - a.y) + a.x) found = !found;
    }
    return found;
  };
  return lamps.filter((lamp) => inLoop(...toPixels(view, lamp.x, lamp.y))).sort((a, b) => a.number - b.number);
}

/**
 * The selection after a line was drawn from lamp to lamp. From a selected lamp it puts the selected ones it
 * passes first, in that order; from another it selects what it passes; with `add` that is added at the end.
 */
export function drawn(selection: readonly string[], path: readonly string[], add: boolean): string[] {
  if (add) return [...selection.filter((i) => !path.includes(i)), ...path];
  if (!selection.includes(path[0]!)) return [...path];
  const passed = path.filter((i) => selection.includes(i));
  return [...passed, ...selection.filter((i) => !passed.includes(i))];
}
