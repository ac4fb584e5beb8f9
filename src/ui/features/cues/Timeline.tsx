"use client";

import { Modal } from "@mantine/core";
import { useEffect, useRef, useState } from "react";
import type { EChartsType } from "echarts/core";
import type { Transition } from "@/core/play/arrive/transition";
import { setCue } from "@/core/cue/intents/intents";
import type { Cue, CueList } from "@/core/show/schema";
import { plain } from "@/core/units/units";
import { EditableText } from "@/ui/base/parts/EditableText";
import { LookPicture } from "@/ui/stage/pictures/LookPicture";
import { useSession, useShow } from "@/ui/show/useSession";
import { FamilyTimes } from "./FamilyTimes";
import { fixturesText, TimelineRows } from "./TimelineRows";
import classes from "./Timeline.module.css";

const PICTURE = { width: 236, height: 170 };

/** One transition, from the engine itself: every fixture's intensity into a cue; scrubbed along with the stage at that instant, and mended. */
export function Timeline({ list, cue, onClose }: { list: CueList; cue: Cue; onClose(): void }) {
  const session = useSession();
  const show = useShow((s) => s.world.show);
  const host = useRef<HTMLDivElement>(null);
  const chart = useRef<EChartsType | null>(null);
  const [made, setMade] = useState<Transition | null>(null);
  const [none, setNone] = useState(false);
  const [at, setAt] = useState(0);
  const number = plain(cue.number, 3);
  useEffect(() => {
    let over = false;
    session.timeline(list.id, cue.id, (transition) => {
      if (over) return;
      setMade(transition);
      setNone(transition === null);
    });
    return () => void (over = true);
  }, [session, list.id, cue.id, list.cues, show.palettes, show.effects]);
  useEffect(() => {
    let over = false;
    void import("./timelineChart").then(({ curvesOf, init }) => {
      if (over || !host.current || !made) return;
      chart.current ??= init(host.current, "dark", { renderer: "canvas" });
      chart.current.setOption(curvesOf(made, list.cues, show.fixtures), true);
      chart.current.getZr().off("mousemove");
      chart.current.getZr().on("mousemove", ({ offsetX }) => {
        const [x] = chart.current!.convertFromPixel({ gridIndex: 0 }, [offsetX, 0]);
        setAt(Math.round(Math.min(made.times.at(-1)!, Math.max(0, x!)) * 20) / 20);
      });
    });
    return () => void (over = true);
  }, [made, show.fixtures, list.cues]);
  useEffect(() => () => chart.current?.dispose(), []);
  const time = (what: "up" | "down" | "delayUp" | "delayDown", label: string) => (
    <span className={classes.time}>
      {label}{" "}
      <EditableText
        mono
        value={plain(cue.times[what])}
        label={`${label} of cue ${number}`}
        onSave={(text) => {
          const seconds = session.read("seconds", text);
          if (seconds !== undefined)
            session.act([setCue.of({ list: list.id, cue: cue.id, times: { [what]: seconds } })]);
        }}
        scrub={{
          value: cue.times[what],
          min: 0,
          step: 0.1,
          onSet: (v, first) =>
            void session.act([setCue.of({ list: list.id, cue: cue.id, times: { [what]: v } })], undefined, !first),
        }}
      />{" "}
      s
    </span>
  );
  return (
    <Modal opened onClose={onClose} size={1080} centered title={`Timeline into cue ${number} ${cue.name}`}>
      <div className={classes.times}>
        {time("up", "up")}
        {time("delayUp", "after")}
        {time("down", "down")}
        {time("delayDown", "after")}
        <FamilyTimes list={list} cue={cue} edited={[cue.id]} />
        <span className="muted">
          {made
            ? `complete after ${plain(made.complete, 2)} s${made.follows
                .map((f) => `; cue ${list.cues[f.cue]?.number ?? "?"} follows at ${plain(f.at, 2)} s`)
                .join("")}`
            : none
              ? "The transition could not be computed. Close the timeline and open it again"
              : "Computing…"}
        </span>
      </div>
      <div className={classes.top}>
        <div
          ref={host}
          className={classes.chart}
          data-testid="timeline-chart"
          aria-label={`Intensity into cue ${number}`}
          role="img"
        />
        <figure>
          <LookPicture
            list={list.id}
            cue={cue.id}
            at={at}
            {...PICTURE}
            label={`The stage ${plain(at, 2)} s after the go`}
          />
          <figcaption>
            <input
              type="range"
              min={0}
              max={made?.times.at(-1) ?? 1}
              step={0.05}
              value={at}
              aria-label="Time in the transition"
              onChange={(e) => setAt(Number(e.currentTarget.value))}
            />
            <span className="num">{plain(at, 2)} s</span>
          </figcaption>
        </figure>
      </div>
      <div className={classes.rows}>
        {made && <TimelineRows list={list} cue={cue} made={made} longest={made.times.at(-1) || 1} />}
        {made && made.black.length > 0 && (
          <ul className={classes.black} aria-label="Moves in black">
            {made.black.map((b) => (
              <li key={`${b.fixtures[0]} ${b.from}`}>
                ☾ {fixturesText(show.fixtures, b.fixtures)} move in black{" "}
                {b.from < 0 ? (
                  "since before the go"
                ) : (
                  <>
                    from <span className="num">{plain(b.from, 2)}</span>
                  </>
                )}{" "}
                to <span className="num">{plain(Math.max(0, b.to), 2)} s</span>, for cue{" "}
                {plain(list.cues[b.lights]?.number ?? 0, 3)}
              </li>
            ))}
          </ul>
        )}
        {made && made.curves.length === 0 && <p className="muted">Nothing is lit before or after.</p>}
      </div>
    </Modal>
  );
}
