"use client";

import { ActionIcon, Tooltip } from "@mantine/core";
import {
  IconBolt,
  IconHandClick,
  IconPlayerPauseFilled,
  IconPlayerPlayFilled,
  IconPlayerSkipBackFilled,
  IconRefresh,
  IconSquareRoundedX,
} from "@tabler/icons-react";
import { useRef, type PointerEvent } from "react";
import { arm } from "@/core/program/intents";
import type { CueList } from "@/core/show/schema";
import { plain } from "@/core/units/units";
import { LANE_FIELDS } from "@/engine/frame";
import { EditableText } from "../parts/EditableText";
import { useKeyTable } from "../shell/useKeyTable";
import { useSession, useShow, useStageFrame } from "../useSession";
import classes from "./Deck.module.css";

const STILL = 4;

/** A playback: its name, current and next cue; its level as its fill, its fade as a comet along the edge. */
export function Lane({ list, large = false }: { list: CueList; large?: boolean }) {
  const { shownKey } = useKeyTable();
  const session = useSession();
  const run = useShow((s) => s.playing.runs[list.id]);
  const effects = useShow((s) => s.world.show.effects);
  const armed = useShow((s) => s.world.hands.armed === list.id);
  const comet = useRef<HTMLSpanElement>(null);
  const clock = useRef<HTMLSpanElement>(null);
  const drag = useRef<{ x: number; level: number; moved: boolean } | null>(null);
  const level = run?.level ?? 100;
  const cue = run?.cue ? list.cues[run.cue] : undefined;
  const next = run?.next ? list.cues[run.next] : undefined;

  useStageFrame((half) => {
    if (!run || !comet.current) return;
    const at = run.slot * LANE_FIELDS;
    const [progress, gone, all] = [half.lanes[at] ?? 1, half.lanes[at + 1] ?? 0, half.lanes[at + 2] ?? 0];
    const moving = cue !== undefined && progress < 1;
    comet.current.style.opacity = moving ? "1" : "0";
    comet.current.style.width = `${progress * 100}%`;
    if (clock.current) clock.current.textContent = moving ? `${gone.toFixed(1)} of ${plain(all, 1)} s` : "";
  });

  const press = {
    onPointerDown(event: PointerEvent<HTMLDivElement>) {
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

  const effect = list.effect === undefined ? undefined : effects[list.effect];
  const plays = list.kind === "effect";
  const standing = plays
    ? !effect
      ? "plays nothing"
      : run?.cue
        ? `∿ ${effect.number} ${effect.name}`
        : run?.fading
          ? "releasing"
          : "released"
    : list.kind !== "list"
      ? `${list.kind}${list.kind === "submaster" ? " · highest wins" : list.kind === "takeover" ? " · over every list" : " · scales what it holds"}`
      : cue
        ? `${plain(cue.number, 3)} ${cue.name}`
        : run?.fading
          ? "releasing"
          : "released";
  return (
    <div
      className={classes.lane}
      data-large={large}
      data-armed={armed}
      data-running={cue !== undefined || (plays && Boolean(run?.cue))}
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
          {standing}
          {run?.paused && cue ? " · paused" : ""}
        </p>
        <p className={classes.next}>
          {plays && large && <Speed list={list} rate={run?.effectRate ?? 100} />}
          <span className={classes.clip}>
            {plays
              ? large
                ? ""
                : "an effect, its level scales the mix"
              : list.kind !== "list"
                ? "by its level"
                : next
                  ? `next ${plain(next.number, 3)} ${next.name}`
                  : cue
                    ? "end of list"
                    : "no cues yet"}
          </span>
          <span ref={clock} className={`${classes.clock} num`} />
        </p>
      </div>
      {large && (
        <div className={classes.buttons}>
          <FlashButton list={list} />
          {plays && <CycleButtons list={list} />}
          {(list.kind === "list" || plays) && (
            <>
              <LaneButton
                label={`Release ${list.name}`}
                onClick={() => void session.event({ kind: "release", list: list.id })}
              >
                <IconSquareRoundedX size={20} />
              </LaneButton>
              <LaneButton
                label={`Pause ${list.name}${armed ? ` (${shownKey("pause")})` : ""}`}
                onClick={() => void session.event({ kind: "pause", list: list.id })}
              >
                <IconPlayerPauseFilled size={18} />
              </LaneButton>
              {!plays && (
                <LaneButton
                  label={`Back ${list.name}${armed ? ` (${shownKey("back")})` : ""}`}
                  onClick={() => void session.event({ kind: "back", list: list.id })}
                >
                  <IconPlayerSkipBackFilled size={18} />
                </LaneButton>
              )}
              <LaneButton
                label={`Go ${list.name}${armed ? ` (${shownKey("go")})` : ""}`}
                go
                onClick={() => void session.event({ kind: "go", list: list.id })}
              >
                <IconPlayerPlayFilled size={20} />
              </LaneButton>
            </>
          )}
        </div>
      )}
      <span ref={comet} className={classes.comet} aria-hidden />
    </div>
  );
}

/** The speed of an effect lane, in percent of its effect's own. */
function Speed({ list, rate }: { list: CueList; rate: number }) {
  const session = useSession();
  const set = (value: number) => {
    if (Number.isFinite(value))
      void session.event({ kind: "effectRate", list: list.id, value: Math.min(1000, Math.max(0, Math.round(value))) });
  };
  return (
    <Tooltip label={`Speed of ${list.name}: drag, wheel, arrows, or press and type`} openDelay={500}>
      <span className={classes.rate}>
        speed{" "}
        <EditableText
          mono
          value={`${plain(rate, 0)} %`}
          label={`Speed of ${list.name}, percent`}
          onSave={(text) => set(parseFloat(text))}
          scrub={{ value: rate, min: 0, step: 1, onSet: set }}
        />
      </span>
    </Tooltip>
  );
}

/** Of an effect lane: its speed tapped, and its cycles started now. */
function CycleButtons({ list }: { list: CueList }) {
  const session = useSession();
  return (
    <>
      <LaneButton
        label={`Tap the speed of ${list.name}`}
        onClick={() => void session.event({ kind: "tap", list: list.id })}
      >
        <IconHandClick size={18} />
      </LaneButton>
      <LaneButton
        label={`Start the cycles of ${list.name} now`}
        onClick={() => void session.event({ kind: "resync", list: list.id })}
      >
        <IconRefresh size={18} />
      </LaneButton>
    </>
  );
}

/** Level 100 while held. */
function FlashButton({ list }: { list: CueList }) {
  const session = useSession();
  const flash = (on: boolean) => void session.event({ kind: "flash", list: list.id, on });
  return (
    <Tooltip label={`Flash ${list.name} while held`} openDelay={500}>
      <ActionIcon
        className={classes.button}
        variant="default"
        size={44}
        aria-label={`Flash ${list.name}`}
        onPointerDown={(e) => (e.currentTarget.setPointerCapture(e.pointerId), flash(true))}
        onPointerUp={() => flash(false)}
        onPointerCancel={() => flash(false)}
      >
        <IconBolt size={18} />
      </ActionIcon>
    </Tooltip>
  );
}

function LaneButton({
  label,
  go = false,
  onClick,
  children,
}: {
  label: string;
  go?: boolean;
  onClick(): void;
  children: React.ReactNode;
}) {
  return (
    <Tooltip label={label} openDelay={500}>
      <ActionIcon
        className={go ? classes.go : classes.button}
        variant="default"
        size={44}
        aria-label={label}
        onClick={onClick}
      >
        {children}
      </ActionIcon>
    </Tooltip>
  );
}
