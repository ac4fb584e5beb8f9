import { converter, formatHex } from "culori";

const toRgb = converter("rgb");

/** A chromaticity as it looks on a screen, as bright as it gets there. */
export function hexOfXy([x, y]: readonly [number, number], level: number): string {
  const { r, g, b } = toRgb({ mode: "xyz65", x: x / y, y: 1, z: (1 - x - y) / y });
  const most = Math.max(r, g, b, 1e-6);
  const lift = (v: number) => Math.min(1, Math.max(0, v / most)) * (0.25 + 0.75 * level);
  return formatHex({ mode: "rgb", r: lift(r), g: lift(g), b: lift(b) });
}
