/**
 * Carrying what is stored over to another mode (or type): by attribute, in real units. What the new one
 * cannot show stays stored under its old key, silent, and comes back with one that can.
 */
import { functionOf, type ParameterSpec } from "../fixture/parameters";
import { paramKey, splitKey, type ParamKey } from "../show/ids";
import type { Show } from "../show/schema";
import type { Hands } from "../show/hands";

/** The key under which a fixture's new parameters carry an attribute of one of its cells; undefined where none does. */
export function keyFor(specs: readonly ParameterSpec[], key: ParamKey, attribute: string): ParamKey | undefined {
  const { fixture, cell } = splitKey(key);
  const spec = specs.find((s) => s.cell === cell && functionOf(s, attribute) !== undefined);
  return spec && paramKey(fixture, cell, spec.head);
}

/** Puts the entries of a fixture under the keys of its new parameters. Changes the record. Where two would share one, what is there already stays. */
function remap(
  entries: Record<ParamKey, { attribute: string }>,
  fixture: string,
  specs: readonly ParameterSpec[],
): void {
  for (const [key, entry] of Object.entries(entries)) {
    if (!key.startsWith(`${fixture}.`)) continue;
    const wanted = keyFor(specs, key, entry.attribute);
    if (
      wanted === undefined ||
      wanted === key ||
      (entries[wanted] && keyFor(specs, wanted, entries[wanted].attribute) === wanted)
    )
      continue;
    const silent = entries[wanted];
    entries[wanted] = entry;
    delete entries[key];
    if (silent) entries[key] = silent;
  }
}

/** Does so in every cue of a show and in the hands. */
export function remapFixture(
  show: Pick<Show, "lists" | "palettes">,
  hands: Pick<Hands, "held" | "parked">,
  fixture: string,
  specs: readonly ParameterSpec[],
): void {
  for (const list of Object.values(show.lists))
    for (const cue of Object.values(list.cues)) remap(cue.entries, fixture, specs);
  for (const palette of Object.values(show.palettes)) remap(palette.own, fixture, specs);
  remap(hands.held, fixture, specs);
  remap(hands.parked, fixture, specs);
}
