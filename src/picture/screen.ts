/** Light as a screen shows it. */
import { xyzOf } from "@/core/colour/chromaticity";
import { EMITTERS, type Emitter } from "@/core/colour/emitters";

/** Linear sRGB, a white emitter at full being 1 1 1: what lies outside of a screen's colours is negative. IEC 61966-2-1. */
export function screenRgb({ xy, flux }: Emitter): [number, number, number] {
  const [X, Y, Z] = xyzOf(xy, flux / EMITTERS.ColorAdd_W!.flux);
  return [
    3.2404542 * X - 1.5371385 * Y - 0.4985314 * Z,
    -0.969266 * X + 1.8760108 * Y + 0.041556 * Z,
    0.0556434 * X - 0.2040259 * Y + 1.0572252 * Z,
  ];
}
