/** What a cue says of its own course: the bend of its fades, where it leads, what it runs, and how it goes about the dark. */
import type { WorldDraft } from "../../show/change/intent";
import type { Id } from "../../show/ids";
import { fail } from "../../show/refusal";
import type { Bend, Cue, CueList } from "../../show/schema";
import { textOfFrames, type FrameRate } from "../../timecode/frames";
import { plain } from "../../units/units";
import { listIn } from "./cueDraft";
import { plural } from "../../units/plural";

export interface OwnWays {
  curve?: "linear" | Bend | undefined;
  then?: Id | null | undefined;
  runs?: string | undefined;
  meant?: Id[] | undefined;
  blackMoves?: { on: boolean | null; fixtures?: Id[] | undefined } | undefined;
  ready?: boolean | null | undefined;
  place?: number | null | undefined;
  at?: number | null | undefined;
}

/** Changes them in a draft. @throws a refusal where it would lead to a cue that is gone. */
export function setOwnWays(world: WorldDraft, list: Id, cue: Cue, ways: OwnWays): void {
  const { curve, then, runs, meant, blackMoves, ready, place, at } = ways;
  if (place === null) delete cue.place;
  else if (place !== undefined) cue.place = place;
  if (at === null) delete cue.at;
  else if (at !== undefined) cue.at = at;
  if (curve === "linear") delete cue.times.curve;
  else if (curve) cue.times.curve = curve;
  if (then === null) delete cue.then;
  else if (then !== undefined) {
    if (!listIn(world, list).cues[then]) fail("the cue it would lead to does not exist");
    cue.then = then;
  }
  if (runs === "") delete cue.runs;
  else if (runs !== undefined) cue.runs = runs;
  if (meant?.length === 0) delete cue.meant;
  else if (meant) cue.meant = [...new Set([...(cue.meant ?? []), ...meant])];
  if (ready === null) delete cue.ready;
  else if (ready !== undefined) cue.ready = ready;
  if (!blackMoves) return;
  const { on, fixtures } = blackMoves;
  if (!fixtures) {
    if (on === null) delete cue.blackMoves;
    else cue.blackMoves = on;
    return;
  }
  const of = { ...cue.blackMovesOf };
  for (const id of fixtures) {
    if (on === null) delete of[id];
    else of[id] = on;
  }
  if (Object.keys(of).length === 0) delete cue.blackMovesOf;
  else cue.blackMovesOf = of;
}

const some = (n: number): string => plural(n, "fixture");

/** The changes in plain words. */
export const sayOwnWays = (
  list: CueList | undefined,
  ways: OwnWays,
  rate: FrameRate,
): (string | false | undefined)[] => {
  const { curve, then, runs, meant, blackMoves, ready, place, at } = ways;
  const black = blackMoves?.fixtures ? ` for ${some(blackMoves.fixtures.length)}` : "";
  return [
    place !== undefined &&
      (place === null ? "lies along the level by itself" : `lies at ${plain(place)} % of the level`),
    at !== undefined && (at === null ? "has no time on timecode" : `comes at ${textOfFrames(at, rate)}`),
    curve && `its intensity goes ${curve}`,
    then !== undefined &&
      (then === null ? "leads on to the next cue" : `leads to cue ${list?.cues[then]?.number ?? "?"}`),
    runs !== undefined && (runs === "" ? "runs nothing at its go" : `runs "${runs}" at its go`),
    meant &&
      (meant.length === 0
        ? "no move in the dark is meant"
        : `the moves of ${some(meant.length)} in the dark are meant`),
    blackMoves &&
      (blackMoves.on === null
        ? `moves in black as its list does${black}`
        : blackMoves.on
          ? `moves in black${black}`
          : `moves nothing in black${black}`),
    ready !== undefined &&
      (ready === null
        ? "is ready as its list is"
        : ready
          ? "what it lights is in place at once"
          : "what it lights fades into place"),
  ];
};
