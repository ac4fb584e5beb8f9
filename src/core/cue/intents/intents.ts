/** Editing cues and lists, as intents. */
import { z } from "../../units/zod";
import { FAMILIES } from "../../fixture/attribute";
import { sameEffect } from "../../effect/voices";
import { effectText } from "../../effect/words";
import { defineIntent } from "../../show/change/intent";
import { IdSchema, type ParamKey } from "../../show/ids";
import { fail } from "../../show/refusal";
import { FramesSchema } from "../../show/deckSchema";
import {
  BENDS,
  cueNumber,
  CueListSchema,
  wholeNumber,
  CueTimesSchema,
  hasManyCues,
  ReachSchema,
  TriggerSchema,
} from "../../show/schema";
import { ends, sameValue, type Entry } from "../../show/value";
import { cuesOf, sameCueNumber } from "../../show/world";
import { plainShow } from "../../palette/intents";
import { cueIn, cueLabel, keepingLooks, listIn, listNumberedOrNew, roundCueNumber, snapshot } from "./cueDraft";
import { cueText, exact, listText } from "../../show/words/lineText";
import { FADER_ROLES, setRoles } from "../faderRoles";
import { optionLines, settingLines } from "./settingLines";
import { sayOwnWays, setOwnWays } from "./course";
import { timesText } from "../times";
import { entriesInForce, inForceAt, trackingOf } from "../tracking";

const inCue = { list: IdSchema, cue: IdSchema };

export const setCue = defineIntent({
  kind: "setCue",
  fields: {
    ...inCue,
    name: z.string().max(200).optional(),
    note: z.string().max(2000).optional(),
    times: CueTimesSchema.omit({ families: true, curve: true }).partial().optional(),
    curve: z.enum(["linear", ...BENDS]).optional(),
    trigger: TriggerSchema.optional(),
    reach: ReachSchema.nullable().optional(),
    fresh: z.boolean().optional(),
    assert: z.boolean().optional(),
    /** The cue its next plain go leads to; null for the one after. */
    then: IdSchema.nullable().optional(),
    runs: z.string().max(500).optional(),
    /** Fixtures whose moves in the dark are meant, besides those that are; none takes all back. */
    meant: z.array(IdSchema).max(20_000).optional(),
    /** Null goes by the list. */
    blackMoves: z.object({ on: z.boolean().nullable(), fixtures: z.array(IdSchema).max(20_000).optional() }).optional(),
    ready: z.boolean().nullable().optional(),
    /** Of a morph: its place along the level, percent; null for the one it has by itself. */
    place: z.number().positive().max(100).nullable().optional(),
    /** On timecode: when it comes, frames; null for no time. */
    at: FramesSchema.nullable().optional(),
    family: z
      .object({
        name: z.enum(FAMILIES),
        delay: z.number().min(0).optional(),
        fade: z.number().min(0).optional(),
        /** Its times are the cue's again. */
        off: z.literal(true).optional(),
      })
      .optional(),
  },
  apply(world, { list, cue: id, name, note, times, trigger, reach, fresh, assert, family, ...more }) {
    const cue = cueIn(world, list, id);
    if (name !== undefined) cue.name = name;
    if (note !== undefined) cue.note = note;
    if (trigger) cue.trigger = trigger;
    if (reach !== undefined) cue.reach = reach;
    if (fresh !== undefined) cue.fresh = fresh;
    if (assert !== undefined) cue.assert = assert;
    Object.assign(cue.times, times ?? {});
    setOwnWays(world, list, cue, more);
    if (family) {
      const { name: which, off, ...given } = family;
      if (off) delete cue.times.families[which];
      else cue.times.families[which] = { ...cue.times.families[which], ...given };
    }
  },
  says(world, { list, cue, name, note, times, trigger, reach, fresh, assert, family, ...more }) {
    const owner = world.show.lists[list];
    const now = owner?.cues[cue];
    const parts = [
      name !== undefined && `name "${name}"`,
      note !== undefined && `note "${note}"`,
      times && now && `fade ${timesText({ ...now.times, ...times })} s`,
      trigger && (trigger.kind === "go" ? "waits for go" : `follows by itself after ${trigger.after} s`),
      reach !== undefined &&
        (reach === null
          ? "reaches all later cues"
          : "more" in reach
            ? `reaches the next ${reach.more} cues, those recorded later included`
            : `reaches up to cue ${"upTo" in reach ? reach.upTo : (owner?.cues[reach.cue]?.number ?? "?")}`),
      fresh !== undefined && (fresh ? "fresh start: nothing before it tracks in" : "lets earlier cues track in"),
      assert !== undefined &&
        (assert
          ? "asserts: on go, takes back everything it tracks from other lists"
          : "assert off: go moves only what changes"),
      ...sayOwnWays(owner, more, world.show.timecode.rate),
      family &&
        `${family.name.toLowerCase()} ${family.off ? "by the cue's time" : ""}${family.delay !== undefined ? `delay ${family.delay} ` : ""}${family.fade !== undefined ? `fade ${family.fade}` : ""}`.trim(),
    ].filter(Boolean);
    return `${cueLabel(world, list, cue)}: ${parts.join(", ")}`;
  },
  lines: (world, { list, cue, ...change }) =>
    settingLines(change, world.show, world.show.lists[list], cue).map(
      (text) => `set ${cueText(world, list, cue)} ${text}`,
    ),
});

