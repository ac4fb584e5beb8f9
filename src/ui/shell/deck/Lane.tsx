"use client";

import { useRef, type PointerEvent } from "react";
import { arm } from "@/core/program/intents";
import type { CueList } from "@/core/show/schema";
import { plain } from "@/core/units/units";
import { LANE_FIELDS } from "@/engine/frame";
import { putShare, putText } from "@/ui/base/parts/onScreen";
import { nextText, standsText } from "@/ui/show/playing/playbackWords";
import { HeldOver } from "@/ui/show/playing/HeldOver";
import { useSession, useShow, useStageFrame } from "@/ui/show/useSession";
import classes from "@/ui/features/cues/Lanes.module.css";

const STILL = 4;

/** A playback: its name, current and next cue; its level as its fill, its fade as a comet along the edge. */
export function Lane({ list }: { list: CueList }) {
  const session = useSession();
  const run = useShow((s) => s.playing.runs[list.id]);
  const show = useShow((s) => s.world.show);
  const armed = useShow((s) => s.world.hands.armed === list.id || s.world.hands.alsoArmed.includes(list.id));
  const comet = useRef<HTMLSpanElement>(null);
  const clock = useRef<HTMLSpanElement>(null);
  const drag = useRef<{ x: number; level: number; moved: boolean } | null>(null);
  const level = run?.level ?? 100;
  const cue = run?.cue ? list.cues[run.cue] : undefined;

  useStageFrame((half) => {
    if (!run || !comet.current) return;
    const at = run.slot * LANE_FIELDS;
    const [progress, gone, all] = [half.lanes[at] ?? 1, half.lanes[at + 1] ?? 0, half.lanes[at + 2] ?? 0];
    const moving = run.cue !== null && progress < 1;
    putShare(comet.current, progress, moving);
    if (clock.current)
      putText(clock.current, moving && list.kind !== "chase" ? `${gone.toFixed(1)} of ${plain(all, 1)} s` : "");
  });

  const press = {
    onPointerDown(event: PointerEvent<HTMLDivElement>) {
      if ((event.target as HTMLElement).closest("button")) return;
      if (event.button !== 0 || (event.target as HTMLElement).closest("button, input")) return;
      event.currentTarget.setPointerCapture(event.pointerId);
      drag.current = { x: event.clientX, level, moved: false };
    },
    onPointerMove(event: PointerEvent<HTMLDivElement>) {
      const from = drag.current;
      if (!from) return;
      const by = event.clientX - from.x;
      if (!from.moved && Math.abs(by) < STILL) return;
      from.moved = true;
      const value = Math.min(
        100,
        Math.max(0, from.level + (by / event.currentTarget.clientWidth) * 100 * (event.shiftKey ? 0.1 : 1)),
      );
      void session.event({ kind: "level", list: list.id, value: Math.round(value * 10) / 10 });
    },
    onPointerUp() {
      if (drag.current && !drag.current.moved) session.act([arm.of({ list: list.id })], "arm");
      drag.current = null;
    },
  };

  return (
    <div
      className={classes.lane}
      data-armed={armed}
      data-running={Boolean(run?.cue)}
      data-paused={run?.paused ?? false}
      data-testid={`lane-${list.number}`}
      {...press}
    >
      <span className={classes.fill} style={{ width: `${level}%` }} aria-hidden />
      <div className={classes.text}>
        <p className={classes.title}>
          <span className="num">{list.number}</span> <span className={classes.clip}>{list.name}</span>
          <span className={`${classes.level} num`}>{plain(level, 0)}</span>
        </p>
        <p className={classes.clip} data-testid="lane-cue">
          {standsText(show, list, run)}
          {run?.paused && cue ? " · paused" : ""}
        </p>
        <p className={classes.next}>
          <span className={classes.clip}>{nextText(list, run)}</span>
          <HeldOver list={list} short />
          <span ref={clock} className={`${classes.clock} num`} />
        </p>
      </div>
      <span ref={comet} className={classes.comet} aria-hidden />
    </div>
  );
}
