/** Recording and editing cues, as intents. */
import { current } from "immer";
import { z } from "zod";
import { attributeInfo, FAMILIES } from "../fixture/attribute";
import { heldSummary } from "../program/intents";
import { defineIntent, newId, type WorldDraft } from "../show/intent";
import type { ParamKey } from "../show/ids";
import { fail } from "../show/refusal";
import { cueNumber, CueListSchema, CueTimesSchema, TriggerSchema, wholeNumber, type Cue, type CueList } from "../show/schema";
import { RELEASE, type Entry } from "../show/value";
import { cueNumbered, cuesOf, listNumbered, newList, sameCueNumber, type World } from "../show/world";
import { columnsOf, inForceOf } from "./inForce";
import { newTimes, timesText } from "./times";

const listFor = (world: WorldDraft, number: number): CueList => {
  const found = Object.values(world.show.lists).find((list) => list.number === number);
  if (found) return found as CueList;
  const id = newId(world, "l");
  const made = newList(id, number);
  world.show.lists[id] = made;
  if (!world.show.lists[world.hands.armed]) world.hands.armed = id;
  return world.show.lists[id] as CueList;
};

/** Cue numbers as they are written: at most three places. */
export const roundCueNumber = (number: number): number => Math.round(number * 1000) / 1000;

/** What was in force at the next cue before an edit, so that its look can be kept. */
function lookKeeper(before: CueList | undefined, number: number): (list: CueList, touched: Iterable<ParamKey>) => void {
  const oldCues = before ? cuesOf(before) : [];
  const index = oldCues.findIndex((cue) => cue.number > number + 0.0005);
  return (list, touched) => {
    if (!before || index < 0) return;
    const next = list.cues[oldCues[index]!.id]!;
    for (const key of touched) {
      if (next.entries[key]) continue;
      const was = inForceOf(columnsOf(before).get(key), index);
      next.entries[key] = was ? withoutTime(was.entry) : { attribute: key.split(".")[2]!, value: RELEASE };
    }
  };
}

const withoutTime = ({ attribute, value }: Entry): Entry => ({ attribute, value });

const timesGiven = z.object({ up: z.number(), down: z.number(), delayUp: z.number(), delayDown: z.number() }).partial();

export const recordCue = defineIntent({
  kind: "recordCue",
  fields: {
    list: wholeNumber,
    cue: cueNumber,
    name: z.string().max(200).optional(),
    times: timesGiven.optional(),
    trigger: TriggerSchema.optional(),
    onto: z.enum(["merge", "overwrite"]).optional(),
    cueOnly: z.boolean().optional(),
    empty: z.boolean().optional(),
  },
  apply(world, intent) {
    const held = intent.empty ? {} : (world.hands.held as Record<ParamKey, Entry>);
    if (!intent.empty && Object.keys(held).length === 0) fail("nothing is held, so there is nothing to record", "Set a value first, or record an empty cue with: empty");
    const number = roundCueNumber(intent.cue);
    const before = listNumbered((world as unknown as World).show, intent.list) as CueList | undefined;
    const untouched = before && current(before);
    const list = listFor(world, intent.list);
    const old = Object.values(list.cues).find((cue) => sameCueNumber(cue.number, number));
    const keepNext = intent.cueOnly ? lookKeeper(untouched, number) : undefined;
    const touched = new Set(Object.keys(held));
    if (old && intent.onto === "overwrite") {
      for (const key of Object.keys(old.entries)) {
        touched.add(key);
        delete old.entries[key];
      }
    }
    const id = old?.id ?? newId(world, "c");
    if (!old) list.cues[id] = { id, number, name: "", note: "", times: newTimes(), trigger: { kind: "go" }, entries: {} };
    const cue = list.cues[id]!;
    Object.assign(cue.entries, held);
    if (intent.name !== undefined) cue.name = intent.name;
    Object.assign(cue.times, intent.times ?? {});
    if (intent.trigger) cue.trigger = intent.trigger;
    keepNext?.(list, touched);
  },
  says(world, intent) {
    const list = listNumbered(world.show, intent.list);
    const old = list && cueNumbered(list, intent.cue);
    const what = intent.empty ? "nothing (an empty cue)" : heldSummary(world);
    const where = `cue ${roundCueNumber(intent.cue)}${list && list.number === 1 ? "" : ` of list ${intent.list}`}`;
    const how = old ? (intent.onto === "overwrite" ? `overwrites ${where} with` : `merges into ${where}`) : `records a new ${where}`;
    const times = intent.times ? `, fade ${timesText({ ...(old?.times ?? newTimes()), ...intent.times })} s` : "";
    return `${how}: ${what}${times}${intent.cueOnly ? "; the next cue keeps its look" : ""}`;
  },
});

