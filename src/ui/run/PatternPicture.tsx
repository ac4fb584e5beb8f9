"use client";

import type { CueList, Show } from "@/core/show/schema";
import { cuesOf } from "@/core/show/world";
import { functionOf } from "@/core/fixture/parameters";
import { splitKey } from "@/core/show/ids";
import { modelOf } from "@/core/show/model";
import classes from "./Run.module.css";

/** Drawn patterns of a beam server's first page, and of the sequences on its second. */
const SHAPES: Record<string, string> = {
  "1 0": "M22 30 L6 4 M22 30 L38 4 M6 4 Q22 -2 38 4",
  "1 1": "M22 30 L2 10 M22 30 L10 4 M22 30 L22 1 M22 30 L34 4 M22 30 L42 10",
  "1 2": "M4 6 L40 6 M22 30 L4 6 M22 30 L40 6",
  "1 3": "M2 16 Q9 2 16 16 T30 16 T44 16",
  "1 4":
    "M22 16 m-4 0 a4 4 0 1 0 8 0 a4 4 0 1 0 -8 0 M22 16 m-9 0 a9 9 0 1 0 18 0 a9 9 0 1 0 -18 0 M22 16 m-14 0 a14 14 0 1 0 28 0 a14 14 0 1 0 -28 0",
  "1 5": "M6 5 h.1 M14 10 h.1 M24 4 h.1 M34 9 h.1 M9 18 h.1 M19 21 h.1 M29 17 h.1 M38 22 h.1 M14 28 h.1 M26 28 h.1",
};

/** The page and pattern a list's first cue sets on a fixture that has them; undefined where it sets none. */
export function patternOf(show: Show, list: CueList): { folder: number; content: number } | undefined {
  const [cue] = cuesOf(list);
  if (!cue) return undefined;
  const folder = Object.entries(cue.entries).find(([, e]) => e.attribute === "MediaFolder1");
  const fixture = folder && show.fixtures[splitKey(folder[0]).fixture];
  if (!folder || !fixture || !modelOf(show, fixture).specs.some((s) => functionOf(s, "MediaContent1")))
    return undefined;
  const content = Object.values(cue.entries).find((e) => e.attribute === "MediaContent1")?.value ?? 0;
  const page = folder[1].value;
  return typeof page === "number" && typeof content === "number" ? { folder: page, content } : undefined;
}

/** A pattern, drawn; page 0 with pattern 0 is dark, a page of sequences turns. */
export function PatternPicture({ folder, content }: { folder: number; content: number }) {
  const shape = SHAPES[`${folder} ${content}`];
  return (
    <svg className={classes.pattern} viewBox="0 0 44 32" aria-hidden>
      {folder === 0 && content === 0 ? (
        <circle cx="22" cy="16" r="11" data-dark />
      ) : shape ? (
        <path d={shape} />
      ) : (
        <>
          <path d="M12 16 a10 10 0 1 1 4 8 m0 0 l1 -6 m-1 6 l-6 0" />
          <text x="34" y="28">
            {content}
          </text>
        </>
      )}
    </svg>
  );
}
