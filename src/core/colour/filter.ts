/** Taking light away with cyan, magenta and yellow: the source as three bands (SEMANTICS 10, "Filters"). */
import { apart, type Xy, type Xyz } from "./chromaticity";
import { EMITTERS, FILTERS, PRIMARIES, SOURCE, type Emitter } from "./emitters";
import { chromaOf, lightOf, type Mix } from "./mix";

type Three = [number, number, number];

/** How much of each primary makes a chromaticity, the largest 1; negative where it lies outside of them. */
function bandsOf(bands: readonly Emitter[], target: Xy): Three {
  const [a, b, c] = bands.map(({ xy: [x, y], flux }): Three => [(x / y) * flux, flux, ((1 - x - y) / y) * flux]) as [
    Three,
    Three,
    Three,
  ];
  const [x, y] = target;
  const made = solve([a, b, c], [x / y, 1, (1 - x - y) / y]);
  const most = Math.max(...made);
  return made.map((v) => v / most) as Three;
}

/** Shares s with s0 a + s1 b + s2 c = d, by Cramer's rule. */
function solve([a, b, c]: readonly [Three, Three, Three], d: Three): Three {
  const det = (p: Three, q: Three, r: Three) =>
    p[0] * (q[1] * r[2] - q[2] * r[1]) - q[0] * (p[1] * r[2] - p[2] * r[1]) + r[0] * (p[1] * q[2] - p[2] * q[1]);
  const all = det(a, b, c);
  return [det(d, b, c) / all, det(a, d, c) / all, det(a, b, d) / all];
}

const PRIMARY = PRIMARIES.map((name) => EMITTERS[name]!);
/** The three bands of the source's white. */
const BANDS: readonly Emitter[] = bandsOf(PRIMARY, SOURCE.xy).map((share, k) => ({
  xy: PRIMARY[k]!.xy,
  flux: PRIMARY[k]!.flux * share,
}));
/** The attributes of the three filters, in the order they are asked for. */
export const FILTER_NAMES = ["ColorSub_C", "ColorSub_M", "ColorSub_Y"] as const;
/** Of a band at least so much is let through: a measured filter may lie outside of what the bands make. */
const LEAST = 1e-3;
/** Logarithm of what each full filter lets through of each band. */
const logsOf = (leaves: readonly Xy[]): Logs =>
  leaves.map((xy) => bandsOf(BANDS, xy).map((v) => Math.log(Math.max(LEAST, v))) as Three);
/** By filter (cyan, magenta, yellow) and band (red, green, blue): the logarithm of what it lets through at full. */
export type Logs = readonly Readonly<Three>[];
/** Of the filters of our table. */
const LOGS: Logs = logsOf(FILTER_NAMES.map((name) => FILTERS[name]!));

const measured = new Map<string, Logs>();

/** The filters of a type: as they were measured, our table's where they were not. @param own cyan, magenta, yellow. */
export function logsOfFilters(own: readonly ({ through?: Xy | undefined } | undefined)[]): Logs {
  if (!own.some((fn) => fn?.through)) return LOGS;
  const leaves = FILTER_NAMES.map((name, k) => own[k]?.through ?? FILTERS[name]!);
  const key = leaves.join(" ");
  const known = measured.get(key) ?? logsOf(leaves);
  if (measured.size > 500) measured.clear();
  measured.set(key, known);
  return known;
}

/** The three bands of the source, red, green and blue. */
export const SOURCE_BANDS: readonly Emitter[] = BANDS;

/** What filters leave of the three bands. @param shares cyan, magenta, yellow, 0..1. */
const through = (shares: Readonly<Three>, logs: Logs): Three =>
  [0, 1, 2].map((band) => Math.exp(shares.reduce((sum, v, k) => sum + v * logs[k]![band]!, 0))) as Three;

/** The light filters leave of the source. @param shares cyan, magenta, yellow, 0..1. */
export const lightThrough = (shares: Readonly<Three>, logs = LOGS): Xyz => lightOf(BANDS, through(shares, logs));

/** The chromaticity filters leave of the source. @param shares cyan, magenta, yellow, 0..1. */
export const filtered = (shares: Readonly<Three>, logs = LOGS): Xy => chromaOf(BANDS, through(shares, logs))!;

/**
 * Filters for a chromaticity: cyan, magenta, yellow, 0..1; the nearest where it is out of their gamut.
 * @param level luminance beside the greatest there, 0..1; as dark as they can where that is less than they let go.
 */
export function filtersFor(target: Xy, level = 1, filters = LOGS): Mix {
  const wanted = bandsOf(BANDS, target);
  if (wanted.every((v) => v > 1e-9)) {
    // v0 + k v1 filters give the wanted bands at e^k of their light: the brightest has one filter out.
    const logs = wanted.map(Math.log) as Three;
    const [c, m, y] = filters.map((of): Three => [...of]) as [Three, Three, Three];
    const v0 = solve([c, m, y], logs);
    const v1 = solve([c, m, y], [1, 1, 1]);
    const ends = v0.map((v, i) => [-v / v1[i]!, (1 - v) / v1[i]!].sort((a, b) => a - b));
    const [dark, bright] = [Math.max(...ends.map((e) => e[0]!)), Math.min(...ends.map((e) => e[1]!))];
    if (dark <= bright + 1e-9) {
      const k = Math.max(dark, bright + Math.log(Math.max(level, 1e-6)));
      return { shares: v0.map((v, i) => Math.min(1, Math.max(0, v + k * v1[i]!))), off: 0 };
    }
  }
  return nearestOnEdge(target, filters);
}

/** The edges of what three filters can do: one full, one out, one on its way; and the corners between them. */
const EDGES: readonly (readonly [full: number, moves: number])[] = [0, 1, 2].flatMap((full) =>
  [0, 1, 2].filter((moves) => moves !== full).map((moves) => [full, moves] as const),
);
const onEdge = ([full, moves]: readonly [number, number], t: number): Three =>
  [0, 1, 2].map((k) => (k === full ? 1 : k === moves ? t : 0)) as Three;

const STEPS = 64;
function nearestOnEdge(target: Xy, filters: Logs): Mix {
  let best = { shares: [0, 0, 0] as Three, off: Infinity };
  const put = (shares: Three) => {
    const off = apart(filtered(shares, filters), target);
    if (off < best.off) best = { shares, off };
    return off;
  };
  for (const edge of EDGES) {
    let [at, least] = [0, Infinity];
    for (let i = 0; i <= STEPS; i++) {
      const off = put(onEdge(edge, i / STEPS));
      if (off < least) [at, least] = [i / STEPS, off];
    }
    // Finer about the best place, halving the stride.
    for (let stride = 1 / STEPS / 2; stride > 1e-7; stride /= 2) {
      for (const t of [at - stride, at + stride]) {
        if (t < 0 || t > 1) continue;
        const off = put(onEdge(edge, t));
        if (off < least) [at, least] = [t, off];
      }
    }
  }
  return best;
}

/** The outline of what three filters can do, for pictures. */
export function filterGamut(filters = LOGS, points = 12): Xy[] {
  // Cyan to blue to magenta to red to yellow to green and back.
  const round: [number, number, boolean][] = [
    [0, 1, true],
    [1, 0, false],
    [1, 2, true],
    [2, 1, false],
    [2, 0, true],
    [0, 2, false],
  ];
  return round.flatMap(([full, moves, rises]) =>
    Array.from({ length: points }, (_, i) =>
      filtered(onEdge([full, moves], rises ? i / points : 1 - i / points), filters),
    ),
  );
}
