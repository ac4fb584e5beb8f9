/** Fixtures made like others, with all that is programmed of them. */
import { current } from "immer";
import { z } from "../units/zod";
import { fixtureIds } from "../patch/intents";
import { whyNot } from "../patch/clash";
import { addressText, autoAddresses, occupancyOf, occupy, runFrom, sizeOf } from "../show/address";
import { defineIntent, newId } from "../show/change/intent";
import { FixtureIdSchema } from "../show/ids";
import { itemsText } from "../show/words/itemsText";
import { selText } from "../show/words/lineText";
import { modelOf } from "../show/model";
import { fail } from "../show/refusal";
import { AddressSchema, wholeNumber, type Address, type Show } from "../show/schema";
import { fixtureNumbered } from "../show/world";
import { programmedAs, type Pair } from "./programmed";

/** Metres that a copy hangs beside its pattern, so that each can be seen and pressed. */
const BESIDE = 0.5;

export const duplicateFixtures = defineIntent({
  kind: "duplicateFixtures",
  fields: {
    fixtures: fixtureIds,
    from: wholeNumber,
    at: z.union([z.enum(["auto", "unpatched"]), AddressSchema]),
  },
  apply(world, { fixtures, from, at }) {
    const show = { ...current<Show>(world.show) };
    const patterns = fixtures.map((id) => show.fixtures[id] ?? fail("that fixture is no longer patched"));
    patterns.forEach((_, k) => {
      const taken = fixtureNumbered(show, from + k);
      if (taken)
        fail(`number ${from + k} is taken by ${taken.name}`, "Choose a start with enough free numbers behind it");
    });
    const sizes = patterns.map((f) => sizeOf(show, f));
    const ids = patterns.map(() => newId(world, "f"));
    const run = addressesFor(show, at, sizes, ids);
    show.fixtures = { ...show.fixtures };
    patterns.forEach((pattern, k) => {
      const { uuid: _, ...rest } = pattern;
      show.fixtures[ids[k]!] = {
        ...rest,
        id: ids[k]!,
        number: from + k,
        addresses: run ? [run[k]!] : [],
        place: { ...pattern.place, x: pattern.place.x + BESIDE },
      };
    });
    put(
      world,
      programmedAs(
        show,
        fixtures.map((id, k): Pair => [id, ids[k]!]),
      ),
    );
  },
  says: (world, { fixtures, from, at }) =>
    `duplicates ${itemsText(world, fixtures)} as ${from}${fixtures.length > 1 ? ` to ${from + fixtures.length - 1}` : ""}, with all their programming, ${
      at === "unpatched" ? "without addresses" : at === "auto" ? "at the first free run" : `from ${addressText(at)}`
    }`,
  lines: ({ show }, { fixtures, from, at }) => [
    `duplicate ${selText(show, fixtures)} as ${from}${at === "unpatched" ? "" : ` at ${at === "auto" ? at : addressText(at)}`}`,
  ],
});

function put(world: { show: unknown }, made: Show): void {
  const { fixtures, lists, palettes, groups, effects } = made;
  Object.assign(world.show as object, { fixtures, lists, palettes, groups, effects });
}

function addressesFor(
  show: Show,
  at: "auto" | "unpatched" | Address,
  sizes: readonly number[],
  ids: readonly string[],
): Address[] | undefined {
  if (at === "unpatched") return undefined;
  const taken = occupancyOf(show);
  if (at === "auto") return autoAddresses(taken, sizes, ids);
  const run = runFrom(at, sizes);
  run.forEach((address, k) => {
    const wrong = whyNot(taken, address, sizes[k]!, (id) => show.fixtures[id]?.number);
    if (wrong) fail(`a copy cannot go there: ${wrong}`, "Choose another address, or: at auto");
    occupy(taken, address, sizes[k]!, ids[k]!);
  });
  return run;
}

export const copyProgramming = defineIntent({
  kind: "copyProgramming",
  fields: { from: FixtureIdSchema, to: fixtureIds },
  apply(world, { from, to }) {
    const show = current<Show>(world.show);
    const source = show.fixtures[from] ?? fail("that fixture is no longer patched");
    const others = to.filter((id) => id !== from);
    if (others.length === 0)
      fail(`fixture ${source.number} is the only one`, "Name other fixtures to copy its programming to");
    for (const id of others) if (!show.fixtures[id]) fail("that fixture is no longer patched");
    put(
      world,
      programmedAs(
        show,
        others.map((id): Pair => [from, id]),
      ),
    );
  },
  says(world, { from, to }) {
    const source = world.show.fixtures[from];
    const others = to.filter((id) => id !== from);
    const unlike = source
      ? others.filter(
          (id) =>
            world.show.fixtures[id] &&
            modelOf(world.show, world.show.fixtures[id]).specs !== modelOf(world.show, source).specs,
        ).length
      : 0;
    return `programs ${itemsText(world, others)} as fixture ${source?.number ?? "?"} in every cue, palette, group and effect; what they had in cues and of their own in palettes is gone${
      unlike > 0 ? `; ${unlike} of another type or mode ${unlike === 1 ? "takes" : "take"} what they can` : ""
    }`;
  },
  lines: ({ show }, { from, to }) => [
    `${selText(show, to)} copy programming from ${show.fixtures[from]?.number ?? "?"}`,
  ],
});
