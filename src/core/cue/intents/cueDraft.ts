/** Finding and changing cues inside an intent. */
import { current, isDraft } from "immer";
import { newId, type WorldDraft } from "../../show/change/intent";
import type { Id, ParamKey } from "../../show/ids";
import { fail } from "../../show/refusal";
import type { Cue, CueList, Show } from "../../show/schema";
import { newList, type World } from "../../show/world";
import { settleReaches } from "../reach";
import { forNextCue, mergedEntries, repairs, type Additions } from "../keepLooks";
import { newTimes } from "../times";

/** Cue numbers as they are written: at most three places. */
export const roundCueNumber = (number: number): number => Math.round(number * 1000) / 1000;

/** An empty cue that waits for go, with the usual times. */
export const newCue = (id: Id, number: number): Cue => ({
  id,
  number,
  name: "",
  note: "",
  times: newTimes(),
  trigger: { kind: "go" },
  reach: null,
  fresh: false,
  assert: false,
  entries: {},
});

/** The list of a number, made where there is none. */
export function listNumberedOrNew(world: WorldDraft, number: number): CueList {
  const found = Object.values(world.show.lists).find((list) => list.number === number);
  if (found) return found;
  const id = newId(world, "l");
  world.show.lists[id] = newList(id, number);
  if (!world.show.lists[world.hands.armed]) world.hands.armed = id;
  return world.show.lists[id];
}

/** The list of that id; ends with `fail` where it is gone. */
export const listIn = (world: WorldDraft, list: Id): CueList =>
  world.show.lists[list] ?? fail("that list does not exist");

/** The cue of that id; ends with `fail` where it or its list is gone. */
export const cueIn = (world: WorldDraft, list: Id, cue: Id): Cue =>
  listIn(world, list).cues[cue] ?? fail("that cue does not exist");

/** A cue in words: its number and, where it is not list 1, its list. */
export function cueLabel({ show }: World, list: Id, cue: Id): string {
  const owner = show.lists[list];
  return `cue ${owner?.cues[cue]?.number ?? "?"}${owner && owner.number !== 1 ? ` of list ${owner.number}` : ""}`;
}

/** A draft's part as it is now, apart from later changes; a list just made is plain already. */
export const snapshot = <T extends object>(draft: T): T =>
  isDraft(draft) ? current(draft as never) : (JSON.parse(JSON.stringify(draft)) as T);

function put(list: CueList, additions: Additions): void {
  for (const [id, entries] of additions) {
    const cue = list.cues[id]!;
    Object.assign(cue.entries, mergedEntries(snapshot(cue).entries, entries));
  }
}

/** What an edit of a cue means for later ones: the next keeps its look, all do, or they track. */
export const LOOKS = ["cueonly", "keeplooks", "track"] as const;
export type Looks = (typeof LOOKS)[number];

/** The end of a sentence about an edit. */
export const looksText = (looks: Looks | undefined): string =>
  looks === "cueonly" ? "; the next cue keeps its look" : looks === "keeplooks" ? "; later looks stay" : "";

/** Does an edit of a cue and keeps the looks asked for. @param next what was touched, for *cue only*. */
export function keepingAs(
  looks: Looks | undefined,
  world: WorldDraft,
  list: CueList,
  cue: Id,
  edit: () => void,
  next: () => { number: number; touched: Iterable<ParamKey> },
): void {
  if (looks === "cueonly") keepingLooks(world, list, [cue], edit, next());
  else if (looks === "keeplooks") keepingLooks(world, list, [cue], edit);
  else edit();
}

/**
 * Does an edit of a list's cues and keeps the looks of the others.
 * @param next with touched parameters: the cue after this number gets what was in force for them there (cue only).
 */
export function keepingLooks(
  world: WorldDraft,
  list: CueList,
  exempt: readonly Id[],
  edit: () => void,
  next?: { number: number; touched: Iterable<ParamKey> },
): void {
  const before = snapshot(list);
  edit();
  settleReaches(list, exempt);
  if (next) put(list, forNextCue(snapshot(world.show as Show), before, snapshot(list), next.number, next.touched));
  put(list, repairs(snapshot(world.show as Show), before, snapshot(list), new Set(exempt)));
}
