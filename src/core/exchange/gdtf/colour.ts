/** Colours of wheel slots between files and screens. */
import { converter, formatHex } from "culori";
import { xyOfHex } from "../../colour/chromaticity";

const toRgb = converter("rgb");
const toXyz = converter("xyz65");

/** A chromaticity and its luminance, 0..100, as #rrggbb; what lies outside of a screen's colours is drawn in. */
export function convertXyzToHex([x, y]: readonly [number, number], Y: number): string {
  const level = Math.min(1, Math.max(0, Y / 100));
  const { r, g, b } = toRgb({ mode: "xyz65", x: (x / y) * level, y: level, z: ((1 - x - y) / y) * level });
  const part = (v: number) => Math.min(1, Math.max(0, v));
  return formatHex({ mode: "rgb", r: part(r), g: part(g), b: part(b) });
}

/** #rrggbb as "x,y,Y". */
export function colourText(hex: string): string {
  const [x, y] = xyOfHex(hex);
  const { y: Y } = toXyz(hex)!;
  return [x, y, Y * 100].map((v) => v.toFixed(6)).join(",");
}
