/** The colour values of a fixture give, as any other can be asked for it: xy, and how bright beside the brightest there. */
import { xyOfHex, xyOfXyz, type Xy } from "../colour/chromaticity";
import { emitterOf, PRIMARIES, SOURCE } from "../colour/emitters";
import { FILTER_NAMES, filtersFor, lightThrough, logsOfFilters } from "../colour/filter";
import { lightOf, mixOf } from "../colour/mix";
import { isEmitter, isFilter } from "../fixture/attribute";
import type { ParameterSpec } from "../fixture/parameters";
import type { AnyColour } from "../show/paletteSchema";

/** What a parameter is at: the attribute and its value. */
export type ValueAt = (spec: ParameterSpec) => { attribute: string; value: number };

const share = (percent: number): number => Math.min(1, Math.max(0, percent / 100));
const plainXy = ([x, y]: Xy): [number, number] => [x, y];

/** The colour of the first cell that has one, or of the fixture; undefined for a type without colour. */
export function colourSeen(specs: readonly ParameterSpec[], valueAt: ValueAt): AnyColour | undefined {
  const cell = specs.find((s) => isEmitter(s.head) || isFilter(s.head) || s.head === "Color1")?.cell;
  const own = specs.filter((s) => s.cell === cell);
  return ofEmitters(own, valueAt) ?? ofFilters(own, valueAt) ?? ofWheel(own, valueAt);
}

function ofEmitters(specs: readonly ParameterSpec[], valueAt: ValueAt): AnyColour | undefined {
  const known = specs.filter((s) => emitterOf(s.functions[0]!));
  if (known.length === 0) return undefined;
  const shares = known.map((s) => share(valueAt(s).value));
  const emitters = known.map((s) => emitterOf(s.functions[0]!)!);
  const light = lightOf(emitters, shares);
  const xy = xyOfXyz(light);
  if (!xy) return { xy: plainXy(SOURCE.xy), level: 0, white: true };
  const primary = known.map((s) => (PRIMARIES as readonly string[]).includes(s.head));
  const white = primary.filter(Boolean).length < 3 || shares.some((v, k) => v > 1e-6 && !primary[k]);
  const among = white ? emitters : emitters.filter((_, k) => primary[k]);
  const most = lightOf(among, mixOf(among, xy).shares)[1];
  return { xy: plainXy(xy), level: most > 0 ? Math.min(1, light[1] / most) : 0, white };
}

function ofFilters(specs: readonly ParameterSpec[], valueAt: ValueAt): AnyColour | undefined {
  const filters = FILTER_NAMES.map((name) => specs.find((s) => s.head === name));
  if (filters.some((s) => !s)) return undefined;
  const shares = filters.map((s) => share(valueAt(s!).value)) as [number, number, number];
  // A colour on the wheel, with nothing mixed in, is the wheel's.
  if (shares.every((v) => v === 0)) {
    const wheel = ofWheel(specs, valueAt);
    if (wheel) return wheel;
  }
  const logs = logsOfFilters(filters.map((s) => s!.functions[0]));
  const light = lightThrough(shares, logs);
  const xy = xyOfXyz(light)!;
  const most = lightThrough(filtersFor(xy, 1, logs).shares as [number, number, number], logs)[1];
  return { xy: plainXy(xy), level: Math.min(1, light[1] / most), white: false };
}

function ofWheel(specs: readonly ParameterSpec[], valueAt: ValueAt): AnyColour | undefined {
  const wheel = specs.find((s) => s.head === "Color1");
  if (!wheel) return undefined;
  const { attribute, value } = valueAt(wheel);
  const steps = wheel.functions.find((f) => f.attribute === attribute)?.steps ?? [];
  const slot = steps.find((s) => s.value === Math.round(value) && s.colour);
  if (!slot) return undefined;
  const white = slot.value === 1;
  return { xy: plainXy(white ? SOURCE.xy : xyOfHex(slot.colour!)), level: 1, white };
}
