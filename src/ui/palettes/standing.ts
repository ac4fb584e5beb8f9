/** The palette a value on stage comes from. */
import type { ParamKey } from "@/core/show/ids";
import type { Palette } from "@/core/show/paletteSchema";
import { isLink } from "@/core/show/value";
import type { World } from "@/core/show/world";
import { SOURCE_PROGRAMMER } from "@/engine/frame";

/** @param source where the stage has it from. @param cue the count of the cue that stores it. Undefined where it is no palette's. */
export function paletteAt({ show, hands }: World, key: ParamKey, source: number, cue: number): Palette | undefined {
  const value =
    source === SOURCE_PROGRAMMER
      ? hands.held[key]?.value
      : source < 0
        ? undefined
        : Object.values(show.lists).find((list) => list.cues[`c${cue}`])?.cues[`c${cue}`]?.entries[key]?.value;
  return typeof value === "object" && isLink(value) ? show.palettes[value.palette] : undefined;
}

/** "◇ Lantern gold". */
export const paletteMark = ({ number, name }: Palette): string => `◇ ${name || number}`;
