/** What light is: which parameters are intensity, and which fixtures are lit. Looks, player and wire ask here. */
import { isEmitter } from "../fixture/attribute";
import type { ParameterSpec } from "../fixture/parameters";
import { modelOf } from "../show/model";
import type { Fixture, Show } from "../show/schema";

/** Whether a parameter is a Dimmer, of the fixture or of a cell. */
export const isIntensity = ({ head }: Pick<ParameterSpec, "head">): boolean => head === "Dimmer";

/** Which parameters of a fixture masters and levels scale, once: its Dimmer, else its cells', else its emitters (SEMANTICS 1 and 9). */
export function scaledOf(specs: readonly ParameterSpec[]): (spec: ParameterSpec) => boolean {
  if (specs.some((s) => isIntensity(s) && s.cell === 0)) return (s) => isIntensity(s) && s.cell === 0;
  if (specs.some(isIntensity)) return isIntensity;
  return (s) => isEmitter(s.head);
}

const dimmersOf = new WeakMap<readonly ParameterSpec[], readonly number[]>();

/**
 * Whether a fixture gives light: its Dimmer times some cell's above 0 or under an effect; one without Dimmer always
 * does (SEMANTICS 4 and 9).
 * @param specs the parameters of its mode.
 * @param shines whether a Dimmer, by its place among the parameters, is above 0 or under an effect.
 */
export function isLitBy(specs: readonly ParameterSpec[], shines: (place: number) => boolean): boolean {
  let dimmers = dimmersOf.get(specs);
  if (!dimmers) dimmersOf.set(specs, (dimmers = specs.flatMap((spec, k) => (isIntensity(spec) ? [k] : []))));
  let cells = 0;
  let lit = false;
  for (const k of dimmers) {
    const on = shines(k);
    if (specs[k]!.cell === 0 && !on) return false;
    if (specs[k]!.cell > 0) {
      cells += 1;
      lit ||= on;
    }
  }
  return cells === 0 || lit;
}

/** Whether a fixture gives light at all: a hazer, a fan or a relay does not, whatever its level. */
export function givesLight(show: Pick<Show, "types">, fixture: Fixture): boolean {
  if (show.types[fixture.type]?.kind === "hazer") return false;
  return modelOf(show, fixture).specs.some((s) => isIntensity(s) || isEmitter(s.head) || s.head === "Shutter1");
}
