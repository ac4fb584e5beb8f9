/** Drift: parameters that change while their fixture goes dark, or while it is dark (SEMANTICS 8). */
import type { Resolving } from "../program/resolve";
import type { Id } from "../show/ids";
import type { Cue, CueList, Show } from "../show/schema";
import { cuesOf } from "../show/world";
import { isLitIn, lifeOf, usedIn, type Change, type Life } from "./life";
import { trackingOf } from "./tracking";

export interface Drift {
  /** Place of the cue in its list. */
  at: number;
  cue: Id;
  fixture: Id;
  /** Seen while it fades out, or done in the dark. */
  kind: "lit" | "dark";
  changes: readonly Change[];
  /** Whether any of it comes from an entry of that cue, which can be taken elsewhere. */
  curable: boolean;
}

/** Whether a cue stores a value for what changes there. */
const isStored = (cue: Cue, { key }: Change): boolean => cue.entries[key]?.value !== undefined;

/** The drift of one fixture in one cue; undefined where there is none, or where it is meant. */
function driftAt(cue: Cue, fixture: Id, at: number, life: Life): Drift | undefined {
  const changes = life.changes.get(at);
  if (!changes || isLitIn(life, at) || cue.meant?.includes(fixture)) return undefined;
  const kind = isLitIn(life, at - 1) ? "lit" : "dark";
  return { at, cue: cue.id, fixture, kind, changes, curable: changes.some((c) => isStored(cue, c)) };
}

/** Every drift of a list, in the order of its cues, then of fixture numbers. */
export function driftsOf(show: Resolving & Pick<Show, "types" | "fixtures">, list: CueList): Drift[] {
  const cues = cuesOf(list);
  const found: Drift[] = [];
  for (const fixture of usedIn(show, trackingOf(list, show))) {
    const life = lifeOf(show, list, fixture);
    for (const at of life.changes.keys()) {
      const drift = driftAt(cues[at]!, fixture.id, at, life);
      if (drift) found.push(drift);
    }
  }
  const number = (id: Id) => show.fixtures[id]?.number ?? 0;
  return found.sort((a, b) => a.at - b.at || number(a.fixture) - number(b.fixture));
}
