"use client";

import { useRef } from "react";
import { effectCalled, holdEffect } from "@/core/command/voices";
import { palette as applyPalette } from "@/core/command/building";
import { isFrom, isStop } from "@/core/show/effectSchema";
import type { Hands } from "@/core/show/hands";
import type { Placed } from "@/core/show/deckSchema";
import type { CueList, Show } from "@/core/show/schema";
import { cuesOf } from "@/core/show/world";
import type { Playing } from "@/engine/messages";
import type { Session } from "@/session/state";
import { VoicePicture } from "../effects/VoicePicture";
import { TilePicture } from "../palettes/TilePicture";
import { pictureOf } from "../palettes/tiles";
import { LookPicture } from "../parts/LookPicture";
import { useSession, useShow } from "../useSession";
import { goOnce } from "./goOnce";
import { useFlash } from "./useFlash";
import { PatternPicture, patternOf } from "./PatternPicture";
import classes from "./Run.module.css";

const PICTURE = { width: 44, height: 32 };
/** Playbacks that play by their level alone. */
const BY_LEVEL = new Set<CueList["kind"]>(["morph", "submaster", "limiter", "takeover"]);

/** Whether what a pad holds plays now. */
export function isOn(show: Show, placed: Placed, playing: Playing, held: Hands["held"]): boolean {
  if (placed.what === "list") {
    const [list, run] = [show.lists[placed.id], playing.runs[placed.id]];
    return (
      list !== undefined &&
      (BY_LEVEL.has(list.kind) ? (run?.level ?? 0) > 0 && list.kind !== "limiter" : Boolean(run?.cue))
    );
  }
  if (placed.what === "effect")
    return Object.values(held).some(({ effect: e }) => e && !isStop(e) && isFrom(e) && e.from === placed.id);
  return false;
}

function press(session: Session, placed: Placed, on: boolean): void {
  const { world } = session.store.getState();
  const { show, hands } = world;
  if (placed.what === "macro")
    return void session.macro(placed.id).then((no) => no && session.tell(`${no.what}. ${no.cure ?? ""}`, "refused"));
  if (placed.what === "palette") return void session.hold((b) => applyPalette(b, placed.id));
  if (placed.what === "effect") {
    const effect = show.effects[placed.id];
    if (!effect) return;
    const items = effect.cast ?? hands.selection;
    return void session.hold((b) => holdEffect(b, effectCalled(show, effect.number), items), false, items);
  }
  const list = show.lists[placed.id];
  if (!list) return;
  if (BY_LEVEL.has(list.kind)) return void session.event({ kind: "level", list: list.id, value: on ? 0 : 100 });
  if (on) return void session.event({ kind: "release", list: list.id });
  goOnce(session, [list.id]);
}

/** A pad: pressed it starts, pressed again it ends; or it plays only while it is held. */
export function Pad({ placed, place }: { placed: Placed; place: number }) {
  const session = useSession();
  const world = useShow((s) => s.world);
  const { show, hands } = world;
  const playing = useShow((s) => s.playing);
  const touched = useRef(false);
  const on = isOn(show, placed, playing, hands.held);
  const flash = useFlash(placed.id);
  const record =
    show[({ list: "lists", effect: "effects", palette: "palettes", macro: "macros" } as const)[placed.what]][placed.id];
  if (!record) return <div className={classes.emptyPad}>gone</div>;
  const held = placed.held === true && placed.what === "list";
  const says = held
    ? `${record.name}: plays while it is held`
    : placed.what === "list"
      ? `${record.name}: press to ${on ? "release" : "start"}`
      : placed.what === "macro"
        ? `Runs ${record.name}: ${show.macros[placed.id]?.lines.slice(0, 5).join("; ")}`
        : `Holds ${record.name} for the selection`;
  return (
    <button
      type="button"
      className={classes.pad}
      data-testid={`pad-${place}`}
      data-learn={
        placed.what === "macro"
          ? `macro ${placed.id}`
          : placed.what === "list"
            ? `${held ? "flash" : "go"} ${placed.id}`
            : undefined
      }
      data-on={on}
      data-held={held}
      aria-pressed={on}
      aria-label={says}
      title={says}
      onPointerDown={(e) => {
        if (e.button !== 0) return;
        touched.current = true;
        if (!held) return press(session, placed, on);
        e.currentTarget.setPointerCapture(e.pointerId);
        flash(true);
      }}
      onPointerUp={() => held && flash(false)}
      onPointerCancel={() => held && flash(false)}
      onClick={() => {
        // By key, or by whoever presses for a person, there is no pointer.
        if (!touched.current && !held) press(session, placed, on);
        touched.current = false;
      }}
    >
      <span className="num">
        {place}
        {held && <i>hold</i>}
      </span>
      <PadPicture placed={placed} />
      <b>{record.name || `${placed.what} ${record.number}`}</b>
    </button>
  );
}

function PadPicture({ placed }: { placed: Placed }) {
  const world = useShow((s) => s.world);
  const { show } = world;
  if (placed.what === "palette") {
    const palette = show.palettes[placed.id];
    return palette ? <TilePicture picture={pictureOf(world, palette)} /> : null;
  }
  if (placed.what === "effect") {
    const effect = show.effects[placed.id];
    return effect?.voices[0] ? (
      <VoicePicture voice={effect.voices[0].voice} items={effect.cast ?? []} moving={false} />
    ) : null;
  }
  if (placed.what === "macro") return <span className={classes.macro}>»</span>;
  const list = show.lists[placed.id];
  const cue = list && cuesOf(list)[0];
  const pattern = list && patternOf(show, list);
  if (pattern) return <PatternPicture {...pattern} />;
  return list && cue ? <LookPicture list={list.id} cue={cue.id} {...PICTURE} label={`Look of ${list.name}`} /> : null;
}