const cueIn = (world: WorldDraft, list: string, cue: string): Cue =>
  (world.show.lists[list]?.cues[cue] as Cue | undefined) ?? fail("that cue does not exist");

const cueLabel = ({ show }: World, list: string, cue: string): string => {
  const owner = show.lists[list];
  return `cue ${owner?.cues[cue]?.number ?? "?"}${owner && owner.number !== 1 ? ` of list ${owner.number}` : ""}`;
};

export const setCue = defineIntent({
  kind: "setCue",
  fields: {
    list: z.string(),
    cue: z.string(),
    name: z.string().max(200).optional(),
    note: z.string().max(2000).optional(),
    times: CueTimesSchema.omit({ families: true }).partial().optional(),
    trigger: TriggerSchema.optional(),
    family: z.object({ name: z.enum(FAMILIES), delay: z.number().min(0).optional(), fade: z.number().min(0).optional() }).optional(),
  },
  apply(world, { list, cue: id, name, note, times, trigger, family }) {
    const cue = cueIn(world, list, id);
    if (name !== undefined) cue.name = name;
    if (note !== undefined) cue.note = note;
    if (trigger) cue.trigger = trigger;
    Object.assign(cue.times, times ?? {});
    if (family) {
      const { name: which, ...given } = family;
      cue.times.families[which] = { ...cue.times.families[which], ...given };
    }
  },
  says(world, { list, cue, name, note, times, trigger, family }) {
    const now = world.show.lists[list]?.cues[cue];
    const parts = [
      name !== undefined && `name "${name}"`,
      note !== undefined && `note "${note}"`,
      times && now && `fade ${timesText({ ...now.times, ...times })} s`,
      trigger && (trigger.kind === "go" ? "waits for go" : `follows by itself after ${trigger.after} s`),
      family && `${attributeInfo(family.name).label.toLowerCase()} ${family.delay !== undefined ? `delay ${family.delay} ` : ""}${family.fade !== undefined ? `fade ${family.fade}` : ""}`.trim(),
    ].filter(Boolean);
    return `${cueLabel(world, list, cue)}: ${parts.join(", ")}`;
  },
});

/** Deletes a cue; unless it is let track, the next cue gets what it brought, so that later looks stay. */
export const deleteCue = defineIntent({
  kind: "deleteCue",
  fields: { list: z.string(), cue: z.string(), keepLooks: z.boolean() },
  apply(world, { list: listId, cue: id, keepLooks }) {
    const cue = cueIn(world, listId, id);
    const list = world.show.lists[listId] as CueList;
    const keep = keepLooks ? lookKeeper(current(list), cue.number) : undefined;
    const touched = Object.keys(cue.entries);
    delete list.cues[id];
    keep?.(list, touched);
  },
  says: (world, { list, cue, keepLooks }) => `deletes ${cueLabel(world, list, cue)}${keepLooks ? "; later looks stay" : "; its values are gone from later cues"}`,
});

export const setList = defineIntent({
  kind: "setList",
  fields: { list: z.string(), change: CueListSchema.pick({ name: true, priority: true, backTime: true, releaseTime: true, end: true, wrapDrop: true }).partial() },
  apply(world, { list, change }) {
    const found = world.show.lists[list] ?? fail("that list does not exist");
    Object.assign(found, change);
  },
  says: ({ show }, { list, change }) => `list ${show.lists[list]?.number ?? ""}: ${Object.entries(change).map(([key, value]) => `${key} ${value}`).join(", ")}`,
});
