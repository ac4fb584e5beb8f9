/** Moves in the dark that come too late, on paper: as if each go came when the cue before is complete (SEMANTICS 8). */
import { attributeInfo } from "../fixture/attribute";
import { isIntensity } from "../program/light";
import { resolveEntry, type Resolving } from "../program/resolve";
import type { Id, ParamKey } from "../show/ids";
import { specOf } from "../show/model";
import type { Cue, CueList, Fixture, Show } from "../show/schema";
import { cuesOf } from "../show/world";
import { secondsOf } from "../timecode/frames";
import { isLitIn, lastLitIn, lifeOf, usedIn } from "./life";
import { partsOf } from "./looks";
import { moveTime } from "./times";
import { inForceAt, trackingOf, type Tracking } from "./tracking";

type Living = Resolving & Pick<Show, "types" | "fixtures" | "timecode">;

export interface Late {
  /** Place of the cue that lights it. */
  at: number;
  cue: Id;
  fixture: Id;
  keys: readonly ParamKey[];
  /** Seconds that are missing; all of the move where there is no dark time at all. */
  by: number;
  /** There is no dark time at all: it comes up changing. */
  changing: boolean;
}

/** Delay and fade of what a cue stores for a parameter, seconds. @param at its place. */
function timeAt(
  show: Living,
  tracking: Tracking,
  cue: Cue,
  at: number,
  key: ParamKey,
): { delay: number; fade: number } {
  const spec = specOf(show, key);
  const entry = cue.entries[key];
  if (!spec || !entry) return { delay: 0, fade: 0 };
  const [was, is] = [at - 1, at].map((place) => {
    const found = inForceAt(tracking, key, place);
    return (found && resolveEntry(show, key, spec, found.entry))?.value ?? spec.default;
  });
  return moveTime(cue.times, entry.attribute, is! < was!, entry.time);
}

const lengths = new WeakMap<Tracking, { show: Living; made: number[] }>();

/** How long each cue takes on paper, seconds: the largest delay + fade of what it stores; stepped moves count their delay. */
export function lengthsOf(show: Living, list: CueList): readonly number[] {
  const tracking = trackingOf(list, show);
  const known = lengths.get(tracking);
  if (known?.show === show) return known.made;
  const made = cuesOf(list).map((cue, at) => {
    let longest = 0;
    for (const key in cue.entries) {
      const { delay, fade } = timeAt(show, tracking, cue, at, key);
      const stepped = attributeInfo(cue.entries[key]!.attribute).stepped === true;
      longest = Math.max(longest, delay + (stepped ? 0 : fade));
    }
    return longest;
  });
  lengths.set(tracking, { show, made });
  return made;
}

/** How long a fixture takes to go dark in the cue at a place, seconds. */
function darkAfter(show: Living, tracking: Tracking, cue: Cue, at: number, fixture: Fixture): number {
  let longest = 0;
  for (const { key, spec } of partsOf(show, fixture)) {
    if (!isIntensity(spec) || !cue.entries[key]) continue;
    const { delay, fade } = timeAt(show, tracking, cue, at, key);
    longest = Math.max(longest, delay + fade);
  }
  return longest;
}

/** What of a fixture is another in a cue than where it was last seen, or at first. */
function changedSince(show: Living, tracking: Tracking, fixture: Fixture, from: number, at: number): ParamKey[] {
  return partsOf(show, fixture).flatMap(({ key, spec }) => {
    if (isIntensity(spec) || !tracking.columns.has(key)) return [];
    const [was, is] = [from, at].map((place) => {
      const found = inForceAt(tracking, key, place);
      return (found && resolveEntry(show, key, spec, found.entry)) ?? { value: spec.default, fn: 0 };
    });
    return was!.fn === is!.fn && Math.abs(was!.value - is!.value) <= 0.01 ? [] : [key];
  });
}

/** How long each cue stands: until it is complete, or until timecode brings the next. */
function timesBetween({ timecode }: Living, list: CueList, takes: readonly number[]): readonly number[] {
  if (!list.timecode) return takes;
  const cues = cuesOf(list);
  return takes.map((time, i) => {
    const [from, to] = [cues[i]!.at, cues[i + 1]?.at];
    return from !== undefined && to !== undefined && to > from ? secondsOf(to - from, timecode.rate) : time;
  });
}

/** Every move in black of a list, with how late it is: below 0 where there is time to spare. */
export function blackMovesIn(show: Living, list: CueList): Late[] {
  if (list.kind !== "list") return [];
  const cues = cuesOf(list);
  const tracking = trackingOf(list, show);
  const takes = timesBetween(show, list, lengthsOf(show, list));
  const upTo = [0];
  takes.forEach((t, i) => upTo.push(upTo[i]! + t));
  const found: Late[] = [];
  for (const fixture of usedIn(show, tracking)) {
    const life = lifeOf(show, list, fixture);
    for (const at of life.turns.filter((_, i) => i % 2 === 0)) {
      const cue = cues[at]!;
      const moves = cue.blackMovesOf?.[fixture.id] ?? cue.blackMoves ?? list.blackMoves;
      if (!moves && at > 0) continue;
      if (at === 0 || !isLitIn(life, at - 1)) {
        const seen = lastLitIn(life, at);
        const keys = changedSince(show, tracking, fixture, seen, at);
        if (keys.length === 0) continue;
        const dark = seen + 1;
        const room =
          seen < 0
            ? upTo[at]!
            : Math.max(0, takes[dark]! - darkAfter(show, tracking, cues[dark]!, dark, fixture)) +
              upTo[at]! -
              upTo[dark + 1]!;
        const by = Math.round((list.blackTime - room) * 1000) / 1000;
        found.push({ at, cue: cue.id, fixture: fixture.id, keys, by, changing: room <= 0.001 });
      }
    }
  }
  const number = (id: Id) => show.fixtures[id]?.number ?? 0;
  return found.sort((a, b) => a.at - b.at || number(a.fixture) - number(b.fixture));
}

/** Every move in black that cannot be complete in time, but for what is ready all the same. */
export function latesOf(show: Living, list: CueList): Late[] {
  const cues = cuesOf(list);
  return blackMovesIn(show, list).filter((m) => m.by > 0.001 && !(cues[m.at]!.ready ?? list.ready));
}
