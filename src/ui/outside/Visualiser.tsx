"use client";

import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { compileRig } from "@/core/play/stage/rig";
import { isRefusal, refusalText } from "@/core/show/refusal";
import type { Show } from "@/core/show/schema";
import { openFrame, wholeHalf, type Frame } from "@/engine/frame";
import { layoutOfRig, type Layout } from "@/engine/layout";
import { roomLampsOf } from "@/picture/room/lamps";
import { openShow } from "@/session/storage/shows";
import { RoomFrame } from "@/ui/stage/room/RoomFrame";
import { useWireStage } from "@/ui/stage/room/wireStage";
import classes from "./Visualiser.module.css";
import { plural } from "@/core/units/plural";

/** The rig is read again so often, for what was hung or moved meanwhile, milliseconds. */
const AGAIN_MS = 5000;
const none = () => undefined;

/** A stand-in for an outside visualiser: it knows the rig of a show, and of the light only what arrives on the wire. */
export function Visualiser({ id }: { id: string }) {
  const [show, setShow] = useState<Show | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  useEffect(() => {
    let gone = false;
    const read = async () => {
      const opened = await openShow(id).catch((error: unknown) => String(error));
      if (gone) return;
      if (typeof opened === "string") setTrouble(opened);
      else if (isRefusal(opened)) setTrouble(refusalText(opened));
      else setShow((now) => (now && sameRig(now, opened.world.show) ? now : opened.world.show));
    };
    void read();
    const timer = setInterval(() => void read(), AGAIN_MS);
    return () => {
      gone = true;
      clearInterval(timer);
    };
  }, [id]);
  if (!show) return <p className={classes.empty}>{trouble ?? "Reading the rig"}</p>;
  return <Lit show={show} />;
}

const sameRig = (a: Show, b: Show): boolean =>
  JSON.stringify([a.fixtures, a.types, a.outputs, a.scenery]) ===
  JSON.stringify([b.fixtures, b.types, b.outputs, b.scenery]);

function Lit({ show }: { show: Show }) {
  const rig = useMemo(() => compileRig(show), [show]);
  const layout = useMemo(() => layoutOfRig(rig, 0, 1), [rig]);
  const lamps = useMemo(() => roomLampsOf(show, rig.index), [show, rig]);
  const frame = useRef<Frame | null>(null);
  const take = useCallback(
    (made: Layout, memory: ArrayBufferLike) => void (frame.current = openFrame(made, memory)),
    [],
  );
  const received = useWireStage(true, show, layout, take);
  const lit = useCallback(() => (frame.current ? wholeHalf(frame.current) : undefined), []);
  return (
    <div className={classes.window}>
      <RoomFrame lamps={lamps} show={show} selection={NOBODY} lit={lit} aiming={false} onPick={none} onAim={none} />
      <p className={classes.title} data-testid="visualiser-state">
        <strong>{show.name}</strong>{" "}
        {received === null
          ? "The stand-in node is not reached"
          : received.streams.length === 0
            ? "nothing arrives on the wire"
            : `from the wire alone: ${plural(received.streams.length, "universe")}`}
      </p>
    </div>
  );
}
const NOBODY: readonly string[] = [];
