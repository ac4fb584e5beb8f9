/** Where the numbers of lamps stand, and what stays free beside them. */
import { createRoom, type LabelRoom } from "./labelRoom";
import { toPixels, type Lamp, type View } from "./plan";

/** A number beside its lamp: its middle, pixels, and where that is from the lamp. */
export interface Label {
  text: string;
  x: number;
  y: number;
  dx: number;
  dy: number;
}

export interface Labels {
  /** By lamp; one that finds no room has none. */
  of: ReadonlyMap<string, Label>;
  /** Signs and numbers have taken theirs. */
  room: LabelRoom;
}

/** With more lamps than this, every number stands above its lamp, or nowhere: a dense block is quiet. */
const MANY = 600;
/** A digit, pixels. */
export const DIGIT = 6.2;

/** Half the size of a sign, in pixels; small where a metre is, so that a dense block shows each of its lamps. */
export const signSize = (view: View): number => Math.round(Math.max(2.5, Math.min(8.5, view.scale * 0.28)) * 2) / 2;

/** Half the width and height of what stands for a lamp, pixels. */
function halfOf(lamp: Lamp, view: View): [number, number] {
  const size = signSize(view);
  return lamp.kind === "bar" ? [Math.max(2.5, view.scale * 0.1) * 6, Math.max(6, view.scale * 0.26) / 2] : [size, size];
}

/** Signs keep their room; a number that finds none beside them is left out. */
export function placeLabels(lamps: readonly Lamp[], view: View, width: number, height: number): Labels {
  const room = createRoom(width, height);
  const few = lamps.length <= MANY;
  for (const lamp of lamps) {
    const [x, y] = toPixels(view, lamp.x, lamp.y);
    const [half, tall] = halfOf(lamp, view);
    room.take(x - half + 0.5, y - tall + 0.5, 2 * half - 1, 2 * tall - 1);
  }
  const of = new Map<string, Label>();
  for (const lamp of lamps) {
    const [px, py] = toPixels(view, lamp.x, lamp.y);
    const text = String(lamp.number);
    const wide = DIGIT * text.length;
    for (const [dx, dy] of few ? sidesOf(lamps, lamp, view) : [ABOVE]) {
      const [x, y] = [px + dx, py + dy];
      if (!room.has(x - wide / 2, y - 4, wide, 8)) continue;
      of.set(lamp.id, { text, x, y, dx, dy });
      break;
    }
  }
  return { of, room };
}

const ABOVE: [number, number] = [0, -15];
/** Its own side first, then the one over against it, then any. */
function sidesOf(lamps: readonly Lamp[], lamp: Lamp, view: View): [number, number][] {
  const [dx, dy] = labelSide(lamps, lamp, view);
  return [[dx, dy], [-dx, -dy], ABOVE, [0, 15], [20, 0], [-20, 0]];
}

/** Where a lamp's number has room: above, below, or outwards where a neighbour is in the way. */
function labelSide(lamps: readonly Lamp[], lamp: Lamp, view: View): [number, number] {
  if (lamp.kind === "bar" || lamp.y < 0) return [0, 15];
  const near = (up: number) =>
    lamps.some(
      (other) =>
        other !== lamp &&
        Math.abs(other.x - lamp.x) * view.scale < 16 &&
        (other.y - lamp.y) * up * view.scale > 0 &&
        (other.y - lamp.y) * up * view.scale < 44,
    );
  const beside = lamps.some(
    (other) =>
      other !== lamp && Math.abs(other.y - lamp.y) * view.scale < 12 && Math.abs(other.x - lamp.x) * view.scale < 40,
  );
  if (!near(1) || beside) return [0, -15];
  return near(-1) || lamp.x !== 0 ? [lamp.x < 0 ? -20 : 20, 0] : [0, 15];
}

/** A box beside a lamp: left, top, its size. */
export interface Beside {
  left: number;
  top: number;
}

/**
 * Room for a box of so many pixels beside a lamp, on the side its number is not on where that is free.
 * @param away from the lamp's sign to the edge of the box. @param spare pixels around it that stay free of others.
 * @returns its corner; undefined where no side is free.
 */
export function besideLamp(
  { of, room }: Labels,
  lamp: Lamp,
  view: View,
  { wide, tall, away, spare }: { wide: number; tall: number; away: number; spare: number },
): Beside | undefined {
  const [x, y] = toPixels(view, lamp.x, lamp.y);
  const label = of.get(lamp.id);
  const [half, high] = halfOf(lamp, view);
  const below = { left: x - wide / 2, top: y + high + away };
  const over = { left: x - wide / 2, top: y - high - away - tall };
  const right = { left: x + half + away, top: y - tall / 2 };
  const left = { left: x - half - away - wide, top: y - tall / 2 };
  const corner = { left: x + half + away - 6, top: y - high - away - tall + 6 };
  const sides = !label
    ? [over, below, right, left]
    : label.dx > 0
      ? [left, below, over]
      : label.dx < 0
        ? [right, below, over]
        : label.dy < 0
          ? [below, right, left]
          : [over, right, left];
  return [...sides, corner].find((s) => room.has(s.left - spare, s.top - spare, wide + 2 * spare, tall + 2 * spare));
}
