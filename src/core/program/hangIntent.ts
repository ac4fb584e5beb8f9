/** The hang correction, from a palette and the hand that steered its fixtures right, as an intent. */
import { z } from "../units/zod";
import { saidBy } from "../palette/lookup";
import { plainShow } from "../palette/intents";
import { defineIntent } from "../show/change/intent";
import { FixtureIdSchema, type Id, type ParamKey } from "../show/ids";
import { itemsText } from "../show/words/itemsText";
import { selText } from "../show/words/lineText";
import { allTargets } from "../show/model";
import { fail } from "../show/refusal";
import type { Show } from "../show/schema";
import type { World } from "../show/world";
import { plain } from "../units/units";
import { numberOf } from "./resolve";

interface Steered {
  attribute: "Pan" | "Tilt";
  key: ParamKey;
  palette: Id;
  /** Degrees from what the palette says to where the hand went. */
  by: number;
}

/** What of a fixture a hand steered away from a position palette; empty where nothing was. */
export function steeredFrom(show: Show, hands: Pick<World["hands"], "held" | "cameFrom">, fixture: Id): Steered[] {
  return allTargets(show, fixture).flatMap(({ key, attribute }): Steered[] => {
    if (attribute !== "Pan" && attribute !== "Tilt") return [];
    const palette = hands.cameFrom[key];
    const value = hands.held[key]?.value;
    const said = palette && typeof value === "number" ? saidBy(show, palette, key) : undefined;
    const meant = said && numberOf(show, key, attribute, said.value);
    return meant === undefined || typeof value !== "number"
      ? []
      : [{ attribute, key, palette: palette!, by: value - meant }];
  });
}

/** The difference between a palette and the hand becomes the correction at output; the palette is held again. No palette and no cue changes. */
export const correctHang = defineIntent({
  kind: "correctHang",
  fields: { fixtures: z.array(FixtureIdSchema).min(1).max(20_000) },
  apply(world, { fixtures }) {
    const show = plainShow(world);
    let corrected = 0;
    for (const id of fixtures) {
      const fixture = world.show.fixtures[id];
      const steered = fixture ? steeredFrom(show, world.hands, id) : [];
      for (const { attribute, key, palette, by } of steered) {
        // The correction comes after pan and tilt are swapped (SEMANTICS 1).
        const axis = (attribute === "Pan") !== fixture!.swap ? "pan" : "tilt";
        fixture!.correct[axis] += by;
        world.hands.held[key] = { ...world.hands.held[key]!, attribute, value: { palette } };
        delete world.hands.cameFrom[key];
      }
      if (steered.length > 0) corrected += 1;
    }
    if (corrected === 0)
      fail(
        "none of these was steered away from a position palette",
        "Put them in a position palette, steer them right by hand, then correct the hang",
      );
  },
  says(world, { fixtures }) {
    const steered = fixtures.map((id) => steeredFrom(world.show, world.hands, id)).filter((s) => s.length > 0);
    const most = Math.max(0, ...steered.flat().map((s) => Math.abs(s.by)));
    return `corrects the hang of ${itemsText(world, fixtures)} by at most ${plain(most, 2)}°: every palette, aim and cue is right again, and none is changed`;
  },
  lines: ({ show }, { fixtures }) => [`${selText(show, fixtures)} correct hang`],
});
