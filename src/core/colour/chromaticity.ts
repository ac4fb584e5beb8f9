/** Chromaticities: CIE 1931 xy, CIE 1976 u'v', colour temperatures, and what is a colour at all (SEMANTICS 10). */
import { converter } from "culori";

/** CIE 1931 x and y. */
export type Xy = readonly [x: number, y: number];
/** CIE 1976 u' and v'. */
export type Uv = readonly [u: number, v: number];
/** CIE 1931 X, Y and Z; Y is a luminance in any unit. */
export type Xyz = readonly [X: number, Y: number, Z: number];

/** u' = 4x / (-2x + 12y + 3), v' = 9y / (-2x + 12y + 3) (CIE 15). */
export function uvOf([x, y]: Xy): Uv {
  const d = -2 * x + 12 * y + 3;
  return [(4 * x) / d, (9 * y) / d];
}

/** x = 9u' / (6u' - 16v' + 12), y = 4v' / (6u' - 16v' + 12) (CIE 15). */
export function xyOf([u, v]: Uv): Xy {
  const d = 6 * u - 16 * v + 12;
  return [(9 * u) / d, (4 * v) / d];
}

/** How far two colours are apart in u'v'. */
export function apart(a: Xy, b: Xy): number {
  const [ua, va] = uvOf(a);
  const [ub, vb] = uvOf(b);
  return Math.hypot(ua - ub, va - vb);
}

/** Tristimulus values of a chromaticity at a luminance. */
export const xyzOf = ([x, y]: Xy, luminance: number): Xyz => [
  (x / y) * luminance,
  luminance,
  ((1 - x - y) / y) * luminance,
];

/** The chromaticity of tristimulus values; undefined for no light. */
export function xyOfXyz([X, Y, Z]: Xyz): Xy | undefined {
  const sum = X + Y + Z;
  return sum < 1e-12 ? undefined : [X / sum, Y / sum];
}

const toXyz = converter("xyz65");

/** The chromaticity of an sRGB colour; of black, that of white. @param hex `#rrggbb`. */
export function xyOfHex(hex: string): Xy {
  const { x, y, z } = toXyz(hex)!;
  return xyOfXyz([x, y, z]) ?? [0.3127, 0.329];
}

export const COLDEST = 1000;
export const HOTTEST = 20_000;
const PLANCK_TO = 4000;
const DAYLIGHT_FROM = 5000;

/**
 * The Planckian locus in u'v': M. Krystek, "An algorithm to calculate correlated colour temperature",
 * Color Research and Application 10 (1985), within 0.0001 from 1,000 to 15,000 K; v' = 1.5 v.
 */
function planck(T: number): Uv {
  const u = (0.860117757 + 1.54118254e-4 * T + 1.28641212e-7 * T * T) / (1 + 8.42420235e-4 * T + 7.08145163e-7 * T * T);
  const v = (0.317398726 + 4.22806245e-5 * T + 4.20481691e-8 * T * T) / (1 - 2.89741816e-5 * T + 1.61456053e-7 * T * T);
  return [u, 1.5 * v];
}

/** The CIE daylight locus from 4,000 to 25,000 K (CIE 15, the D series). */
function daylight(T: number): Xy {
  const x =
    T <= 7000
      ? -4.607e9 / T ** 3 + 2.9678e6 / T ** 2 + 99.11 / T + 0.244063
      : -2.0064e9 / T ** 3 + 1.9018e6 / T ** 2 + 247.48 / T + 0.23704;
  return [x, -3 * x * x + 2.87 * x - 0.275];
}

/**
 * White of a colour temperature: Planckian up to 4,000 K, daylight from 5,000 K, between them both at that temperature,
 * mixed in u'v' (SEMANTICS 10).
 * @param kelvin 1,000 to 20,000.
 */
export function xyOfKelvin(kelvin: number): Xy {
  if (kelvin <= PLANCK_TO) return xyOf(planck(kelvin));
  if (kelvin >= DAYLIGHT_FROM) return daylight(kelvin);
  const share = (kelvin - PLANCK_TO) / (DAYLIGHT_FROM - PLANCK_TO);
  const [pu, pv] = planck(kelvin);
  const [du, dv] = uvOf(daylight(kelvin));
  return xyOf([pu + (du - pu) * share, pv + (dv - pv) * share]);
}

