/** A look as a frame: the value and function of every parameter in a cue, for whoever draws it. */
import { effectAt } from "../../cue/effects";
import { partsOf } from "../../cue/looks";
import { inForceAt, trackingOf } from "../../cue/tracking";
import { resolveEntry, type Resolving } from "../../program/resolve";
import type { ParameterSpec } from "../../fixture/parameters";
import type { ParamKey } from "../../show/ids";
import type { Cue, CueList, Show } from "../../show/schema";
import { lastFn, playedAt, playingOf } from "./playing";
import { isStepped } from "./rig";

/** Every parameter of a rig by its place, with its default. */
export interface Places {
  index: ReadonlyMap<ParamKey, number>;
  specs: readonly ParameterSpec[];
  defaults: Float64Array;
}

export interface LookFrame {
  value: Float64Array;
  fn: Uint8Array;
  /** Where it is asked for: the place in its list of the cue that each comes from, -1 for its default. */
  cue?: Int32Array;
}

const known = new WeakMap<Show["fixtures"], { types: Show["types"]; made: Places }>();

/** The places of a show's parameters; derived once for each version of its rig. */
export function placesOf(show: Pick<Show, "fixtures" | "types">): Places {
  const held = known.get(show.fixtures);
  if (held?.types === show.types) return held.made;
  const parts = Object.values(show.fixtures).flatMap((fixture) => [...partsOf(show, fixture)]);
  const made: Places = {
    index: new Map(parts.map(({ key }, i) => [key, i])),
    specs: parts.map(({ spec }) => spec),
    defaults: Float64Array.from(parts, ({ spec }) => spec.default),
  };
  known.set(show.fixtures, { types: show.types, made });
  return made;
}

export interface SeenEffect {
  /** Place of the parameter. */
  at: number;
  /** Cycles a second. */
  speed: number;
  /** Its value and function after so many cycles. */
  after(cycles: number): { value: number; fn: number };
}

/**
 * Fills a frame with what a cue gives of its own list, levels at full; what no cue stores is at its default.
 * @param index the cue's place in its list, from 0.
 * @param frame as long as the places.
 * @returns the effects that are seen in it, each as it stands at the start of its cycle in the frame.
 */
export function fillLook(
  show: Resolving & Pick<Show, "fixtures" | "types">,
  list: CueList,
  index: number,
  { value, fn, cue }: LookFrame,
): SeenEffect[] {
  const { index: places, specs, defaults } = placesOf(show);
  const tracking = trackingOf(list, show);
  const effects: SeenEffect[] = [];
  value.set(defaults);
  fn.fill(0);
  cue?.fill(-1);
  for (const [key, column] of tracking.columns) {
    const at = places.get(key);
    if (at === undefined) continue;
    const spec = specs[at]!;
    const found = inForceAt(tracking, key, index);
    const resolved = found && resolveEntry(show, key, spec, found.entry);
    if (resolved) {
      value[at] = resolved.value;
      fn[at] = resolved.fn;
      if (cue) cue[at] = found.at;
    }
    const playing = column.effects ? effectAt(show, tracking, key, index) : undefined;
    if (!playing || playing.hushed) continue;
    const mixes = spec.functions.map((f) => !isStepped(f));
    const plays = playingOf(show, key, spec, mixes, playing.entry);
    if (!plays) continue;
    const [base, baseFn] = [value[at]!, fn[at]!];
    effects.push({
      at,
      speed: plays.speed,
      after: (cycles) => ({ value: playedAt(plays, cycles, base, baseFn, 1), fn: lastFn() }),
    });
  }
  for (const { at, after } of effects) ({ value: value[at], fn: fn[at] } = after(0));
  return effects;
}

/** Fills a frame with a look that was signed off; what is not in it is dark. */
export function fillSigned(
  show: Resolving & Pick<Show, "fixtures" | "types">,
  signed: NonNullable<Cue["signed"]>,
  { value, fn }: LookFrame,
): SeenEffect[] {
  const { index, specs, defaults } = placesOf(show);
  value.set(defaults);
  fn.fill(0);
  for (const look of Object.values(signed))
    for (const [key, was] of Object.entries(look)) {
      const at = index.get(key);
      const place = at === undefined ? -1 : specs[at]!.functions.findIndex((f) => f.attribute === was.attribute);
      if (at === undefined || place < 0) continue;
      value[at] = was.value;
      fn[at] = place;
    }
  return [];
}
