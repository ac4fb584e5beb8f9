/** How a unit really hangs, from where it had to be steered to hit what it was meant to. */
import { angleBetween, rotationOf, type Vector } from "./room";
import type { Fixture } from "../show/schema";

/** A point steered right: the beam as the unit has it, head down and not turned, and the way to the point in the room. */
export interface Sighting {
  beam: Vector;
  to: Vector;
}

export interface Hang {
  /** Degrees about x, y and z. */
  turn: Fixture["turn"];
  /** The largest angle that is left between a beam and its point, degrees. */
  off: number;
}

const degrees = (radians: number): number => (radians * 180) / Math.PI;
const length = (v: Vector): number => Math.hypot(v[0], v[1], v[2]);
const unit = (v: Vector): Vector => {
  const size = length(v) || 1;
  return [v[0] / size, v[1] / size, v[2] / size];
};
const ROUNDS = 400;

/**
 * The turn that brings beams nearest to their points, in the least squares of their directions: Horn, "Closed-form
 * solution of absolute orientation using unit quaternions", 1987; its largest eigenvector by power iteration.
 * @param sightings at least two that do not lie in one line.
 */
export function hangOf(sightings: readonly Sighting[]): Hang {
  const s = [0, 0, 0].map(() => [0, 0, 0]);
  for (const { beam, to } of sightings) {
    const [a, b] = [unit(beam), unit(to)];
    for (let i = 0; i < 3; i++) for (let j = 0; j < 3; j++) s[i]![j]! += a[i]! * b[j]!;
  }
  const [[xx, xy, xz], [yx, yy, yz], [zx, zy, zz]] = s as unknown as [Vector, Vector, Vector];
  const n = [
    [xx + yy + zz, yz - zy, zx - xz, xy - yx],
    [yz - zy, xx - yy - zz, xy + yx, zx + xz],
    [zx - xz, xy + yx, -xx + yy - zz, yz + zy],
    [xy - yx, zx + xz, yz + zy, -xx - yy + zz],
  ];
  // All eigenvalues are lifted above 0, so that the largest is the largest in size.
  const lift = sightings.length;
  let q = [1, 0.1, 0.2, 0.3];
  for (let round = 0; round < ROUNDS; round++) {
    const next = n.map((row, i) => row.reduce((sum, v, j) => sum + v * q[j]!, lift * q[i]!));
    const size = Math.hypot(...next) || 1;
    q = next.map((v) => v / size);
  }
  const [w, x, y, z] = q as [number, number, number, number];
  const r = [
    [1 - 2 * (y * y + z * z), 2 * (x * y - w * z), 2 * (x * z + w * y)],
    [2 * (x * y + w * z), 1 - 2 * (x * x + z * z), 2 * (y * z - w * x)],
    [2 * (x * z - w * y), 2 * (y * z + w * x), 1 - 2 * (x * x + y * y)],
  ] as const;
  // R = Rz Ry Rx (SEMANTICS 10).
  const turn = {
    x: degrees(Math.atan2(r[2][1], r[2][2])),
    y: degrees(Math.asin(Math.min(1, Math.max(-1, -r[2][0])))),
    z: degrees(Math.atan2(r[1][0], r[0][0])),
  };
  const rows = rotationOf(turn);
  const turned = (v: Vector): Vector =>
    [0, 1, 2].map((i) => rows[i]![0] * v[0] + rows[i]![1] * v[1] + rows[i]![2] * v[2]) as unknown as Vector;
  return { turn, off: Math.max(0, ...sightings.map(({ beam, to }) => angleBetween(turned(unit(beam)), unit(to)))) };
}
