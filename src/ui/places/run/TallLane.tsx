"use client";

import {
  IconBolt,
  IconHandClick,
  IconPlayerPauseFilled,
  IconPlayerPlayFilled,
  IconPlayerSkipBackFilled,
  IconRefresh,
  IconSquareRoundedX,
} from "@tabler/icons-react";
import { useRef, useState, type PointerEvent, type ReactNode } from "react";
import { arm } from "@/core/program/intents";
import type { CueList } from "@/core/show/schema";
import { plain } from "@/core/units/units";
import { LANE_FIELDS } from "@/engine/frame";
import { LaneSheet } from "@/ui/features/cues/LaneSheet";
import { putShare, putText } from "@/ui/base/parts/onScreen";
import { useSession, useShow, useStageFrame } from "@/ui/show/useSession";
import { goOnce } from "@/ui/show/playing/goOnce";
import { useFlash } from "./useFlash";
import { Speed } from "./Speed";
import { HeldOver } from "@/ui/show/playing/HeldOver";
import { HAS, nextText, optionMarks, standsText } from "@/ui/show/playing/playbackWords";
import classes from "./Run.module.css";

/** A press that moves less than this far is a press, pixels. */
const STILL = 5;

/** A playback as a tall lane: grabbed anywhere it follows the hand from where it is; its level is its fill. */
export function TallLane({ list }: { list: CueList }) {
  const session = useSession();
  const show = useShow((s) => s.world.show);
  const run = useShow((s) => s.playing.runs[list.id]);
  const { armed, alsoArmed } = useShow((s) => s.world.hands);
  const [open, setOpen] = useState(false);
  const comet = useRef<HTMLSpanElement>(null);
  const clock = useRef<HTMLSpanElement>(null);
  const drag = useRef<{ y: number; level: number; moved: boolean; add: boolean } | null>(null);
  const level = run?.level ?? 100;
  const isArmed = armed === list.id || alsoArmed.includes(list.id);
  const runs = Boolean(run?.cue);
  useStageFrame((half) => {
    if (!run || !comet.current) return;
    const at = run.slot * LANE_FIELDS;
    const progress = half.lanes[at] ?? 1;
    const moving = run.cue !== null && progress < 1;
    putShare(comet.current, progress, moving);
    const left = (half.lanes[at + 2] ?? 0) - (half.lanes[at + 1] ?? 0);
    if (clock.current)
      putText(
        clock.current,
        run.byHand !== null
          ? `${plain(run.byHand * 100, 0)} %`
          : moving && list.kind !== "chase"
            ? `${Math.max(0, left).toFixed(1)} s`
            : "",
      );
  }, run);
  const arms = (add: boolean) => {
    const all = [armed, ...alsoArmed].filter(Boolean);
    const next = !add
      ? [list.id]
      : isArmed && all.length > 1
        ? all.filter((id) => id !== list.id)
        : [...new Set([...all, list.id])];
    session.act([arm.of({ list: next[0]!, also: next.slice(1) })], "arm");
  };
  const fader = {
    onPointerDown(e: PointerEvent<HTMLDivElement>) {
      if (e.button !== 0 || (e.target as HTMLElement).closest("button, input")) return;
      e.currentTarget.setPointerCapture(e.pointerId);
      drag.current = { y: e.clientY, level, moved: false, add: e.ctrlKey || e.metaKey || e.shiftKey };
    },
    onPointerMove(e: PointerEvent<HTMLDivElement>) {
      const from = drag.current;
      if (!from) return;
      const by = from.y - e.clientY;
      if (!from.moved && Math.abs(by) < STILL) return;
      from.moved = true;
      const value = from.level + (by / e.currentTarget.clientHeight) * 110 * (e.altKey ? 0.1 : 1);
      void session.event({
        kind: "level",
        list: list.id,
        value: Math.round(Math.min(100, Math.max(0, value)) * 10) / 10,
      });
    },
    onPointerUp() {
      if (drag.current && !drag.current.moved) arms(drag.current.add);
      drag.current = null;
    },
    onPointerCancel: () => void (drag.current = null),
  };
  const event = (kind: "back" | "pause" | "release" | "tap" | "resync") => () =>
    void session.event({ kind, list: list.id });
  const goes = list.kind === "list" || list.kind === "effect" || list.kind === "chase";
  const has = run && (runs || run.fading) ? HAS[run.has] : undefined;
  return (
    <div
      className={classes.lane}
      data-testid={`lane-${list.number}`}
      data-learn={`level ${list.id}`}
      data-armed={isArmed}
      data-running={runs}
      data-paused={run?.paused ?? false}
      data-flashed={run?.flashed ?? false}
      role="group"
      aria-label={`Lane of ${list.name}`}
      {...fader}
    >
      <span className={classes.fill} style={{ height: `${level}%` }} aria-hidden />
      <div className={classes.text}>
        <p className={`${classes.title} ${classes.short}`} title={list.name}>
          <span className="num">{list.number}</span>
          {has && (
            <span className={classes.has} title={has.means} data-has={run!.has}>
              {has.mark}
            </span>
          )}{" "}
          {list.name}
        </p>
        <p className={classes.short} data-testid="lane-cue" title={standsText(show, list, run)}>
          {standsText(show, list, run)}
          {run?.paused && runs ? " · paused" : ""}
        </p>
        {list.kind === "effect" ? (
          <Speed list={list} rate={run?.effectRate ?? 100} />
        ) : (
          <p className={`${classes.next} muted`} title={nextText(list, run)}>
            {nextText(list, run)}
          </p>
        )}
        <HeldOver list={list} />
      </div>
      <div className={classes.level}>
        <span ref={clock} className={`${classes.clock} num`} />
        <span className={classes.marks}>
          {optionMarks(list).map((m) => (
            <span key={m.mark} title={m.means}>
              {m.mark}
            </span>
          ))}
          {run?.flashed && (
            <span data-flashed title="Its flash is held: level 100 while it is">
              flash
            </span>
          )}
          {run && run.rate !== 100 && list.kind !== "effect" && (
            <span title="How fast its times run">{plain(run.rate, 0)} %</span>
          )}
          {run && run.effectRate !== 100 && list.kind !== "effect" && (
            <span title="How fast its effects run">∿ {plain(run.effectRate, 0)} %</span>
          )}
        </span>
        <button
          type="button"
          className="num"
          title={`Options, rate and more of ${list.name}`}
          aria-label={`Options of ${list.name}, level ${plain(level, 0)}`}
          onClick={() => setOpen(true)}
        >
          {plain(level, 0)}
        </button>
      </div>
      <div className={classes.buttons}>
        <Flash list={list} />
        {list.kind === "chase" || list.kind === "effect" ? (
          <Press learn={`tap ${list.id}`} label={`Tap ${list.name}`} onPress={event("tap")}>
            <IconHandClick size={18} />
          </Press>
        ) : (
          goes && (
            <Press learn={`back ${list.id}`} label={`Back ${list.name}`} onPress={event("back")}>
              <IconPlayerSkipBackFilled size={16} />
            </Press>
          )
        )}
        {goes && (
          <>
            {list.kind === "effect" ? (
              <Press learn="" label={`Start the cycles of ${list.name} now`} onPress={event("resync")}>
                <IconRefresh size={16} />
              </Press>
            ) : (
              <Press learn={`pause ${list.id}`} label={`Pause ${list.name}`} onPress={event("pause")}>
                <IconPlayerPauseFilled size={16} />
              </Press>
            )}
            <Press learn={`release ${list.id}`} label={`Release ${list.name}`} onPress={event("release")}>
              <IconSquareRoundedX size={18} />
            </Press>
            <Press learn={`go ${list.id}`} label={`Go ${list.name}`} go onPress={() => goOnce(session, [list.id])}>
              <IconPlayerPlayFilled size={20} />
            </Press>
          </>
        )}
      </div>
      <span ref={comet} className={classes.comet} aria-hidden />
      {open && <LaneSheet list={list} onClose={() => setOpen(false)} />}
    </div>
  );
}

