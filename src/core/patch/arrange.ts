/** Places for several fixtures at once: rows, arcs, circles, grids, and putting what hangs already in line. */
import type { Fixture } from "../show/schema";

export type Place = Fixture["place"];
type Axis = "x" | "y" | "z";

const tidy = (v: number): number => Math.round(v * 1000) / 1000 + 0;
const share = (k: number, n: number): number => (n < 2 ? 0.5 : k / (n - 1));

/** Evenly along a line, both ends taken; one alone goes to the middle. Heights are kept. */
export function inRow(places: readonly Place[], from: { x: number; y: number }, to: { x: number; y: number }): Place[] {
  return places.map(({ z }, k) => {
    const t = share(k, places.length);
    return { x: tidy(from.x + (to.x - from.x) * t), y: tidy(from.y + (to.y - from.y) * t), z };
  });
}

/**
 * Along an arc from one angle to another, both ends taken.
 * @param radius metres. @param start, end degrees clockwise from upstage.
 */
export function inArc(
  places: readonly Place[],
  centre: { x: number; y: number },
  radius: number,
  start: number,
  end: number,
): Place[] {
  return places.map(({ z }, k) => around(centre, radius, start + (end - start) * share(k, places.length), z));
}

/** Around a whole circle, without a doubled point; the first upstage. */
export const inCircle = (places: readonly Place[], centre: { x: number; y: number }, radius: number): Place[] =>
  places.map(({ z }, k) => around(centre, radius, (360 * k) / Math.max(1, places.length), z));

function around(centre: { x: number; y: number }, radius: number, degrees: number, z: number): Place {
  const a = (degrees * Math.PI) / 180;
  return { x: tidy(centre.x + radius * Math.sin(a)), y: tidy(centre.y + radius * Math.cos(a)), z };
}

/** Row by row from upstage left of the picture, centred. @param apart metres between neighbours. */
export function inGrid(
  places: readonly Place[],
  centre: { x: number; y: number },
  columns: number,
  apart: number,
): Place[] {
  const rows = Math.ceil(places.length / columns);
  return places.map(({ z }, k) => ({
    x: tidy(centre.x + ((k % columns) - (Math.min(columns, places.length) - 1) / 2) * apart),
    y: tidy(centre.y + ((rows - 1) / 2 - Math.floor(k / columns)) * apart),
    z,
  }));
}

/** All at the mean of an axis. */
export function aligned(places: readonly Place[], axis: Axis): Place[] {
  const mean = tidy(places.reduce((sum, p) => sum + p[axis], 0) / Math.max(1, places.length));
  return places.map((p) => ({ ...p, [axis]: mean }));
}

/** Equal distances along an axis between the two outermost, which stay; the order along it is kept. */
export function distributed(places: readonly Place[], axis: Axis): Place[] {
  const order = places.map((_, k) => k).sort((a, b) => places[a]![axis] - places[b]![axis] || a - b);
  const [low, high] = [places[order[0]!]?.[axis] ?? 0, places[order.at(-1)!]?.[axis] ?? 0];
  const made = places.map((p) => ({ ...p }));
  order.forEach((k, i) => (made[k]![axis] = tidy(low + (high - low) * share(i, order.length))));
  return made;
}
