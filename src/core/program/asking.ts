/** What SEL asks of the stage, beside what is lit. */
import { ofSameColour, standingIn, type StageAt } from "../palette/now";
import type { Asked } from "../select/expression";
import { specOf } from "../show/model";
import { paletteNumbered, type World } from "../show/world";
import { fixturesByNumber } from "../show/world";
import { resolveEntry } from "./resolve";

/** @param stage values before masters. */
export function askedOf({ show }: World, stage: StageAt): Asked {
  const all = () => fixturesByNumber(show).map((f) => f.id);
  return {
    sameColour: (like) => ofSameColour(show, stage, all(), like),
    inPalette(number) {
      const palette = paletteNumbered(show, number);
      if (!palette) return undefined;
      return standingIn(show, stage, all(), palette.id, (key) => {
        const spec = specOf(show, key);
        const means = spec && resolveEntry(show, key, spec, { attribute: spec.head, value: { palette: palette.id } });
        return means && { value: means.value, attribute: spec.functions[means.fn]!.attribute };
      });
    },
  };
}
