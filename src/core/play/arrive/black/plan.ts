/** Which fixtures a list moves in black while it stands in a cue, and where to (SEMANTICS 8 and 9). */
import { isLitIn, lifeOf, nextLitIn, usedIn } from "../../../cue/life";
import { partsOf } from "../../../cue/looks";
import { inForceAt, trackingOf } from "../../../cue/tracking";
import { isIntensity } from "../../../program/light";
import { resolveEntry, type Resolving } from "../../../program/resolve";
import type { Id, ParamKey } from "../../../show/ids";
import type { Cue, CueList, Show } from "../../../show/schema";
import { cuesOf } from "../../../show/world";
import { listTime, type ListTime } from "../../../units/units";
import { countOf } from "../../stage/layers";

/** Where a parameter goes in the dark. */
export interface Target {
  key: ParamKey;
  value: number;
  fn: number;
  /** The count in the id of the cue whose entry it is. */
  cue: number;
}

/** One fixture's move in black: it waits until the fixture is dark, runs, is held while another source lights it, and is done. */
export interface BlackMove {
  fixture: Id;
  /** Place of the cue it gets ready for. */
  lights: number;
  to: Target[];
  /** The list's seconds it still takes; and the list time since when it runs, null while it does not. */
  left: number;
  since: ListTime | null;
  /** The list time before which it does not begin: a move that is meant is complete by then. */
  after: ListTime;
  begun: boolean;
  done: boolean;
}

type Planning = Resolving & Pick<Show, "types" | "fixtures">;

/** Whether a fixture moves in black for a cue that lights it: its own choice there, else the cue's, else the list's. */
export const movesInBlack = (list: CueList, lights: Cue, fixture: Id): boolean =>
  lights.blackMovesOf?.[fixture] ?? lights.blackMoves ?? list.blackMoves;

/**
 * The moves of a list that stands in the cue at a place: every fixture dark there that lights in a later one.
 * @param carried what tracked came round the end with it.
 */
export function planBlack(show: Planning, list: CueList, place: number, carried: boolean): BlackMove[] {
  const cues = cuesOf(list);
  if (place < 0 || place >= cues.length - 1) return [];
  if (!list.blackMoves && !cues.some((c) => c.blackMoves || c.blackMovesOf)) return [];
  const tracking = trackingOf(list, show);
  const planned: BlackMove[] = [];
  for (const fixture of usedIn(show, tracking)) {
    const life = lifeOf(show, list, fixture);
    if (isLitIn(life, place)) continue;
    const lights = nextLitIn(life, place);
    if (lights < 0 || !movesInBlack(list, cues[lights]!, fixture.id)) continue;
    const to: Target[] = [];
    for (const { key, spec } of partsOf(show, fixture)) {
      if (isIntensity(spec)) continue;
      const target = inForceAt(tracking, key, lights, carried);
      const resolved = target && resolveEntry(show, key, spec, target.entry);
      if (resolved) to.push({ key, ...resolved, cue: countOf(cues[target.at]!.id) });
    }
    if (to.length > 0)
      planned.push({
        fixture: fixture.id,
        lights,
        to,
        left: list.blackTime,
        since: null,
        after: listTime(-Infinity),
        begun: false,
        done: false,
      });
  }
  return planned;
}

/** Whether two moves lead to the same. */
export const sameTargets = (a: BlackMove, b: BlackMove): boolean =>
  a.to.length === b.to.length &&
  a.to.every((t, i) => {
    const o = b.to[i]!;
    return t.key === o.key && t.value === o.value && t.fn === o.fn && t.cue === o.cue;
  });
