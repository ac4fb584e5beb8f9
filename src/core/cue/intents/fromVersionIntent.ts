/** One cue, palette, effect, group or list as it was in an earlier version of the show: an intent. */
import { z } from "../../units/zod";
import { plainShow } from "../../palette/intents";
import { defineIntent, type WorldDraft } from "../../show/change/intent";
import { IdSchema, splitItem, splitKey, type Id } from "../../show/ids";
import { unsaid } from "../../show/words/lineText";
import { linksOf, namedBy, namedByRecord } from "../../show/checking/links";
import { fail } from "../../show/refusal";
import { ShowSchema, type Cue, type Show } from "../../show/schema";
import type { Entry } from "../../show/value";
import { keepingLooks } from "./cueDraft";
import { settleReaches } from "../reach";

export const BROUGHT = ["cue", "palette", "effect", "group", "list"] as const;
const COLLECTION = { palette: "palettes", effect: "effects", group: "groups", list: "lists" } as const;

/** A number that is free: the one it had where nothing else has it now. */
function freeNumber(records: Readonly<Record<Id, { id: Id; number: number }>>, wanted: number, own: Id): number {
  const taken = new Set(Object.values(records).flatMap((r) => (r.id === own ? [] : [r.number])));
  let number = wanted;
  while (taken.has(number)) number += 1;
  return number;
}

/** Brings what is named and is gone now along, however far round. */
function bringNamed(world: WorldDraft, then: Show, ids: Iterable<Id>): void {
  for (const id of ids) {
    if (world.show.palettes[id] || world.show.effects[id] || world.show.waves[id]) continue;
    const [palette, effect, wave] = [then.palettes[id], then.effects[id], then.waves[id]];
    if (palette) {
      bringNamed(world, then, namedBy(palette));
      world.show.palettes[id] = { ...palette, number: freeNumber(world.show.palettes, palette.number, id) };
    } else if (effect) {
      bringNamed(world, then, namedByRecord(effect));
      world.show.effects[id] = { ...effect, number: freeNumber(world.show.effects, effect.number, id) };
    } else if (wave) world.show.waves[id] = { ...wave, number: freeNumber(world.show.waves, wave.number, id) };
  }
}

/** A cue as it was, of the fixtures that there still are. */
function asItWas(now: Show, cue: Cue): Cue {
  const entries: Record<string, Entry> = {};
  for (const key in cue.entries) if (now.fixtures[splitKey(key).fixture]) entries[key] = cue.entries[key]!;
  return { ...cue, entries };
}

const namedIn = (cue: Cue): Id[] => Object.values(cue.entries).flatMap(linksOf);

/** Brings one thing back as it was in another version of the show; what it names and is gone comes along. */
export const fromVersion = defineIntent({
  kind: "fromVersion",
  fields: {
    /** That version. */
    show: ShowSchema,
    what: z.enum(BROUGHT),
    id: IdSchema,
    /** Of a cue: its list. */
    list: IdSchema.optional(),
    /** Of a cue: the other looks of its list stay. */
    keepLooks: z.boolean().optional(),
  },
  apply(world, { show: then, what, id, list: listId, keepLooks }) {
    const now = plainShow(world);
    if (what === "cue") {
      const was = then.lists[listId ?? ""]?.cues[id] ?? fail("that cue is not in that version");
      const list = world.show.lists[listId ?? ""] ?? fail("the list of that cue is gone", "Bring the whole list back");
      const cue = asItWas(now, was);
      bringNamed(world, then, namedIn(cue));
      const clash = Object.values(list.cues).find((c) => c.id !== id && Math.abs(c.number - cue.number) < 0.0005);
      if (clash && !list.cues[id])
        fail(`there is another cue ${clash.number} now`, `Move it first: move cue ${clash.number} to another number`);
      const number = clash ? list.cues[id]!.number : cue.number;
      const { then: leads, ...rest } = cue;
      const put = () => {
        list.cues[id] = { ...rest, number, ...(leads && list.cues[leads] ? { then: leads } : {}) };
      };
      if (keepLooks) keepingLooks(world, list, [id], put);
      else put();
      settleReaches(list, [id]);
      return;
    }
    const was = then[COLLECTION[what]][id] ?? fail(`that ${what} is not in that version`);
    const number = freeNumber(world.show[COLLECTION[what]], was.number, id);
    if (what === "palette") {
      bringNamed(world, then, namedBy(then.palettes[id]!));
      world.show.palettes[id] = { ...then.palettes[id]!, number };
    } else if (what === "effect") {
      bringNamed(world, then, namedByRecord(then.effects[id]!));
      world.show.effects[id] = { ...then.effects[id]!, number };
    } else if (what === "group") {
      const group = then.groups[id]!;
      const members = group.members.filter((i) => now.fixtures[splitItem(i).fixture]);
      world.show.groups[id] = { ...group, number, members };
    } else {
      const list = then.lists[id]!;
      const cues = Object.fromEntries(Object.values(list.cues).map((c) => [c.id, asItWas(now, c)]));
      bringNamed(world, then, [...Object.values(cues).flatMap(namedIn), ...(list.effect ? [list.effect] : [])]);
      world.show.lists[id] = { ...list, number, cues };
    }
    // Ids that were given out since stay given out.
    world.show.nextId = Math.max(world.show.nextId, then.nextId);
  },
  says(_, { show: then, what, id, list, keepLooks }) {
    const number = what === "cue" ? then.lists[list ?? ""]?.cues[id]?.number : then[COLLECTION[what]][id]?.number;
    return `brings ${what} ${number ?? "?"} back as it was then${keepLooks ? "; the other looks stay" : ""}`;
  },
  lines: (_, { what, id, list, show: then }) => [
    unsaid(
      `brings ${what} ${(what === "cue" ? then.lists[list ?? ""]?.cues[id] : then[COLLECTION[what]][id])?.number ?? "?"} back from an earlier version`,
    ),
  ],
});
