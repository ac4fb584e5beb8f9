"use client";

import { useMemo, useRef } from "react";
import type { Cue } from "@/core/show/schema";

interface Lines {
  lines: { row: Cue; index: number }[];
  places: ReadonlyMap<string, number>;
  /** The cues as they were when anything but what one stores changed last. */
  heads: { cues: readonly Cue[] };
}

/** Whether two versions of a cue differ in what they store alone. */
function sameHead(a: Cue, b: Cue): boolean {
  for (const name in { ...a, ...b })
    if (name !== "entries" && a[name as keyof Cue] !== b[name as keyof Cue]) return false;
  return true;
}

/** The lines of a list's cues, those of before wherever a cue is the very same: an edit of one of thousands makes one anew. */
export function linesAfter(was: Lines | undefined, cues: readonly Cue[]): Lines {
  if (was?.lines.length !== cues.length)
    return {
      lines: cues.map((row, index) => ({ row, index })),
      places: new Map(cues.map((c, i) => [c.id, i])),
      heads: { cues },
    };
  const lines = was.lines.slice();
  let { places, heads } = was;
  for (let index = 0; index < cues.length; index++) {
    const row = cues[index]!;
    const before = lines[index]!.row;
    if (row === before) continue;
    lines[index] = { row, index };
    if (row.id !== before.id) places = new Map(cues.map((c, i) => [c.id, i]));
    if (heads === was.heads && !sameHead(before, row)) heads = { cues };
  }
  return { lines, places, heads };
}

/** The lines of a sheet and the place of each cue. */
export function useLines(cues: readonly Cue[]): Lines {
  const last = useRef<Lines | undefined>(undefined);
  return useMemo(() => (last.current = linesAfter(last.current, cues)), [cues]);
}
