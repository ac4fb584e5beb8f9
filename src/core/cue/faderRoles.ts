/** What the lane of a cue list does besides scaling its intensity (SEMANTICS 11). */
import { fail } from "../show/refusal";
import type { CueList } from "../show/schema";

export const FADER_ROLES = ["level", "crossfade"] as const;

interface Roles {
  fader?: (typeof FADER_ROLES)[number] | undefined;
  raised?: "go" | "wait" | undefined;
  zero?: "release" | "hold" | undefined;
}

/** Changes them in a draft; ends with `fail` where one excludes another. */
export function setRoles(list: CueList, { fader, raised, zero }: Roles): void {
  if (fader === "level") delete list.fader;
  if (raised === "wait") delete list.raised;
  if (zero === "hold") delete list.zero;
  if (fader === "crossfade") list.fader = "crossfade";
  if (raised === "go") list.raised = "go";
  if (zero === "release") list.zero = "release";
  if (list.fader === "crossfade" && (list.raised || list.zero))
    fail(
      `the lane of list ${list.number} cannot crossfade and also ${list.raised ? "give go when it is raised" : "release at 0"}`,
      `First: set list ${list.number} ${fader === "crossfade" ? (list.raised ? "raised wait" : "zero hold") : "fader level"}`,
    );
}
