"use client";

import type { ReactNode } from "react";
import type { Rippled } from "@/core/cue/looks";
import { plain } from "@/core/units/units";
import { useShow } from "@/ui/show/useSession";
import { LookPicture } from "./LookPicture";
import classes from "@/ui/base/parts/parts.module.css";

interface Props {
  ripple: readonly Rippled[];
  /** What the line looked at would make of them; a new value asks again. */
  then?: unknown;
  width: number;
  height: number;
  most?: number;
  /** More of one of them: what is said or done about it. */
  more?(of: Rippled): ReactNode;
}

/** Looks that an edit changes, in pairs: now, and after, with the fixtures that differ ringed. */
export function RipplePairs({ ripple, then, width, height, most = 12, more }: Props) {
  const show = useShow((s) => s.world.show);
  return (
    <div className={classes.pairs}>
      {ripple.slice(0, most).map((one) => {
        const { list, cue, fixtures } = one;
        const number = plain(show.lists[list]?.cues[cue]?.number ?? 0, 3);
        return (
          <figure key={`${list} ${cue}`}>
            <span>
              <LookPicture list={list} cue={cue} width={width} height={height} label={`Cue ${number} now`} />
              <LookPicture
                list={list}
                cue={cue}
                width={width}
                height={height}
                then={then}
                marks={fixtures}
                label={`Cue ${number} after`}
              />
            </span>
            <figcaption>
              cue <span className="num">{number}</span>
              {show.lists[list]?.number === 1 ? "" : ` of ${show.lists[list]?.name ?? ""}`} · {fixtures.length}{" "}
              {fixtures.length === 1 ? "fixture differs" : "fixtures differ"}
              {more?.(one)}
            </figcaption>
          </figure>
        );
      })}
      {ripple.length > most && <p className="muted">and {ripple.length - most} more</p>}
    </div>
  );
}
