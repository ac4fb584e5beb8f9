/** Mixing light of emitters: the brightest mix of a colour, or the nearest there is (SEMANTICS 1 and 10). */
import { uvOf, xyOf, xyOfXyz, xyzOf, type Uv, type Xy, type Xyz } from "./chromaticity";
import type { Emitter } from "./emitters";

export interface Mix {
  /** Of each emitter, 0..1. */
  shares: number[];
  /** How far the mix is from what was asked for, in u'v'; 0 inside the gamut. */
  off: number;
}

const ZERO = 1e-9;

/**
 * The brightest mix of a chromaticity, with every emitter from 0 to full; the nearest in u'v' where it is out of their
 * gamut. A linear programme of two equations: its best corner has all emitters but two at 0 or at full.
 * @param emitters up to 8.
 */
export function mixOf(emitters: readonly Emitter[], target: Xy): Mix {
  return brightest(emitters, target) ?? nearest(emitters, target);
}

/** How an emitter pulls a mix away from the target: both sums are 0 where the mix has its chromaticity. */
function pulls({ xy, flux }: Emitter, [x, y]: Xy): [number, number] {
  const [X, Y, Z] = xyzOf(xy, flux);
  return [X - (x / y) * Y, Z - ((1 - x - y) / y) * Y];
}

function brightest(emitters: readonly Emitter[], target: Xy): Mix | undefined {
  const pull = emitters.map((e) => pulls(e, target));
  const n = emitters.length;
  let best: { shares: number[]; light: number } | undefined;
  for (let i = 0; i < n; i++) {
    for (let j = i + 1; j < n; j++) {
      const rest = emitters.map((_, k) => k).filter((k) => k !== i && k !== j);
      const [[ci, di], [cj, dj]] = [pull[i]!, pull[j]!];
      const det = ci * dj - cj * di;
      if (Math.abs(det) < ZERO) continue;
      for (let corner = 0; corner < 1 << rest.length; corner++) {
        let [c, d] = [0, 0];
        rest.forEach((k, bit) => {
          if (corner & (1 << bit)) [c, d] = [c + pull[k]![0], d + pull[k]![1]];
        });
        const [a, b] = [(-c * dj + cj * d) / det, (-ci * d + c * di) / det];
        if (a < -ZERO || b < -ZERO || a > 1 + ZERO || b > 1 + ZERO) continue;
        const shares = emitters.map(() => 0);
        rest.forEach((k, bit) => (shares[k] = corner & (1 << bit) ? 1 : 0));
        [shares[i], shares[j]] = [Math.min(1, Math.max(0, a)), Math.min(1, Math.max(0, b))];
        const light = shares.reduce((sum, share, k) => sum + share * emitters[k]!.flux, 0);
        if (light > ZERO && (!best || light > best.light + ZERO)) best = { shares, light };
      }
    }
  }
  return best && { shares: best.shares, off: 0 };
}

/** The mix of two neighbours, or one emitter alone, that lies nearest in u'v'. */
function nearest(emitters: readonly Emitter[], target: Xy): Mix {
  const wanted = uvOf(target);
  let best: Mix = { shares: emitters.map(() => 0), off: Infinity };
  const put = (i: number, j: number, t: number, [u, v]: Uv) => {
    const off = Math.hypot(u - wanted[0], v - wanted[1]);
    if (off >= best.off - ZERO) return;
    // On a line in u'v' a share t of j weighs as X + 15Y + 3Z.
    const [wi, wj] = [(1 - t) / weight(emitters[i]!), t / weight(emitters[j]!)];
    const most = Math.max(wi, wj);
    const shares = emitters.map((_, k) => (k === i ? wi / most : k === j ? wj / most : 0));
    best = { shares, off: off < 1e-7 ? 0 : off };
  };
  for (let i = 0; i < emitters.length; i++) {
    const a = uvOf(emitters[i]!.xy);
    put(i, i, 0, a);
    for (let j = i + 1; j < emitters.length; j++) {
      const b = uvOf(emitters[j]!.xy);
      const [du, dv] = [b[0] - a[0], b[1] - a[1]];
      const length = du * du + dv * dv;
      const t =
        length < 1e-12 ? 0 : Math.min(1, Math.max(0, ((wanted[0] - a[0]) * du + (wanted[1] - a[1]) * dv) / length));
      put(i, j, t, [a[0] + du * t, a[1] + dv * t]);
    }
  }
  return best;
}

function weight({ xy, flux }: Emitter): number {
  const [X, Y, Z] = xyzOf(xy, flux);
  return X + 15 * Y + 3 * Z;
}

/** The light of a mix. @param shares 0..1. */
export function lightOf(emitters: readonly Emitter[], shares: readonly number[]): Xyz {
  return emitters.reduce<Xyz>(
    ([X, Y, Z], { xy, flux }, k) => {
      const [a, b, c] = xyzOf(xy, flux * (shares[k] ?? 0));
      return [X + a, Y + b, Z + c];
    },
    [0, 0, 0],
  );
}

/** The chromaticity of a mix; undefined for no light. */
export const chromaOf = (emitters: readonly Emitter[], shares: readonly number[]): Xy | undefined =>
  xyOfXyz(lightOf(emitters, shares));

/** The corners of what emitters can mix, anticlockwise in u'v', as xy; gift wrapping. */
export function gamutOf(emitters: readonly Emitter[]): Xy[] {
  const points = emitters.map((e) => uvOf(e.xy));
  if (points.length < 3) return points.map(xyOf);
  const start = points.reduce((low, p, k) => (p[1] < points[low]![1] ? k : low), 0);
  const hull: number[] = [];
  let at = start;
  do {
    hull.push(at);
    let next = at === 0 ? 1 : 0;
    for (let k = 0; k < points.length; k++) {
      const [a, b, c] = [points[at]!, points[next]!, points[k]!];
      if ((b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]) < 0) next = k;
    }
    at = next;
  } while (at !== start && hull.length <= points.length);
  return hull.map((k) => xyOf(points[k]!));
}
