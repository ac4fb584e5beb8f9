/** Which effects are held of what is selected. */
import { attributeInfo, type Family } from "@/core/fixture/attribute";
import { isStop } from "@/core/show/effectSchema";
import { item, splitKey, type Item, type ParamKey } from "@/core/show/ids";
import type { World } from "@/core/show/world";

type Held = World["hands"]["held"];

const playing = new WeakMap<Held, readonly ParamKey[]>();

/** The parameters that hold an effect, of thousands that hold something; gathered once for each version. */
export function playedIn(held: Held): readonly ParamKey[] {
  const known = playing.get(held);
  if (known) return known;
  const made: ParamKey[] = [];
  for (const key in held) {
    const { effect } = held[key]!;
    if (effect !== undefined && !isStop(effect)) made.push(key);
  }
  playing.set(held, made);
  return made;
}

const NONE: readonly ParamKey[] = [];

/** The parameters of a family that hold an effect, of the items or their cells. */
export function playedOf(held: Held, items: readonly Item[], family: Family): readonly ParamKey[] {
  const keys = playedIn(held).filter((key) => attributeInfo(held[key]!.attribute).family === family);
  if (keys.length === 0) return NONE;
  const chosen = new Set(items);
  return keys.filter((key) => {
    const { fixture, cell } = splitKey(key);
    return chosen.has(fixture) || (cell > 0 && chosen.has(item(fixture, cell)));
  });
}
