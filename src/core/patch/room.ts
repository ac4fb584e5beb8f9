/**
 * The room (SEMANTICS 10): where a beam goes, and which pan and tilt send it through a point. Metres,
 * x to stage left, y upstage, z up; degrees. Meant values: swap, hang correction and invert come later.
 */
import type { Fixture } from "../show/schema";

export type Vector = readonly [x: number, y: number, z: number];
export type Range = readonly [low: number, high: number];
type Hung = Pick<Fixture, "place" | "turn">;

const RAD = Math.PI / 180;

/** The rows of R = Rz·Ry·Rx, right-handed, for a turn in degrees about x, y and z. */
export function rotationOf({ x, y, z }: Fixture["turn"]): readonly [Vector, Vector, Vector] {
  const [a, b, c] = [x * RAD, y * RAD, z * RAD];
  const [sa, ca, sb, cb, sc, cc] = [Math.sin(a), Math.cos(a), Math.sin(b), Math.cos(b), Math.sin(c), Math.cos(c)];
  return [
    [cc * cb, cc * sb * sa - sc * ca, cc * sb * ca + sc * sa],
    [sc * cb, sc * sb * sa + cc * ca, sc * sb * ca - cc * sa],
    [-sb, cb * sa, cb * ca],
  ];
}

const dot = (a: Vector, b: Vector): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];

/** The direction, unhung, of a beam at pan and tilt in degrees: straight down at 0, 0. */
function beamAt(pan: number, tilt: number): Vector {
  const [p, t] = [pan * RAD, tilt * RAD];
  return [Math.sin(p) * Math.sin(t), -Math.cos(p) * Math.sin(t), -Math.cos(t)];
}

/** The direction in the room, of length 1, of a hung fixture's beam at pan and tilt in degrees. */
export function beamOf({ turn }: Pick<Hung, "turn">, pan: number, tilt: number): Vector {
  const rows = rotationOf(turn);
  const beam = beamAt(pan, tilt);
  return [dot(rows[0], beam), dot(rows[1], beam), dot(rows[2], beam)];
}

/** The angle between two directions, degrees; exact for small ones. */
export function angleBetween(a: Vector, b: Vector): number {
  const cross = [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]];
  return Math.atan2(Math.hypot(...cross), dot(a, b)) / RAD;
}

export interface Aimed {
  pan: number;
  tilt: number;
  /** Degrees between the beam and the point: 0 in reach. */
  off: number;
}

/** Angles nearer than this are the same, degrees: far below a hair at any distance. */
const SAME = 1e-6;

/** `angle` and its whole turns within a range. */
function turnsWithin(angle: number, [low, high]: Range): number[] {
  const found: number[] = [];
  for (let k = Math.ceil((low - SAME - angle) / 360); angle + k * 360 <= high + SAME; k++)
    found.push(Math.min(high, Math.max(low, angle + k * 360)));
  return found;
}

/**
 * Pan and tilt of a hung fixture whose beam passes through a point, within the ranges of its type; where none
 * does, those nearest to it. Of several the one with the smallest |pan|, at equal |pan| the one with tilt above 0.
 * @param flip takes the best of the other way round, where there is one, out of reach too.
 */
export function aimAt(hung: Hung, point: Vector, pan: Range, tilt: Range, flip = false): Aimed {
  const { place, turn } = hung;
  const rows = rotationOf(turn);
  const away: Vector = [point[0] - place.x, point[1] - place.y, point[2] - place.z];
  const length = Math.hypot(...away);
  // R is orthogonal: its columns take the room back to the unhung fixture.
  const seen = [0, 1, 2].map((i) =>
    length > 0 ? (rows[0][i]! * away[0] + rows[1][i]! * away[1] + rows[2][i]! * away[2]) / length : i === 2 ? -1 : 0,
  ) as unknown as Vector;
  const across = Math.hypot(seen[0], seen[1]);
  const facing = across < 1e-9 ? 0 : Math.atan2(seen[0], -seen[1]) / RAD;
  const pans = [...turnsWithin(facing, pan), ...turnsWithin(facing + 180, pan), pan[0], pan[1]];
  if (across < 1e-9 && pan[0] <= 0 && pan[1] >= 0) pans.push(0);
  const found = pans.flatMap((p) => {
    // In the plane of this pan the best tilt leans as far as the point does.
    const best = Math.atan2(seen[0] * Math.sin(p * RAD) - seen[1] * Math.cos(p * RAD), -seen[2]) / RAD;
    return [...turnsWithin(best, tilt), tilt[0], tilt[1]].map((t): Aimed => ({
      pan: p,
      tilt: t,
      off: angleBetween(beamAt(p, t), seen),
    }));
  });
  const least = Math.min(...found.map((a) => a.off));
  const best = nearest(found)!;
  if (!flip) return best;
  const other = nearest(found.filter((a) => Math.sign(a.tilt) === -Math.sign(best.tilt)));
  // A point that is reached one way alone is reached that way.
  return other && (other.off === 0 || least >= SAME) ? other : best;
}

/** Of those whose beam is nearest to the point, the best; undefined for none. */
function nearest(found: readonly Aimed[]): Aimed | undefined {
  const least = Math.min(...found.map((a) => a.off));
  return found
    .filter((a) => a.off < least + SAME)
    .map((a) => (a.off < SAME ? { ...a, off: 0 } : a))
    .reduce<Aimed | undefined>((a, b) => (!a || isBetter(b, a) ? b : a), undefined);
}

/** Smaller |pan|, then tilt above 0, then the smaller tilt, then the positive pan. */
function isBetter(a: Aimed, b: Aimed): boolean {
  const far = Math.abs(a.pan) - Math.abs(b.pan);
  if (Math.abs(far) > SAME) return far < 0;
  if (a.tilt > 0 !== b.tilt > 0) return a.tilt > 0;
  const lean = Math.abs(a.tilt) - Math.abs(b.tilt);
  if (Math.abs(lean) > SAME) return lean < 0;
  return a.pan > b.pan;
}
