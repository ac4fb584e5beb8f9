/** The palette or the effect a value on stage comes from. */
import type { ParamKey } from "@/core/show/ids";
import type { Palette } from "@/core/show/paletteSchema";
import { hasStops, isFrom, isStop, type Effect } from "@/core/show/effectSchema";
import { isLink, type Entry } from "@/core/show/value";
import type { World } from "@/core/show/world";
import { namesIn } from "@/core/units/names";
import { SOURCE_PROGRAMMER } from "@/engine/frame";

/** All that is held, or stored in the cue, where the stage has values from. @param source where from. @param cue the count of the cue. */
export function entriesAt({ show, hands }: World, source: number, cue: number): Entries | undefined {
  if (source === SOURCE_PROGRAMMER) return hands.held;
  if (source < 0) return undefined;
  const id = `c${cue}`;
  for (const list of Object.values(show.lists)) if (list.cues[id]) return list.cues[id].entries;
  return undefined;
}

/** "∿ Lanterns breathe": what an effect is called; undefined where none of the show or of its own runs there. */
export function effectMark(show: World["show"], effect: Effect | undefined): string | undefined {
  if (!effect || isStop(effect)) return undefined;
  if (!isFrom(effect)) return hasStops(effect.plays) ? "∿ stops" : "∿ wave";
  const record = show.effects[effect.from];
  return `∿ ${record?.name || `effect ${record?.number ?? "?"}`}`;
}

/** The mark of the effect that runs where the stage has a value from; undefined where none does. */
export const effectMarkAt = (world: World, key: ParamKey, source: number, cue: number): string | undefined =>
  effectMark(world.show, entriesAt(world, source, cue)?.[key]?.effect);

/** @param source where the stage has it from. @param cue the count of the cue that stores it. Undefined where it is no palette's. */
export function paletteAt(world: World, key: ParamKey, source: number, cue: number): Palette | undefined {
  return paletteIn(world.show, entriesAt(world, source, cue)?.[key]);
}

type Entries = Readonly<Record<ParamKey, Entry>>;
const marked = new WeakMap<Entries, ReadonlySet<string>>();

/** The attributes of which anything in entries comes from a palette or an effect; gathered once for thousands. */
export function attributesMarkedIn(entries: Entries): ReadonlySet<string> {
  const known = marked.get(entries);
  if (known) return known;
  const made = new Set<string>();
  for (const key of namesIn(entries)) {
    const { attribute, value, effect } = entries[key]!;
    if (effect || typeof value === "object") made.add(attribute);
  }
  marked.set(entries, made);
  return made;
}

/** The palette an entry follows. */
export function paletteIn(show: World["show"], entry: Entry | undefined): Palette | undefined {
  const value = entry?.value;
  return typeof value === "object" && isLink(value) ? show.palettes[value.palette] : undefined;
}

/** "◇ Lantern gold". */
export const paletteMark = ({ number, name }: Palette): string => `◇ ${name || number}`;