/**
 * The white of the locus nearest to a chromaticity, in u'v'.
 * @returns kelvin, 1,000 to 20,000, whole; how far it is off, u'v'.
 */
export function kelvinNear(xy: Xy): { kelvin: number; off: number } {
  // In mired steps are about alike to the eye; near its least, the distance falls and rises once.
  const off = (mired: number) => apart(xyOfKelvin(1e6 / mired), xy);
  const [first, last] = [1e6 / HOTTEST, 1e6 / COLDEST];
  const step = (last - first) / NEAR_STEPS;
  let best = first;
  for (let k = 1; k <= NEAR_STEPS; k++) if (off(first + k * step) < off(best)) best = first + k * step;
  let [low, high] = [Math.max(first, best - step), Math.min(last, best + step)];
  while (high - low > NEAR_MIRED) {
    const third = (high - low) / 3;
    if (off(low + third) < off(high - third)) high -= third;
    else low += third;
  }
  const kelvin = Math.round(1e6 / ((low + high) / 2));
  return { kelvin, off: apart(xyOfKelvin(kelvin), xy) };
}
const NEAR_STEPS = 40;
const NEAR_MIRED = 0.01;

/** The spectral locus from 380 to 700 nm, CIE 1931 2 degree observer (CIE 15, table of chromaticity coordinates). */
const SPECTRUM: readonly Xy[] = [
  [0.1741, 0.005],
  [0.1733, 0.0048],
  [0.1714, 0.0051],
  [0.1689, 0.0069],
  [0.1644, 0.0109],
  [0.1566, 0.0177],
  [0.144, 0.0297],
  [0.1355, 0.0399],
  [0.1241, 0.0578],
  [0.1096, 0.0868],
  [0.0913, 0.1327],
  [0.0687, 0.2007],
  [0.0454, 0.295],
  [0.0235, 0.4127],
  [0.0082, 0.5384],
  [0.0039, 0.6548],
  [0.0139, 0.7502],
  [0.0389, 0.812],
  [0.0743, 0.8338],
  [0.1142, 0.8262],
  [0.1547, 0.8059],
  [0.1929, 0.7816],
  [0.2296, 0.7543],
  [0.2658, 0.7243],
  [0.3016, 0.6923],
  [0.3373, 0.6589],
  [0.3731, 0.6245],
  [0.4087, 0.5896],
  [0.4441, 0.5547],
  [0.4788, 0.5202],
  [0.5125, 0.4866],
  [0.5448, 0.4544],
  [0.5752, 0.4242],
  [0.6029, 0.3965],
  [0.627, 0.3725],
  [0.6482, 0.3514],
  [0.6658, 0.334],
  [0.6801, 0.3197],
  [0.6915, 0.3083],
  [0.7079, 0.292],
  [0.719, 0.2809],
  [0.726, 0.274],
  [0.73, 0.27],
  [0.7347, 0.2653],
];

/** The tables are rounded, and lamps are measured: so much towards white still counts as on the outline. */
const TOLERANCE = 0.005;

/** Whether a chromaticity is one of a light: within the spectral locus and the line of purples. */
export function isColour(xy: Xy): boolean {
  const [x, y] = xy.map((v, i) => v + ([0.3127, 0.329][i]! - v) * TOLERANCE) as [number, number];
  let inside = false;
  for (let i = 0, j = SPECTRUM.length - 1; i < SPECTRUM.length; j = i++) {
    const [xi, yi] = SPECTRUM[i]!;
    const [xj, yj] = SPECTRUM[j]!;
    if (yi > y !== yj > y && x < ((xj - xi) * (y - yi)) / (yj - yi) + xi) inside = !inside;
  }
  return inside;
}

/** The outline of all colours, for pictures. */
export const spectralLocus = (): readonly Xy[] => SPECTRUM;
