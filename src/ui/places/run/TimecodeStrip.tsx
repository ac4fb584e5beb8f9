"use client";

import { ActionIcon, Switch, TextInput, Tooltip } from "@mantine/core";
import { IconCornerDownLeft, IconPlayerPlayFilled, IconPlayerStopFilled } from "@tabler/icons-react";
import { useEffect, useRef, useState } from "react";
import { setCue } from "@/core/cue/intents/intents";
import { cuesOf, listsByNumber } from "@/core/show/world";
import { textOfFrames } from "@/core/timecode/frames";
import { putText } from "@/ui/base/parts/onScreen";
import { useSession, useShow, useStageFrame } from "@/ui/show/useSession";
import { TimecodeSource } from "./TimecodeSource";
import classes from "./Run.module.css";

/** Timecode: where it is, run, stopped and located by hand; times learned by pressing go while it runs. */
export function TimecodeStrip() {
  const session = useSession();
  const show = useShow((s) => s.world.show);
  const timecode = useShow((s) => s.playing.timecode);
  const runs = useShow((s) => s.playing.runs);
  const [to, setTo] = useState("");
  const [learns, setLearns] = useState(false);
  const shown = useRef<HTMLSpanElement>(null);
  const frames = useRef(0);
  const { rate } = show.timecode;
  const lists = listsByNumber(show).filter((l) => l.timecode);
  useStageFrame((half) => {
    frames.current = half.clock[0] ?? 0;
    if (shown.current) putText(shown.current, textOfFrames(frames.current, rate));
  }, rate);
  // The cue a list has just gone into by hand gets the time it was given go at.
  const standing = lists.map((l) => `${l.id} ${runs[l.id]?.cue ?? ""}`).join(",");
  const before = useRef(standing);
  useEffect(() => {
    const was = new Map(before.current.split(",").map((s) => s.split(" ") as [string, string]));
    before.current = standing;
    if (!learns || timecode.speed !== 1) return;
    for (const list of lists) {
      const cue = list.cues[runs[list.id]?.cue ?? ""];
      if (cue && cue.at === undefined && was.get(list.id) !== cue.id)
        session.act([setCue.of({ list: list.id, cue: cue.id, at: Math.round(frames.current) })]);
    }
  }, [standing]); // oxlint-disable-line react-hooks/exhaustive-deps
  if (lists.length === 0 && timecode.speed === 0) return null;
  return (
    <section
      className={classes.timecode}
      aria-label="Timecode"
      title={lists
        .map(
          (l) => `${l.name}: ${cuesOf(l).filter((c) => c.at !== undefined).length} of ${cuesOf(l).length} cues timed`,
        )
        .join("; ")}
      data-running={timecode.speed !== 0}
      data-lost={timecode.lost}
    >
      <span ref={shown} className="num" data-testid="timecode">
        {textOfFrames(timecode.frames, rate)}
      </span>
      <span className="muted">
        {timecode.lost
          ? "signal lost, runs on"
          : timecode.outside
            ? timecode.speed === 0
              ? "external, stopped"
              : "external"
            : timecode.speed === 0
              ? "standing"
              : "internal"}
      </span>
      <button
        type="button"
        className={classes.press}
        aria-label={timecode.speed === 0 ? "Run timecode" : "Stop timecode"}
        onClick={() => void session.event({ kind: "timecode", does: timecode.speed === 0 ? "run" : "stop" })}
      >
        {timecode.speed === 0 ? <IconPlayerPlayFilled size={16} /> : <IconPlayerStopFilled size={16} />}
      </button>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          const at = session.read("frames", to.trim());
          if (at !== undefined) void session.event({ kind: "timecode", does: "at", frames: at });
        }}
      >
        <TextInput
          size="xs"
          w={92}
          aria-label="Go to a time"
          placeholder="0:01:30"
          value={to}
          onChange={(e) => setTo(e.currentTarget.value)}
        />
        <Tooltip label="Go to that time">
          <ActionIcon type="submit" size={30} variant="default" aria-label="Go there">
            <IconCornerDownLeft size={15} />
          </ActionIcon>
        </Tooltip>
      </form>
      <Switch
        size="xs"
        label="learn on go"
        title="A cue that has no time and is given go while it runs gets the time"
        checked={learns}
        onChange={(e) => setLearns(e.currentTarget.checked)}
      />
      <TimecodeSource />
    </section>
  );
}
