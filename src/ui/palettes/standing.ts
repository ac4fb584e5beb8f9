/** The palette or the effect a value on stage comes from. */
import type { ParamKey } from "@/core/show/ids";
import type { Palette } from "@/core/show/paletteSchema";
import { hasStops, isFrom, isStop, type Effect } from "@/core/show/effectSchema";
import { isLink, type Entry } from "@/core/show/value";
import type { World } from "@/core/show/world";
import { SOURCE_PROGRAMMER } from "@/engine/frame";

/** What is stored or held where the stage has a value from. */
function entryAt({ show, hands }: World, key: ParamKey, source: number, cue: number): Entry | undefined {
  if (source === SOURCE_PROGRAMMER) return hands.held[key];
  if (source < 0) return undefined;
  return Object.values(show.lists).find((list) => list.cues[`c${cue}`])?.cues[`c${cue}`]?.entries[key];
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
  effectMark(world.show, entryAt(world, key, source, cue)?.effect);

/** @param source where the stage has it from. @param cue the count of the cue that stores it. Undefined where it is no palette's. */
export function paletteAt(world: World, key: ParamKey, source: number, cue: number): Palette | undefined {
  const value = entryAt(world, key, source, cue)?.value;
  return typeof value === "object" && isLink(value) ? world.show.palettes[value.palette] : undefined;
}

/** "◇ Lantern gold". */
export const paletteMark = ({ number, name }: Palette): string => `◇ ${name || number}`;
