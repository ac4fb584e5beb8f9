/** Starter palettes, as an intent: those the rig offers, or the ones chosen of them. */
import { z } from "../units/zod";
import { FAMILIES, familyWord } from "../fixture/attribute";
import { defineIntent, newId } from "../show/change/intent";
import { unsaid } from "../show/words/lineText";
import { fail } from "../show/refusal";
import type { Show } from "../show/schema";
import { plainShow, put } from "./intents";
import { keptAt, nothingKept } from "./keep";
import { startersFor, type Starter } from "./starters";
import { plural } from "../units/plural";

interface Chosen {
  families?: Starter["family"][] | undefined;
  names?: string[] | undefined;
}

const chosenOf = (show: Show, { families, names }: Chosen): Starter[] => {
  const all = startersFor(show, families);
  return names ? all.filter((s) => names.includes(s.name)) : all;
};

export const startPalettes = defineIntent({
  kind: "startPalettes",
  fields: {
    families: z.array(z.enum(FAMILIES)).max(FAMILIES.length).optional(),
    /** Of those offered; all where not given. */
    names: z.array(z.string().max(200)).max(2000).optional(),
  },
  apply(world, intent) {
    const show = plainShow(world);
    const found = chosenOf(show, intent);
    if (found.length === 0)
      fail(
        "the rig offers no palettes that are not there already",
        "Patch some fixtures first, or choose other families",
      );
    for (const { number, name, width, entries } of found) {
      const id = newId(world, "p");
      world.show.palettes[id] = { id, number, name, width, ...nothingKept() };
      put(world, id, keptAt(show, entries, width));
    }
  },
  says: ({ show }, intent) => {
    const found = chosenOf(show, intent);
    return `records ${plural(found.length, "starter palette")}: ${found
      .slice(0, 6)
      .map((s) => `${s.number} "${s.name}"`)
      .join(", ")}${found.length > 6 ? " ..." : ""}`;
  },
  lines: (_, { families, names }) => [
    names
      ? unsaid("records some of the starter palettes")
      : ["starter palettes", ...(families ?? []).map(familyWord)].join(" "),
  ],
});
