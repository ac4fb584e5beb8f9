/** From a held or stored value to a number and the function that carries it. */
import { rangeOf, type ParameterSpec } from "../fixture/parameters";
import type { Entry } from "../show/value";
import { clamp } from "../units/units";

export interface Resolved {
  value: number;
  /** Index of the function in the parameter's spec. */
  fn: number;
}

/** What an entry means for a parameter; undefined where it says nothing (a release, or an attribute the type no longer has). */
export function resolveEntry(spec: ParameterSpec, entry: Entry): Resolved | undefined {
  if (typeof entry.value !== "number") return undefined;
  const fn = spec.functions.findIndex((f) => f.attribute === entry.attribute);
  if (fn < 0) return undefined;
  // What a file or another mode brought stays within what the function can do.
  const [low, high] = rangeOf(spec.functions[fn]!);
  return { value: clamp(entry.value, low, high), fn };
}
