"use client";

import { blockCue, deleteCue, setCue, unblockCue } from "@/core/cue/intents";
import { reachMore } from "@/core/cue/reach";
import { takeCue, updateCue } from "@/core/cue/recordIntents";
import { ActionIcon, Menu } from "@mantine/core";
import { IconDots } from "@tabler/icons-react";
import type { Cue, CueList } from "@/core/show/schema";
import { cuesOf } from "@/core/show/world";
import { plain } from "@/core/units/units";
import { EditableText } from "../parts/EditableText";
import { useSession, useShow } from "../useSession";
import { CueMarks } from "./CueMarks";
import classes from "./Cues.module.css";

/** The cues of a list: numbers, names, notes and times, edited where they stand. */
export function CueTable({ list, shown, onShow }: { list: CueList; shown: string | null; onShow(id: string): void }) {
  const running = useShow((s) => s.playing.runs[list.id]?.cue ?? null);
  const cues = cuesOf(list);
  const longest = Math.max(
    4,
    ...cues.map((c) => Math.max(c.times.up + c.times.delayUp, c.times.down + c.times.delayDown)),
  );
  if (cues.length === 0)
    return (
      <p className={classes.empty}>
        No cues in {list.name} yet. Set some values in Build, then press Record or type: record cue 1
      </p>
    );
  return (
    <div className={classes.scroll}>
      <table className={classes.table} aria-label={`Cues of ${list.name}`}>
        <thead>
          <tr>
            <th>Cue</th>
            <th>Name and note</th>
            <th>Time, s</th>
            <th>Starts</th>
            <th aria-label="Marks" />
            <th aria-label="More" />
          </tr>
        </thead>
        <tbody>
          {cues.map((cue) => (
            <CueRow
              key={cue.id}
              list={list}
              cue={cue}
              running={cue.id === running}
              shown={cue.id === shown}
              longest={longest}
              onShow={() => onShow(cue.id)}
            />
          ))}
        </tbody>
      </table>
    </div>
  );
}

