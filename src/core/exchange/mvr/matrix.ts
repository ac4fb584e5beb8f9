/** Places and turns as matrices of MVR files (DIN SPEC 15801): three axes and an origin, millimetres, right-handed, z up. */
import { rotationOf } from "../../patch/room";
import { matrixOf } from "../gdtf/values";

interface Point {
  x: number;
  y: number;
  z: number;
}
const MM = 1000;
const DEG = 180 / Math.PI;
const text = (value: number): string => String(Math.round(value * 1e9) / 1e9 || 0);
const rowText = (row: readonly number[]): string => `{${row.map(text).join(",")}}`;

/** Axes u, v, w in metres and an origin as a file has them. */
export const matrixText = (
  u: readonly number[],
  v: readonly number[],
  w: readonly number[],
  { x, y, z }: Point,
): string => [u, v, w, [x * MM, y * MM, z * MM]].map(rowText).join("");

/** Where a fixture hangs, as a file has it. */
export function hungText(place: Point, turn: Point): string {
  const rows = rotationOf(turn);
  const column = (k: 0 | 1 | 2) => rows.map((row) => row[k]);
  return matrixText(column(0), column(1), column(2), place);
}

export interface Placed {
  place: Point;
  turn: Point;
  /** Its axes in metres, with their lengths. */
  axes: readonly [number[], number[], number[]];
}

const round = (value: number): number => Math.round(value * 1e6) / 1e6 || 0;

/** Place in metres and turn in degrees (R = Rz·Ry·Rx) of a matrix; undefined where it is none. */
export function placedBy(matrix: string): Placed | undefined {
  const rows = matrixOf(matrix)?.map((r) => r.slice(0, 3));
  if (!rows || rows.flat().some((v) => Math.abs(v) > 1e9)) return undefined;
  const [u, v, w, o] = rows as [number[], number[], number[], number[]];
  const unit = (a: number[]) => {
    const length = Math.hypot(...a);
    return length > 1e-9 ? a.map((x) => x / length) : undefined;
  };
  const [a, b, c] = [unit(u), unit(v), unit(w)];
  if (!a || !b || !c) return undefined;
  // Columns of R are the axes. r31 = -sin b.
  const y = Math.asin(Math.min(1, Math.max(-1, -a[2]!)));
  const flat = Math.abs(a[2]!) > 1 - 1e-9;
  const x = flat ? Math.atan2(-c[1]!, b[1]!) : Math.atan2(b[2]!, c[2]!);
  const z = flat ? 0 : Math.atan2(a[1]!, a[0]!);
  return {
    place: { x: round(o[0]! / MM), y: round(o[1]! / MM), z: round(o[2]! / MM) },
    turn: { x: round(x * DEG), y: round(y * DEG), z: round(z * DEG) },
    axes: [u, v, w],
  };
}

/** One matrix within another: what hangs in a group is moved along with it. */
export function together(outer: string, inner: string): string {
  const [a, b] = [matrixOf(outer), matrixOf(inner)];
  if (!a || !b) return b ? inner : outer;
  const turned = (v: number[]) => [0, 1, 2].map((k) => a[0]![k]! * v[0]! + a[1]![k]! * v[1]! + a[2]![k]! * v[2]!);
  const origin = turned(b[3]!).map((x, k) => x + a[3]![k]!);
  return [turned(b[0]!), turned(b[1]!), turned(b[2]!), origin].map((row) => `{${row.join(",")}}`).join("");
}
