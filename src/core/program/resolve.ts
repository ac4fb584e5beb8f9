/** From a held or stored value to a number and the function that carries it. */
import type { ParameterSpec } from "../fixture/parameters";
import type { Entry } from "../show/value";

export interface Resolved {
  value: number;
  /** Index of the function in the parameter's spec. */
  fn: number;
}

/** What an entry means for a parameter; undefined where it says nothing (a release, or an attribute the type no longer has). */
export function resolveEntry(spec: ParameterSpec, entry: Entry): Resolved | undefined {
  if (typeof entry.value !== "number") return undefined;
  const fn = spec.functions.findIndex((f) => f.attribute === entry.attribute);
  return fn < 0 ? undefined : { value: entry.value, fn };
}
