"use client";

import { useRef } from "react";
import type { Hands } from "@/core/show/hands";
import type { Placed } from "@/core/show/deckSchema";
import type { CueList, Show } from "@/core/show/schema";
import { cuesOf } from "@/core/show/world";
import type { Playing } from "@/engine/messages";
import type { Session } from "@/session/state";
import { puttingBack } from "@/core/program/puttingBack";
import { VoicePicture } from "@/ui/stage/pictures/VoicePicture";
import { TilePicture } from "@/ui/stage/pictures/TilePicture";
import { pictureOf } from "@/ui/stage/pictures/palettePicture";
import { LookPicture } from "@/ui/stage/pictures/LookPicture";
import { runMacro } from "@/ui/show/playing/runMacro";
import { useSession, useShow } from "@/ui/show/useSession";
import { goOnce } from "@/ui/show/playing/goOnce";
import { beginPad, endings, heldOf } from "./padDeeds";
import { useWhileHeld } from "./useFlash";
import { PatternPicture, patternOf } from "@/ui/stage/pictures/PatternPicture";
import classes from "./Run.module.css";
import { plural } from "@/core/units/plural";

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
  return heldOf(placed, held).length > 0;
}

function press(session: Session, placed: Placed, on: boolean): void {
  const { world } = session.store.getState();
  const { show, hands } = world;
  if (placed.what === "macro") return runMacro(session, placed.id);
  if (placed.what !== "list")
    return void (on
      ? session.act(endings(placed, hands.held), `ends ${nameOf(show, placed)}`)
      : beginPad(session, placed));
  const list = show.lists[placed.id];
  if (!list) return;
  if (BY_LEVEL.has(list.kind)) return void session.event({ kind: "level", list: list.id, value: on ? 0 : 100 });
  if (on) return void session.event({ kind: "release", list: list.id });
  goOnce(session, [list.id]);
}

const nameOf = (show: Show, { what, id }: Placed): string =>
  (what === "palette" ? show.palettes[id] : show.effects[id])?.name ?? what;

/** A pad: pressed it starts, pressed again it ends; or it plays only while it is held. */
export function Pad({ placed, place }: { placed: Placed; place: number }) {
  const session = useSession();
  const world = useShow((s) => s.world);
  const { show, hands } = world;
  const playing = useShow((s) => s.playing);
  const touched = useRef(false);
  const on = isOn(show, placed, playing, hands.held);
  const before = useRef<{ before: Hands; during: Hands } | null>(null);
  const flash = useWhileHeld((hold) => {
    if (placed.what === "list") return void session.event({ kind: "flash", list: placed.id, on: hold });
    const now = () => session.store.getState().world.hands;
    if (hold) {
      const was = now();
      before.current = beginPad(session, placed) ? null : { before: was, during: now() };
    } else if (before.current) {
      const { before: was, during } = before.current;
      const back = puttingBack(was, during, now());
      if (back.length > 0) session.act(back, `clears ${nameOf(show, placed)}`);
      before.current = null;
    }
  });
  const record =
    show[({ list: "lists", effect: "effects", palette: "palettes", macro: "macros" } as const)[placed.what]][placed.id];
  if (!record) return <div className={classes.emptyPad}>gone</div>;
  const held = placed.held === true && placed.what !== "macro";
  const own = placed.what === "effect" ? show.effects[placed.id]?.cast?.length : undefined;
  const whom = own === undefined ? "the selection" : `${plural(own, "fixture")} of its own`;
  const says = held
    ? `${record.name}: ${placed.what === "list" ? "plays" : `is held for ${whom}`} while it is pressed`
    : placed.what === "list"
      ? `${record.name}: press to ${on ? "release" : "start"}`
      : placed.what === "macro"
        ? `Runs ${record.name}: ${show.macros[placed.id]?.lines.slice(0, 5).join("; ")}`
        : on
          ? `${record.name}: press to clear it`
          : `Holds ${record.name} for ${whom}`;
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
      // What is written on it names it; the rest is said besides.
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
        {own !== undefined && <i title={`It has ${whom}, whatever is selected`}>{own} of its own</i>}
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
