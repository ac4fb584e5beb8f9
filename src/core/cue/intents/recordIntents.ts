/** Recording, updating and taking cues, as intents. */
import { z } from "../../units/zod";
import { plainShow } from "../../palette/intents";
import { heldSummary, recordable } from "../../program/intents";
import { defineIntent, newId } from "../../show/change/intent";
import { IdSchema, type ParamKey } from "../../show/ids";
import { fail } from "../../show/refusal";
import { cueNumber, hasManyCues, TriggerSchema, wholeNumber, type CueList } from "../../show/schema";
import { EntriesSchema, ends, type Entry } from "../../show/value";
import { cueNumbered, cuesOf, listNumbered, sameCueNumber, type World } from "../../show/world";
import {
  cueIn,
  cueLabel,
  keepingAs,
  listIn,
  LOOKS,
  looksText,
  listNumberedOrNew,
  newCue,
  roundCueNumber,
  snapshot,
} from "./cueDraft";
import { storeEntries } from "../effects";
import { settleReaches } from "../reach";
import { cueText, exact, quote } from "../../show/words/lineText";
import { asItWas, plainly } from "../../show/change/plainly";
import { timesLine, triggerLine } from "./settingLines";
import { namesIn } from "../../units/names";
import { newTimes, timesText } from "../times";
import { entriesInForce } from "../tracking";
import { plural } from "../../units/plural";

const timesGiven = z.object({ up: z.number(), down: z.number(), delayUp: z.number(), delayDown: z.number() }).partial();

/** Records what is held (or the entries given: the stage) as a cue; onto one that exists it merges unless told otherwise. */
export const recordCue = defineIntent({
  kind: "recordCue",
  fields: {
    list: wholeNumber,
    cue: cueNumber,
    name: z.string().max(200).optional(),
    times: timesGiven.optional(),
    trigger: TriggerSchema.optional(),
    onto: z.enum(["merge", "overwrite"]).optional(),
    /** What later cues get; they track unless told. */
    looks: z.enum(LOOKS).optional(),
    empty: z.boolean().optional(),
    entries: EntriesSchema.optional(),
  },
  apply(world, intent) {
    const held = intent.empty ? {} : (intent.entries ?? recordable({ hands: plainly(world.hands) }));
    if (!intent.empty && Object.keys(held).length === 0)
      fail(
        Object.keys(world.hands.held).length > 0 && !intent.entries
          ? "all that is held is kept out of recording"
          : "nothing is held, so there is nothing to record",
        "Set a value first, or record an empty cue with: empty",
      );
    const number = roundCueNumber(intent.cue);
    // Before anything is changed: then it is as it stands, and is not copied.
    const show = plainShow(world);
    const list = listNumberedOrNew(world, intent.list);
    if (list.kind === "effect")
      fail(`list ${list.number} plays an effect and holds no cues`, "Record onto another list");
    if (!hasManyCues(list) && cuesOf(list).some((c) => !sameCueNumber(c.number, number)))
      fail(`list ${list.number} is a ${list.kind} and holds one cue`, `Record onto cue ${cuesOf(list)[0]!.number}`);
    // Thousands of cues are slow to go through in a draft.
    const was = asItWas(list);
    const old = was && cueNumbered(was, number);
    const id = old?.id ?? newId(world, "c");
    const dropped = old && intent.onto === "overwrite" ? namesIn(old.entries) : [];
    const edit = () => {
      if (!old) list.cues[id] = newCue(id, number);
      const cue = list.cues[id]!;
      if (dropped.length > 0) cue.entries = {};
      storeEntries(show, list, cue, held, snapshot, was);
      if (intent.name !== undefined) cue.name = intent.name;
      Object.assign(cue.times, intent.times ?? {});
      if (intent.trigger) cue.trigger = intent.trigger;
    };
    keepingAs(intent.looks, world, list, id, edit, () => ({
      number,
      touched: new Set([...Object.keys(held), ...dropped]),
    }));
    settleReaches(list);
  },
  says(world, intent) {
    const list = listNumbered(world.show, intent.list);
    const old = list && cueNumbered(list, intent.cue);
    const what = intent.empty
      ? "nothing (an empty cue)"
      : intent.entries
        ? `${Object.keys(intent.entries).length} values from the stage`
        : heldSummary(world);
    const where = `cue ${roundCueNumber(intent.cue)}${list && list.number === 1 ? "" : ` of list ${intent.list}`}`;
    const how = old
      ? intent.onto === "overwrite"
        ? `overwrites ${where} with`
        : `merges into ${where}`
      : `records a new ${where}`;
    const times = intent.times ? `, fade ${timesText({ ...(old?.times ?? newTimes()), ...intent.times })} s` : "";
    return `${how}: ${what}${times}${looksText(intent.looks)}`;
  },
  lines: (_, { list, cue, name, times, trigger, onto, looks, empty, entries }) => [
    [
      `record list ${list} cue ${exact(roundCueNumber(cue))}`,
      name !== undefined && quote(name),
      timesLine(times ?? {}),
      trigger && trigger.kind !== "go" && triggerLine(trigger),
      looks !== undefined && looks !== "track" && looks,
      onto,
      entries && "from stage",
      empty && "empty",
    ]
      .filter(Boolean)
      .join(" "),
  ],
});

