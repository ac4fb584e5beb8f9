/** Which effect is in force at a cue, and what storing a value ends (SEMANTICS 4, 7, 9). */
import { movesAround, type Sounding } from "../effect/voices";
import { saidBy, type Looking } from "../palette/lookup";
import type { ParamKey } from "../show/ids";
import type { Cue, CueList } from "../show/schema";
import { isLink, isRelease, STOP, storedOver, type Entry } from "../show/value";
import { cuesOf } from "../show/world";
import { inForceAt, storedIn, trackingOf, type InForce, type Tracking } from "./tracking";

/** An effect in force; hushed while out is in force on its Dimmer, stored later than it: out means out. */
export interface EffectInForce extends InForce {
  hushed: boolean;
}

const isOut = (show: Looking, key: ParamKey, { value }: Entry): boolean =>
  value === 0 || (typeof value === "object" && isLink(value) && saidBy(show, value.palette, key)?.value === 0);

/** The effect in force for a parameter at the cue at `index`; undefined for none. */
export function effectAt(
  show: Looking & Sounding,
  tracking: Tracking,
  key: ParamKey,
  index: number,
  carried = false,
): EffectInForce | undefined {
  const found = inForceAt(tracking, key, index, carried, "effect");
  if (!found) return undefined;
  const value = key.endsWith(".Dimmer") ? inForceAt(tracking, key, index, carried) : undefined;
  const hushed =
    value !== undefined &&
    value.at > found.at &&
    isOut(show, key, value.entry) &&
    movesAround(show)(found.entry.effect!);
  return { ...found, hushed };
}

/**
 * Stores entries in a cue of a list: a value ends an effect in force there that does not move around it.
 * @param list a draft, or a plain list that may be changed. @param plain the show as it is. @param snapshot of the list, without drafts.
 * @param before the list as it was, where only this cue has been edited since: what has no effect there has none to end.
 */
export function storeEntries(
  show: Looking & Sounding,
  list: CueList,
  cue: Cue,
  entries: Readonly<Record<ParamKey, Entry>>,
  snapshot: (list: CueList) => CueList,
  before?: CueList,
): void {
  const around = movesAround(show);
  for (const [key, entry] of Object.entries(entries)) cue.entries[key] = storedOver(cue.entries[key], entry, around);
  if (before && !Object.keys(entries).some((key) => storedIn(before).columns.get(key)?.effects)) return;
  const plainly = snapshot(list);
  if (![...storedIn(plainly).columns.values()].some((column) => column.effects)) return;
  const tracking = trackingOf(plainly, show);
  const place = cuesOf(plainly).findIndex((c) => c.id === cue.id);
  for (const key of Object.keys(entries)) {
    const stored = plainly.cues[cue.id]!.entries[key]!;
    if (stored.effect !== undefined || stored.value === undefined || isRelease(stored.value)) continue;
    const playing = inForceAt(tracking, key, place, false, "effect");
    if (playing && !around(playing.entry.effect!)) cue.entries[key] = { ...stored, effect: STOP };
  }
}