/** Deletes a cue; unless it is let track, later looks stay. A reach that ended at it ends at the cue before. */
export const deleteCue = defineIntent({
  kind: "deleteCue",
  fields: { ...inCue, keepLooks: z.boolean() },
  apply(world, { list: listId, cue: id, keepLooks }) {
    const cue = cueIn(world, listId, id);
    const list = listIn(world, listId);
    const touched = Object.keys(cue.entries);
    const { number } = cue;
    const order = cuesOf(snapshot(list));
    const before = order[order.findIndex((c) => c.id === id) - 1];
    const edit = () => {
      delete list.cues[id];
      for (const other of Object.values(list.cues)) {
        if (other.reach && "cue" in other.reach && other.reach.cue === id)
          other.reach = before ? { cue: before.id } : null;
        if (other.then === id) delete other.then;
      }
    };
    if (keepLooks) keepingLooks(world, list, [], edit, { number, touched });
    else edit();
  },
  says: (world, { list, cue, keepLooks }) =>
    `deletes ${cueLabel(world, list, cue)}${keepLooks ? "; later looks stay" : "; the looks of later cues can change"}`,
  lines: (world, { list, cue, keepLooks }) => [
    `delete ${cueText(world, list, cue)} ${keepLooks ? "keeplooks" : "track"}`,
  ],
});

/** Everything in force becomes stored here. */
export const blockCue = defineIntent({
  kind: "blockCue",
  fields: inCue,
  apply(world, { list: listId, cue: id }) {
    const cue = cueIn(world, listId, id);
    const list = listIn(world, listId);
    const plain = snapshot(list);
    const place = cuesOf(plain).findIndex((c) => c.id === id);
    const all = entriesInForce(plain, place, plainShow(world));
    keepingLooks(world, list, [id], () => {
      for (const [key, entry] of all) {
        const stored = cue.entries[key];
        cue.entries[key] = stored ? { ...entry, ...stored } : entry;
      }
    });
  },
  says: (world, { list, cue }) => `stores everything in force in ${cueLabel(world, list, cue)}`,
  lines: (world, { list, cue }) => [`block ${cueText(world, list, cue)}`],
});

/** Drops stored entries equal to what would track in, whatever their own timing. */
export const unblockCue = defineIntent({
  kind: "unblockCue",
  fields: inCue,
  apply(world, { list: listId, cue: id }) {
    const cue = cueIn(world, listId, id);
    const list = listIn(world, listId);
    const plain = snapshot(list);
    const place = cuesOf(plain).findIndex((c) => c.id === id);
    if (cue.fresh) return;
    const bare = { ...plain, cues: { ...plain.cues, [id]: { ...plain.cues[id]!, entries: {} } } };
    const tracking = trackingOf(bare, plainShow(world));
    keepingLooks(world, list, [], () => {
      for (const [key, entry] of Object.entries<Entry>(plain.cues[id]!.entries) as Iterable<[ParamKey, Entry]>) {
        const value = inForceAt(tracking, key, place)?.entry;
        const effect = inForceAt(tracking, key, place, false, "effect")?.entry.effect;
        // A release equals nothing in force, and so does a stop.
        const sameV = value ? sameValue(value, entry) : ends(entry, "value");
        const sameE = entry.effect !== undefined && (effect ? sameEffect(effect, entry.effect) : ends(entry, "effect"));
        const kept = {
          ...(entry.value === undefined || sameV ? {} : { value: entry.value }),
          ...(entry.effect === undefined || sameE ? {} : { effect: entry.effect }),
        };
        if (Object.keys(kept).length === 0) delete cue.entries[key];
        else if (sameV || sameE)
          cue.entries[key] = { attribute: entry.attribute, ...kept, ...(entry.time ? { time: entry.time } : {}) };
      }
    });
  },
  says: (world, { list, cue }) => `drops from ${cueLabel(world, list, cue)} what would track in anyway`,
  lines: (world, { list, cue }) => [`unblock ${cueText(world, list, cue)}`],
});

/** Gives a cue another number, and so another place. */
export const moveCue = defineIntent({
  kind: "moveCue",
  fields: { ...inCue, to: cueNumber, keepLooks: z.boolean() },
  apply(world, { list: listId, cue: id, to, keepLooks }) {
    const cue = cueIn(world, listId, id);
    const list = listIn(world, listId);
    const number = roundCueNumber(to);
    if (Object.values(list.cues).some((c) => c.id !== id && sameCueNumber(c.number, number)))
      fail(`cue ${number} exists already`, "Choose a number that is free");
    const edit = () => void (cue.number = number);
    if (keepLooks) keepingLooks(world, list, [id], edit);
    else edit();
  },
  says: (world, { list, cue, to, keepLooks }) =>
    `moves ${cueLabel(world, list, cue)} to cue ${roundCueNumber(to)}${keepLooks ? "; other looks stay" : "; what it stores tracks from there"}`,
  lines: (world, { list, cue, to, keepLooks }) => [
    `move ${cueText(world, list, cue)} to cue ${exact(roundCueNumber(to))} ${keepLooks ? "keeplooks" : "track"}`,
  ],
});

