/** Shutters that rest closed, as some files have it: who asks for light gets it. */
import { openState } from "../fixture/parameters";
import { splitItem, type Item, type ParamKey } from "../show/ids";
import { modelOf, targetsOf, type Target } from "../show/model";
import { own } from "../show/hasOwn";
import type { Entry } from "../show/value";
import type { ReadContext } from "./context";

const SHUTTER = "Shutter1";

/**
 * What opens the shutters of items that are given light: those that rest closed and stand so, with nothing held of
 * them. A shutter that strobes, or that somebody holds closed, is left alone.
 * @param values what is to be held, which is looked at alone.
 */
export function openShutters(
  { world: { show, hands }, stage }: ReadContext,
  items: readonly Item[],
  values: Readonly<Record<ParamKey, Entry>>,
): Record<ParamKey, Entry> {
  const made: Record<ParamKey, Entry> = {};
  const isLit = ({ key }: Target) => {
    const value = own(values, key)?.value;
    return typeof value === "number" && value > 0;
  };
  for (const item of items) {
    const fixture = show.fixtures[splitItem(item).fixture];
    if (!fixture || !modelOf(show, fixture).specs.some((s) => s.head === SHUTTER && s.default !== 1)) continue;
    for (const { key, fn, spec, attribute } of targetsOf(show, item, SHUTTER)) {
      const open = openState(fn);
      const now = stage(key);
      const stands = now === undefined || (now.attribute === SHUTTER && now.value === spec.default);
      if (open === undefined || open === spec.default || !stands) continue;
      if (own(values, key) || own(hands.held, key) || !targetsOf(show, item, "Dimmer").some(isLit)) continue;
      made[key] = { attribute, value: open };
    }
  }
  return made;
}