/** Writes the held values into a cue where it stores that parameter; with `all`, the rest as well. */
export const updateCue = defineIntent({
  kind: "updateCue",
  fields: { list: IdSchema, cue: IdSchema, all: z.boolean(), looks: z.enum(LOOKS).optional() },
  apply(world, { list: listId, cue: id, all, looks }) {
    const show = plainShow(world);
    const cue = cueIn(world, listId, id);
    const held: Readonly<Record<ParamKey, Entry>> = recordable({ hands: plainly(world.hands) });
    if (Object.keys(held).length === 0) fail("nothing is held to update with", "Set a value first");
    const keys = Object.keys(held).filter((key) => all || cue.entries[key]);
    if (keys.length === 0) fail(`cue ${cue.number} stores none of what is held`, "To add it, say: update cue ... all");
    const edit = () => {
      const timed = keys.map((key): [ParamKey, Entry] => {
        const time = held[key]!.time ?? cue.entries[key]?.time;
        return [key, { ...held[key]!, ...(time ? { time } : {}) }];
      });
      const list = listIn(world, listId);
      storeEntries(show, list, cue, Object.fromEntries(timed), snapshot, asItWas(list));
    };
    keepingAs(looks, world, listIn(world, listId), id, edit, () => ({ number: cue.number, touched: keys }));
  },
  says(world, { list, cue, all, looks }) {
    const stored = world.show.lists[list]?.cues[cue]?.entries ?? {};
    const n = Object.keys(recordable(world)).filter((key) => all || stored[key]).length;
    return `writes ${plural(n, "held value")} into ${cueLabel(world, list, cue)}${looksText(looks)}`;
  },
  lines: (world, { list, cue, all, looks }) => [
    `update ${cueText(world, list, cue)}${all ? " all" : ""}${looks && looks !== "track" ? ` ${looks}` : ""}`,
  ],
});

/** Takes what a cue stores, with its timing, into the programmer; with `all`, everything in force. */
export const takeCue = defineIntent({
  kind: "takeCue",
  fields: { list: IdSchema, cue: IdSchema, all: z.boolean() },
  apply(world, { list: listId, cue: id, all }) {
    const cue = cueIn(world, listId, id);
    const show = (world as unknown as World).show;
    const list = show.lists[listId]!;
    if (!all) return void Object.assign(world.hands.held, cue.entries);
    const plain = JSON.parse(JSON.stringify(list)) as CueList;
    const place = cuesOf(plain).findIndex((c) => c.id === id);
    for (const [key, entry] of entriesInForce(plain, place, plainShow(world))) {
      const time = cue.entries[key]?.time;
      world.hands.held[key] = time ? { ...entry, time } : entry;
    }
    for (const [key, entry] of Object.entries(cue.entries)) if (ends(entry, "value")) world.hands.held[key] = entry;
  },
  says: (world, { list, cue, all }) =>
    `takes ${all ? "everything in force in" : "what is stored in"} ${cueLabel(world, list, cue)} into the programmer`,
  lines: (world, { list, cue, all }) => [`take ${cueText(world, list, cue)}${all ? " all" : ""}`],
});
