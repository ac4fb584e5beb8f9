/** The colours a type can show, from its emitters or its filters. */
import type { Xy } from "../colour/chromaticity";
import { emitterOf } from "../colour/emitters";
import { FILTER_NAMES, filterGamut, logsOfFilters } from "../colour/filter";
import { gamutOf } from "../colour/mix";
import type { ParameterSpec } from "../fixture/parameters";

/** The corners of what a mode can show, CIE 1931 xy in order round it; empty for one that does not mix. */
export function gamutIn(specs: readonly ParameterSpec[]): Xy[] {
  const emitters = [...new Map(specs.map((s) => [s.head, s])).values()].flatMap(
    (s) => emitterOf(s.functions[0]!) ?? [],
  );
  if (emitters.length > 1) return gamutOf(emitters);
  if (!specs.some((s) => s.head === "ColorSub_C")) return [];
  return filterGamut(logsOfFilters(FILTER_NAMES.map((name) => specs.find((s) => s.head === name)?.functions[0])));
}