/** New numbers for all cues, in their order. */
export const renumberCues = defineIntent({
  kind: "renumberCues",
  fields: { list: IdSchema, from: cueNumber, step: cueNumber },
  apply(world, { list: listId, from, step }) {
    const list = listIn(world, listId);
    const order = cuesOf(snapshot(list)).map((cue) => cue.id);
    const reaches = new Map(cuesOf(snapshot(list)).map((c) => [c.number, c.id]));
    order.forEach((id, i) => (list.cues[id]!.number = roundCueNumber(from + i * step)));
    for (const cue of Object.values(list.cues)) {
      if (!cue.reach || !("upTo" in cue.reach)) continue;
      const end = [...reaches].filter(([number]) => number <= (cue.reach as { upTo: number }).upTo + 0.0005).at(-1);
      if (end) cue.reach = { upTo: list.cues[end[1]]!.number };
    }
  },
  says: ({ show }, { list, from, step }) =>
    `renumbers the cues of list ${show.lists[list]?.number ?? ""} from ${from} by ${step}`,
  lines: (world, { list, from, step }) => [`renumber ${listText(world, list)} from ${exact(from)} step ${exact(step)}`],
});

export const setList = defineIntent({
  kind: "setList",
  fields: {
    list: IdSchema,
    change: CueListSchema.omit({
      id: true,
      number: true,
      cues: true,
      effect: true,
      fader: true,
      raised: true,
      zero: true,
      timecode: true,
      tempo: true,
    })
      .extend({
        fader: z.enum(FADER_ROLES),
        raised: z.enum(["go", "wait"]),
        zero: z.enum(["release", "hold"]),
        timecode: z.boolean(),
        /** Null is its own. */
        tempo: CueListSchema.shape.tempo.unwrap().nullable(),
      })
      .partial(),
  },
  apply(world, { list, change }) {
    const found = listIn(world, list);
    if (change.kind === "effect") fail("say which effect it plays", `Such as: set list ${found.number} kind effect 1`);
    if (change.kind && !hasManyCues({ kind: change.kind }) && Object.keys(found.cues).length > 1)
      fail(
        `list ${found.number} has several cues, so it cannot be a ${change.kind}`,
        "A submaster, limiter or takeover holds one cue",
      );
    const { fader, raised, zero, timecode, tempo, ...plainly } = change;
    Object.assign(found, plainly);
    setRoles(found, { fader, raised, zero });
    if (timecode === true) found.timecode = true;
    else if (timecode === false) delete found.timecode;
    if (tempo === null) delete found.tempo;
    else if (tempo !== undefined) found.tempo = tempo;
    if (change.bpm !== undefined && found.tempo !== undefined)
      for (const other of Object.values(world.show.lists)) if (other.tempo === found.tempo) other.bpm = change.bpm;
    if (change.kind) delete found.effect;
  },
  says: ({ show }, { list, change }) =>
    `list ${show.lists[list]?.number ?? ""}: ${Object.entries(change)
      .map(
        ([key, value]) =>
          `${key === "fadeIn" ? "fade" : key} ${value === null ? "own" : typeof value === "boolean" ? (value ? "on" : "off") : value}`,
      )
      .join(", ")}`,
  lines: (world, { list, change }) => optionLines(change).map((text) => `set ${listText(world, list)} ${text}`),
});

/** A list plays a cast effect; made where there is none of that number. */
export const playEffect = defineIntent({
  kind: "playEffect",
  fields: { list: wholeNumber, effect: IdSchema },
  apply(world, { list: number, effect: id }) {
    const effect = world.show.effects[id] ?? fail("that effect does not exist");
    if (!effect.cast)
      fail(
        `effect ${effect.number} takes the selection, so a lane cannot play it`,
        `Cast it on fixtures: set effect ${effect.number} cast 1 thru 12`,
      );
    const list = listNumberedOrNew(world, number);
    if (Object.keys(list.cues).length > 0)
      fail(`list ${number} has cues, so it cannot play an effect`, "Choose an empty list");
    if (list.name === `List ${number}` && effect.name) list.name = effect.name;
    list.kind = "effect";
    list.effect = id;
  },
  says: (world, { list, effect }) =>
    `list ${list} plays ${effectText(world, effect)}: go starts it, release ends it, its level scales the mix`,
  lines: ({ show }, { list, effect }) => [`set list ${list} kind effect ${show.effects[effect]?.number ?? "?"}`],
});
