/** Copying cues: what they store, what is seen in them or everything in force, to another place (SEMANTICS 4, 9). */
import { z } from "../../units/zod";
import { plainShow } from "../../palette/intents";
import { isLitBy } from "../../program/light";
import { defineIntent, newId } from "../../show/change/intent";
import { IdSchema, paramKey, splitKey, type Id, type ParamKey } from "../../show/ids";
import { cueText, exact } from "../../show/words/lineText";
import { modelOf, specOf } from "../../show/model";
import { fail } from "../../show/refusal";
import { cueNumber, hasManyCues, wholeNumber, type Cue, type CueList, type Show } from "../../show/schema";
import { RELEASE, STOP, type Entry } from "../../show/value";
import { cuesOf, listNumbered, sameCueNumber } from "../../show/world";
import { cueLabel, keepingLooks, listNumberedOrNew, newCue, roundCueNumber, snapshot } from "./cueDraft";
import { effectAt, storeEntries } from "../effects";
import { fixtureLook } from "../looks";
import { settleReaches } from "../reach";
import { entriesInForce, storedIn, trackingOf } from "../tracking";

export const BRINGS = ["stored", "seen", "everything"] as const;
export type Bring = (typeof BRINGS)[number];
export const ELSEWHERE = ["keep", "defaults", "release"] as const;
export type Elsewhere = (typeof ELSEWHERE)[number];

type Entries = Record<ParamKey, Entry>;

/** Everything in force in a cue; what it stores itself keeps its own timing. */
function inForce(show: Show, list: CueList, place: number): Entries {
  const { entries } = cuesOf(list)[place]!;
  const found: Entries = {};
  for (const [key, entry] of entriesInForce(list, place, show)) {
    const time = entries[key]?.time;
    found[key] = time ? { ...entry, time } : entry;
  }
  return found;
}

/** What is seen in a cue: all that is in force on lit fixtures; intensity alone, at 0, of dark ones that either list uses. */
function seenIn(show: Show, list: CueList, place: number, to: CueList): Entries {
  const tracking = trackingOf(list, show);
  const lit = (id: Id): boolean => {
    const fixture = show.fixtures[id];
    return fixture !== undefined && fixtureLook(show, fixture, tracking, place) !== null;
  };
  const made: Entries = {};
  const known = new Map<Id, boolean>();
  const isLit = (id: Id): boolean => {
    const held = known.get(id) ?? lit(id);
    known.set(id, held);
    return held;
  };
  for (const [key, entry] of Object.entries(inForce(show, list, place)))
    if (isLit(splitKey(key).fixture)) made[key] = entry;
  const used = [...tracking.columns.keys(), ...storedIn(to).columns.keys()];
  for (const id of new Set(used.map((key) => splitKey(key).fixture))) {
    const fixture = show.fixtures[id];
    if (!fixture || isLit(id)) continue;
    const { specs } = modelOf(show, fixture);
    // One without a Dimmer is lit always.
    if (isLitBy(specs, () => false)) continue;
    for (const { cell, head } of specs)
      if (head === "Dimmer" && (cell === 0 || !specs.some((s) => s.head === "Dimmer" && s.cell === 0)))
        made[paramKey(id, cell, "Dimmer")] = { attribute: "Dimmer", value: 0 };
  }
  return made;
}

/** What the list uses, or used before, and a copy does not bring, by what is chosen for it. */
function elsewhereIn(
  show: Show,
  list: CueList,
  before: CueList,
  place: number,
  brought: Entries,
  how: Elsewhere,
): Entries {
  const made: Entries = {};
  if (how === "keep") return made;
  const tracking = trackingOf(list, show);
  for (const key of new Set([...tracking.columns.keys(), ...storedIn(before).columns.keys()])) {
    const spec = brought[key] ? undefined : specOf(show, key);
    if (!spec) continue;
    const plays =
      tracking.columns.get(key)?.effects && effectAt(show, tracking, key, place) !== undefined ? { effect: STOP } : {};
    made[key] = { attribute: spec.head, value: how === "defaults" ? spec.default : RELEASE, ...plays };
  }
  return made;
}

const broughtFrom = (show: Show, list: CueList, cue: Cue, to: CueList, bring: Bring): Entries => {
  const place = cuesOf(list).findIndex((c) => c.id === cue.id);
  return bring === "stored"
    ? { ...cue.entries }
    : bring === "seen"
      ? seenIn(show, list, place, to)
      : inForce(show, list, place);
};

/** The cues from one to another, in order. */
const rangeOf = (list: CueList, from: Id, thru: Id | undefined): readonly Cue[] => {
  const cues = cuesOf(list);
  const [a, b] = [cues.findIndex((c) => c.id === from), cues.findIndex((c) => c.id === (thru ?? from))];
  return cues.slice(Math.min(a, b), Math.max(a, b) + 1);
};

