/** The same lists recorded in the show and told to the plain player. */
import type { ModelCue, ModelList } from "./model";

export const PARAMS = ["d1", "p1", "d2", "p2"];
export const attributeOf = (param: string): string => (param[0] === "d" ? "Dimmer" : "Pan");

export interface Told {
  lists: readonly (readonly { entries: Record<string, number | "release">; up: number; down: number }[])[];
  priorities: readonly number[];
  releaseTime: number;
}

/** Patches two lamps and records the lists, which move nothing in black. @param run does a line, or throws. */
export function recordLists(run: (line: string) => void, { lists, priorities, releaseTime }: Told): ModelList[] {
  run("patch 2 kelp-mini mode basic as 1 at 1:1");
  return lists.map((all, i) => {
    all.forEach((c, k) => {
      for (const [param, value] of Object.entries(c.entries))
        run(`${param[1]} ${attributeOf(param)} ${value === "release" ? value : `at ${value}`}`);
      run(`record list ${i + 1} cue ${k + 1} up ${c.up} down ${c.down}`);
      run("clear");
    });
    for (const set of ["blackmoves off", `priority ${priorities[i]}`, `releasetime ${releaseTime}`])
      run(`set list ${i + 1} ${set}`);
    return {
      cues: all.map((c, k): ModelCue => ({
        number: k + 1,
        up: c.up,
        down: c.down,
        fresh: false,
        entries: Object.fromEntries(Object.entries(c.entries).map(([param, value]) => [param, { value }])),
      })),
      priority: priorities[i]!,
      htp: false,
      backTime: 2,
      releaseTime,
    };
  });
}
