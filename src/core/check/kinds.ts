/** Kinds of findings, so that many of one can be looked at, or put aside, together. */
import type { Finding } from "./finding";

/** By the words their keys begin with: how several of them are called. */
const KINDS: readonly [begins: string, several: string][] = [
  ["unused palette", "palettes that nothing uses yet"],
  ["unused effect", "effects that nothing uses yet"],
  ["unused wave", "waves that nothing uses yet"],
  ["empty group", "groups without fixtures"],
  ["drift", "drifts"],
  ["late", "moves that come too late"],
  ["empty", "cues that store nothing"],
  ["same", "cues that change nothing"],
  ["own", "own times past the end of their cue"],
  ["overtakes", "cues that come before another is complete"],
  ["range", "values outside of their range"],
  ["unreachable", "aims out of reach"],
  ["shut", "lights with a closed shutter"],
  ["fight", "lists that fight"],
  ["name", "names used twice"],
  ["signed", "looks that are no longer as they were signed off"],
  ["gap", "palettes with nothing for some fixture"],
];

/** What several findings of its kind are called; undefined where there is one of a kind. */
export const kindOfFinding = ({ key }: Pick<Finding, "key">): string | undefined =>
  KINDS.find(([begins]) => key.startsWith(`${begins} `))?.[1];

/** Whether it can wait: nothing on stage hangs on it, and nobody is asked to look. */
export const canWait = ({ key }: Pick<Finding, "key">): boolean => key.startsWith("unused ");
