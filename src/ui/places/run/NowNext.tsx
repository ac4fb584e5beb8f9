"use client";

import { useEffect, useRef, useState } from "react";
import { timesText } from "@/core/cue/times";
import type { Cue } from "@/core/show/schema";
import { plain } from "@/core/units/units";
import { LANE_FIELDS } from "@/engine/frame";
import { putShare, putText } from "@/ui/base/parts/onScreen";
import { useShow, useStageFrame } from "@/ui/show/useSession";
import { startsText } from "@/ui/show/playing/playbackWords";
import classes from "./Run.module.css";

/** The cue the armed list stands in and the one that comes, large, with the time since go. */
export function NowNext({ listId }: { listId: string }) {
  const list = useShow((s) => s.world.show.lists[listId]);
  const run = useShow((s) => s.playing.runs[listId]);
  const bar = useRef<HTMLSpanElement>(null);
  const clock = useRef<HTMLSpanElement>(null);
  const since = useSince(run?.cue ?? null);
  useStageFrame((half) => {
    if (!run || !bar.current || !clock.current) return;
    const at = run.slot * LANE_FIELDS;
    const [progress, gone, all] = [half.lanes[at] ?? 1, half.lanes[at + 1] ?? 0, half.lanes[at + 2] ?? 0];
    const moving = run.cue !== null && progress < 1;
    putShare(bar.current, run.cue === null ? 0 : progress);
    if (bar.current.dataset.moving !== String(moving)) bar.current.dataset.moving = String(moving);
    // A chase counts beats.
    putText(clock.current, moving && list?.kind !== "chase" ? `${gone.toFixed(1)} of ${plain(all, 1)} s` : "");
  }, run);
  if (!list) return null;
  const now = run?.cue ? list.cues[run.cue] : undefined;
  const next = run?.next ? list.cues[run.next] : undefined;
  return (
    <section className={classes.now} aria-label="Now and next" data-running={now !== undefined}>
      <div>
        <p className="muted">
          {list.name} · {now ? (run?.paused ? "paused" : `running ${since}`) : run?.fading ? "releasing" : "released"}
        </p>
        {now ? <Large cue={now} /> : <p className={classes.none}>{list.kind === "morph" ? "at 0" : "not running"}</p>}
      </div>
      <div>
        <p className="muted">next</p>
        {next ? (
          <Large cue={next} small after={startsText(next)} />
        ) : (
          <p className={classes.none}>{now ? "end of list" : "nothing"}</p>
        )}
      </div>
      <span className={classes.way} aria-hidden>
        <span ref={bar} />
      </span>
      <span ref={clock} className={`${classes.clock} num`} data-testid="now-clock" />
    </section>
  );
}

function Large({ cue, small = false, after }: { cue: Cue; small?: boolean; after?: string }) {
  return (
    <div className={classes.large} data-small={small}>
      <span className="num">{plain(cue.number, 3)}</span>
      <div>
        <strong>{cue.name || "no name"}</strong>
        <p className="muted">
          {[cue.note, small ? `${timesText(cue.times)} s` : "", after].filter(Boolean).join(" · ")}
        </p>
      </div>
    </div>
  );
}

/** Minutes and seconds since a list came into its cue, as this window saw it. */
function useSince(cue: string | null): string {
  const [seconds, setSeconds] = useState(0);
  useEffect(() => {
    const began = performance.now();
    setSeconds(0);
    if (cue === null) return;
    const timer = setInterval(() => setSeconds(Math.floor((performance.now() - began) / 1000)), 500);
    return () => clearInterval(timer);
  }, [cue]);
  return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, "0")}`;
}
