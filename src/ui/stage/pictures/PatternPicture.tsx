"use client";

import type { CueList, Show } from "@/core/show/schema";
import { cuesOf } from "@/core/show/world";
import { functionOf } from "@/core/fixture/parameters";
import { splitKey } from "@/core/show/ids";
import { modelOf } from "@/core/show/model";
import { BOX, patternShape } from "@/picture/patterns";
import classes from "./Pattern.module.css";

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
  const shape = patternShape(folder, content);
  return (
    <svg className={classes.pattern} viewBox={`0 0 ${BOX.width} ${BOX.height}`} aria-hidden>
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