/** Copies a cue, or several that keep their distances, to another number, or to another list. */
export const copyCue = defineIntent({
  kind: "copyCue",
  fields: {
    list: IdSchema,
    cue: IdSchema,
    /** The last of several. */
    thru: IdSchema.optional(),
    toList: wholeNumber,
    to: cueNumber,
    bring: z.enum(BRINGS),
    elsewhere: z.enum(ELSEWHERE),
    onto: z.enum(["merge", "overwrite"]),
    looks: z.enum(["cueonly", "keeplooks", "track"]),
  },
  apply(world, { list: from, cue, thru, toList, to, bring, elsewhere, onto, looks }) {
    const show = plainShow(world);
    const source = show.lists[from] ?? fail("that list does not exist");
    if (!source.cues[cue] || (thru !== undefined && !source.cues[thru])) fail("that cue does not exist");
    const cues = rangeOf(source, cue, thru);
    const list = listNumberedOrNew(world, toList);
    if (list.kind === "effect") fail(`list ${toList} plays an effect and holds no cues`, "Copy to another list");
    const first = cues[0]!.number;
    const target = snapshot(list);
    const copies = cues.map((c) => ({
      cue: c,
      number: roundCueNumber(to + c.number - first),
      entries: broughtFrom(show, source, c, target, bring),
    }));
    if (
      !hasManyCues(list) &&
      new Set([...copies.map((c) => c.number), ...cuesOf(target).map((c) => c.number)]).size > 1
    )
      fail(`list ${toList} is a ${list.kind} and holds one cue`, "Copy to another list");
    for (const copy of copies)
      if (list.id === from && sameCueNumber(copy.number, copy.cue.number))
        fail(`cue ${exact(copy.number)} would be copied onto itself`, "Choose another number");
    const ids = copies.map(
      ({ number }) => Object.values(list.cues).find((c) => sameCueNumber(c.number, number))?.id ?? newId(world, "c"),
    );
    const touched = new Set<ParamKey>();
    const edit = () => {
      copies.forEach(({ cue: c, number, entries }, k) => {
        const id = ids[k]!;
        const old = target.cues[id];
        const made = !old || onto === "overwrite";
        if (!old) list.cues[id] = newCue(id, number);
        const into = list.cues[id]!;
        // With a word for all else, nothing of what was there is left: no effect beside a value that comes.
        if (made || elsewhere !== "keep")
          for (const key of Object.keys(into.entries)) {
            touched.add(key);
            delete into.entries[key];
          }
        if (made) Object.assign(into, { name: c.name, note: c.note, times: c.times, trigger: c.trigger });
        const now = snapshot(list);
        const place = cuesOf(now).findIndex((x) => x.id === id);
        const all = { ...elsewhereIn(show, now, target, place, entries, elsewhere), ...entries };
        for (const key of Object.keys(all)) touched.add(key);
        storeEntries(show, list, into, all, snapshot);
      });
    };
    if (looks === "track") edit();
    else if (looks === "keeplooks") keepingLooks(world, list, ids, edit);
    else keepingLooks(world, list, ids, edit, { number: copies.at(-1)!.number, touched });
    settleReaches(list);
  },
  says(world, { list, cue, thru, toList, to, bring, elsewhere, onto, looks }) {
    const source = world.show.lists[list];
    const n = source ? rangeOf(source, cue, thru).length : 0;
    const target = listNumbered(world.show, toList);
    const exists = target && cuesOf(target).some((c) => sameCueNumber(c.number, to));
    const where = `cue ${exact(roundCueNumber(to))}${target?.number === 1 ? "" : ` of list ${toList}`}`;
    const what = { stored: "what it stores", seen: "what is seen", everything: "everything in force" }[bring];
    return [
      `copies ${cueLabel(world, list, cue)}${n > 1 ? ` and ${n - 1} more` : ""} to ${where}: ${what}`,
      exists && (onto === "overwrite" ? "in place of what is there" : "merged with what is there"),
      elsewhere === "defaults" && "all else the list uses at its default",
      elsewhere === "release" && "all else the list uses released",
      looks === "cueonly" && "the next cue keeps its look",
      looks === "keeplooks" && "later looks stay",
    ]
      .filter(Boolean)
      .join("; ");
  },
  lines: (world, { list, cue, thru, toList, to, bring, elsewhere, onto, looks }) => [
    [
      `copy ${cueText(world, list, cue)}`,
      thru !== undefined && `thru ${exact(world.show.lists[list]?.cues[thru]?.number ?? 0)}`,
      `to list ${toList} cue ${exact(roundCueNumber(to))}`,
      bring !== "stored" && `bring ${bring}`,
      elsewhere !== "keep" && `elsewhere ${elsewhere}`,
      onto !== "merge" && onto,
      looks !== "track" && looks,
    ]
      .filter(Boolean)
      .join(" "),
  ],
});
