/** An effect of the show laid over items: what it starts on their parameters. */
import type { EffectRecord } from "../show/effectSchema";
import { splitItem, type Item, type ParamKey } from "../show/ids";
import type { Show } from "../show/schema";
import type { Entry } from "../show/value";
import { castVoice, itemsOf } from "./casting";

/** Every voice of an effect over items, in their order. @returns entries by parameter. */
export const castEntries = (show: Show, effect: EffectRecord, items: readonly Item[]): Record<ParamKey, Entry> =>
  Object.assign(
    {},
    ...effect.voices.map(({ key, voice, items: own }) =>
      castVoice(show, itemsOf(effect, { items: own }, items), voice, (turn) => ({
        from: effect.id,
        voice: key,
        ...turn,
      })),
    ),
  ) as Record<ParamKey, Entry>;

interface Cast {
  fixtures: Show["fixtures"];
  types: Show["types"];
  palettes: Show["palettes"];
  entries: Record<ParamKey, Entry>;
}
const known = new WeakMap<EffectRecord, Cast>();

/** What an effect starts on the items it is cast on; worked out once for each version of it and of what it looks at. */
export function castOf(show: Show, effect: EffectRecord): Record<ParamKey, Entry> {
  const last = known.get(effect);
  const { fixtures, types, palettes } = show;
  if (last?.fixtures === fixtures && last.types === types && last.palettes === palettes) return last.entries;
  const items = (effect.cast ?? []).filter((item) => fixtures[splitItem(item).fixture]);
  const entries = castEntries(show, effect, items);
  known.set(effect, { fixtures, types, palettes, entries });
  return entries;
}
