/** Palettes in a line. */
import { palettesByNumber } from "../show/world";
import { HIGHEST } from "./bounds";
import { expect, type SlotParser } from "./grammar";
import { bounded, WHOLE } from "./primitives";

/** A palette by number. */
export const palette = bounded(WHOLE, "a palette number", 1, HIGHEST);

/** A palette by number or name. */
export const paletteRef: SlotParser<number | string> = (state, pos) => {
  if (state.expected)
    expect(state, pos, {
      text: "a palette number or name",
      isWord: false,
      offers: palettesByNumber(state.world.show)
        .slice(0, 60)
        .flatMap((p) => [String(p.number), ...(p.name ? [`"${p.name}"`] : [])]),
    });
  const token = state.tokens[pos];
  if (token?.kind === "text") return [{ pos: pos + 1, value: token.text }];
  return palette(state, pos);
};