/** A button that acts as soon as it is touched. */
function Press({
  learn,
  label,
  go = false,
  onPress,
  children,
}: {
  /** What a surface can learn it as. */
  learn: string;
  label: string;
  go?: boolean;
  onPress(): void;
  children: ReactNode;
}) {
  return (
    <button
      type="button"
      className={classes.press}
      data-learn={learn}
      data-go={go}
      aria-label={label}
      title={label}
      onPointerDown={(e) => {
        if (e.button === 0) onPress();
      }}
      onKeyDown={(e) => {
        if (e.key === "Enter" && !e.repeat) {
          e.preventDefault();
          e.stopPropagation();
          onPress();
        }
      }}
    >
      {children}
    </button>
  );
}

/** Level 100 while held. */
function Flash({ list }: { list: CueList }) {
  const flash = useFlash(list.id);
  return (
    <button
      type="button"
      className={classes.press}
      data-learn={`flash ${list.id}`}
      aria-label={`Flash ${list.name}`}
      title={`Flash ${list.name} while held`}
      onPointerDown={(e) => (e.currentTarget.setPointerCapture(e.pointerId), flash(true))}
      onPointerUp={() => flash(false)}
      onPointerCancel={() => flash(false)}
    >
      <IconBolt size={16} />
    </button>
  );
}
