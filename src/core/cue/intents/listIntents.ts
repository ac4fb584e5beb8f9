/** Lists as wholes: taken out, and made again from another, as intents. */
import { defineIntent, newId } from "../../show/change/intent";
import { IdSchema } from "../../show/ids";
import { listText } from "../../show/words/lineText";
import { emptyPlaces } from "../../show/places";
import { fail } from "../../show/refusal";
import { wholeNumber, type CueList } from "../../show/schema";
import { listIn, snapshot } from "./cueDraft";
import { plural } from "../../units/plural";

/** Takes a list out with all its cues; where it was armed, the first of the others is. */
export const deleteList = defineIntent({
  kind: "deleteList",
  fields: { list: IdSchema },
  apply(world, { list: id }) {
    const list = listIn(world, id);
    const others = Object.values(world.show.lists).filter((l) => l.id !== id);
    if (others.length === 0) fail(`list ${list.number} is the only one`, "A show has at least one list");
    delete world.show.lists[id];
    emptyPlaces(world, "list", id);
    world.hands.alsoArmed = world.hands.alsoArmed.filter((l) => l !== id);
    if (world.hands.armed === id) world.hands.armed = others.sort((a, b) => a.number - b.number)[0]!.id;
  },
  says({ show }, { list: id }) {
    const list = show.lists[id];
    const n = Object.keys(list?.cues ?? {}).length;
    return `deletes list ${list?.number ?? "?"} "${list?.name ?? ""}" with ${plural(n, "cue")}`;
  },
  lines: (world, { list }) => [`delete ${listText(world, list)}`],
});

/** Makes a list like another, with the same cues under ids of their own. */
export const duplicateList = defineIntent({
  kind: "duplicateList",
  fields: { list: IdSchema, as: wholeNumber },
  apply(world, { list: from, as }) {
    const source = snapshot(listIn(world, from));
    if (Object.values(world.show.lists).some((l) => l.number === as))
      fail(`list ${as} exists already`, "Choose a number that is free");
    const id = newId(world, "l");
    const ids = new Map(Object.keys(source.cues).map((cue) => [cue, newId(world, "c")]));
    const made: CueList = {
      ...source,
      id,
      number: as,
      name: source.name && `${source.name} again`.slice(0, 200),
      cues: {},
    };
    for (const cue of Object.values(source.cues)) {
      const { reach } = cue;
      const own = ids.get(cue.id)!;
      made.cues[own] = {
        ...cue,
        id: own,
        reach: reach && "cue" in reach ? { cue: ids.get(reach.cue) ?? own } : reach,
        ...(cue.then ? { then: ids.get(cue.then) ?? own } : {}),
      };
    }
    world.show.lists[id] = made;
  },
  says: ({ show }, { list, as }) => `makes list ${as} like list ${show.lists[list]?.number ?? "?"}`,
  lines: (world, { list, as }) => [`duplicate ${listText(world, list)} as ${as}`],
});
