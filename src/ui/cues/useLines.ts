"use client";

import { useMemo, useRef } from "react";
import type { Cue } from "@/core/show/schema";

interface Lines {
  lines: { row: Cue; index: number }[];
  places: ReadonlyMap<string, number>;
}

/** The lines of a sheet and the place of each cue: an edit of one of thousands makes one anew. */
export function useLines(cues: readonly Cue[]): Lines {
  const last = useRef<Lines>({ lines: [], places: new Map() });
  return useMemo(() => {
    const was = last.current;
    const moved = was.lines.length !== cues.length || cues.some((cue, k) => was.lines[k]!.row.id !== cue.id);
    return (last.current = {
      lines: cues.map((row, index) => (was.lines[index]?.row === row ? was.lines[index] : { row, index })),
      places: moved ? new Map(cues.map((c, i) => [c.id, i])) : was.places,
    });
  }, [cues]);
}