function CueRow({
  list,
  cue,
  running,
  shown,
  longest,
  onShow,
}: {
  list: CueList;
  cue: Cue;
  running: boolean;
  shown: boolean;
  longest: number;
  onShow(): void;
}) {
  const session = useSession();
  const number = plain(cue.number, 3);
  const here = { list: list.id, cue: cue.id };
  const set = (change: Omit<Parameters<typeof setCue.of>[0], "list" | "cue">) =>
    session.act([setCue.of({ ...here, ...change })]);
  const time = (what: "up" | "down") => (text: string) => {
    const seconds = session.read("seconds", text);
    if (seconds !== undefined) set({ times: { [what]: seconds } });
  };
  const scrub = (what: "up" | "down", value: number) => ({
    value,
    min: 0,
    step: 0.1,
    onSet: (v: number, first: boolean) =>
      void session.act([setCue.of({ list: list.id, cue: cue.id, times: { [what]: v } })], undefined, !first),
  });
  const starts =
    cue.trigger.kind === "go" ? "on go" : `${cue.trigger.kind === "autoDone" ? "done " : "auto "}${cue.trigger.after}`;
  const setStart = (text: string) => {
    const match = /^(auto|done|auto done)?\s*(\d+(?:\.\d+)?)$/.exec(text.trim());
    const kind = match?.[1]?.includes("done") ? "autoDone" : "auto";
    set({ trigger: match ? { kind, after: Number(match[2]) } : { kind: "go" } });
  };
  return (
    <tr
      className={classes.row}
      data-running={running}
      data-shown={shown}
      onClick={onShow}
      data-testid={`cue-${number}`}
    >
      <td className={classes.number}>{number}</td>
      <td>
        <div className={classes.name}>
          <EditableText
            value={cue.name}
            label={`Name of cue ${number}`}
            empty="no name"
            onSave={(text) => set({ name: text })}
          />
        </div>
        <div className={classes.note}>
          <EditableText
            value={cue.note}
            label={`Note of cue ${number}`}
            empty="add a note"
            onSave={(text) => set({ note: text })}
          />
        </div>
      </td>
      <td>
        <TimeBar way="up" fade={cue.times.up} delay={cue.times.delayUp} longest={longest}>
          <EditableText
            mono
            value={plain(cue.times.up)}
            label={`Up time of cue ${number}`}
            onSave={time("up")}
            scrub={scrub("up", cue.times.up)}
          />
        </TimeBar>
        <TimeBar way="down" fade={cue.times.down} delay={cue.times.delayDown} longest={longest}>
          <EditableText
            mono
            value={plain(cue.times.down)}
            label={`Down time of cue ${number}`}
            onSave={time("down")}
            scrub={scrub("down", cue.times.down)}
          />
        </TimeBar>
      </td>
      <td>
        <EditableText mono value={starts} label={`Start of cue ${number}: on go, auto 2 or done 2`} onSave={setStart} />
      </td>
      <td>
        <div className={classes.marks}>
          <CueMarks list={list} cue={cue} />
        </div>
      </td>
      <td>
        <Menu position="bottom-end">
          <Menu.Target>
            <ActionIcon variant="subtle" color="gray" aria-label={`More for cue ${number}`}>
              <IconDots size={16} />
            </ActionIcon>
          </Menu.Target>
          <Menu.Dropdown>
            <Menu.Item onClick={() => void session.event({ kind: "go", ...here })}>Go to this cue</Menu.Item>
            <Menu.Item onClick={() => void session.event({ kind: "next", ...here })}>Make it the next</Menu.Item>
            <Menu.Divider />
            <Menu.Item onClick={() => session.act([takeCue.of({ ...here, all: false })])}>
              Take it into the programmer
            </Menu.Item>
            <Menu.Item onClick={() => session.act([updateCue.of({ ...here, all: false, cueOnly: false })])}>
              Update it with what is held
            </Menu.Item>
            <Menu.Item onClick={() => session.act([blockCue.of(here)])}>Block: store everything in force</Menu.Item>
            <Menu.Item onClick={() => session.act([unblockCue.of(here)])}>Unblock: drop what would track in</Menu.Item>
            <Menu.Item onClick={() => set({ fresh: !cue.fresh })}>
              {cue.fresh ? "Let earlier cues track in" : "Fresh start: nothing tracks in"}
            </Menu.Item>
            <Menu.Item onClick={() => set({ assert: !cue.assert })}>
              {cue.assert ? "Stamp only what moves" : "Assert: stamp everything in force"}
            </Menu.Item>
            <Menu.Item onClick={() => set({ reach: cue.reach ? null : reachMore(list, cue.id, 1) })}>
              {cue.reach ? "Reach all later cues" : "Reach only the next cue"}
            </Menu.Item>
            <Menu.Divider />
            <Menu.Item onClick={() => session.act([deleteCue.of({ ...here, keepLooks: true })])}>
              Delete, later looks stay
            </Menu.Item>
            <Menu.Item onClick={() => session.act([deleteCue.of({ ...here, keepLooks: false })])}>
              Delete, let it track
            </Menu.Item>
          </Menu.Dropdown>
        </Menu>
      </td>
    </tr>
  );
}

function TimeBar({
  way,
  fade,
  delay,
  longest,
  children,
}: {
  way: "up" | "down";
  fade: number;
  delay: number;
  longest: number;
  children: React.ReactNode;
}) {
  const share = (seconds: number) => `${(seconds / longest) * 100}%`;
  return (
    <div
      className={classes.time}
      title={`${way === "up" ? "What rises" : "What falls"}: ${plain(fade)} s${delay > 0 ? ` after ${plain(delay)} s` : ""}`}
    >
      <span aria-hidden>{way === "up" ? "↑" : "↓"}</span>
      <span className={classes.track} aria-hidden>
        <span data-way={way} style={{ marginLeft: share(delay), width: share(fade) }} />
      </span>
      {children}
    </div>
  );
}
