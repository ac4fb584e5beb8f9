"use client";

import { ActionIcon, Tooltip } from "@mantine/core";
import { IconExternalLink, IconMap2, IconPlugConnected } from "@tabler/icons-react";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { aim } from "@/core/command/building";
import { select } from "@/core/select/intents";
import { splitItem } from "@/core/show/ids";
import { openFrame, wholeHalf, type Frame } from "@/engine/frame";
import type { Layout } from "@/engine/layout";
import { roomLampsOf } from "@/picture/room/lamps";
import { BlindFrame } from "@/ui/stage/blind/BlindFrame";
import { useBlind } from "@/ui/show/blind";
import { setStageTools, useStageTools } from "@/ui/stage/stageTools";
import { useWireStage } from "./wireStage";
import { useSession, useShow } from "@/ui/show/useSession";
import { RoomFrame } from "./RoomFrame";
import classes from "@/ui/stage/plan/Plan.module.css";

/** The stage as a room: lit as it is now, by a cue that is looked at blind, or by what arrives on the wire. */
export function RoomView({ live = false }: { live?: boolean }) {
  const session = useSession();
  const show = useShow((s) => s.world.show);
  const stage = useShow((s) => s.view);
  const selection = useShow((s) => s.world.hands.selection);
  const aiming = useStageTools((s) => s.aiming);
  const blind = useBlind((s) => (live ? null : s.view));
  const [fromWire, setFromWire] = useState(false);
  const lamps = useMemo(() => (stage ? roomLampsOf(show, stage.index) : []), [show.fixtures, show.types, stage?.index]); // oxlint-disable-line react-hooks/exhaustive-deps
  const frame = useRef<Frame | null>(null);
  const take = useCallback(
    (layout: Layout, memory: ArrayBufferLike) => void (frame.current = openFrame(layout, memory)),
    [],
  );
  const seen = blind ?? stage;
  const wired = fromWire && !blind;
  const received = useWireStage(wired, show, stage?.layout, take);
  useEffect(() => {
    if (seen && !wired) frame.current = seen.frame;
  }, [seen, wired]);
  const lit = useCallback(() => (frame.current ? wholeHalf(frame.current) : undefined), []);
  const chosen = useMemo(() => [...new Set(selection.map((i) => splitItem(i).fixture))], [selection]);
  const onPick = useCallback(
    (id: string | null, add: boolean) => {
      const now = session.store.getState().world.hands.selection;
      const next =
        id === null ? (add ? now : []) : !add ? [id] : now.includes(id) ? now.filter((i) => i !== id) : [...now, id];
      session.act([select.of({ items: [...next] })], "select");
    },
    [session],
  );
  const onAim = useCallback(
    ({ x, y }: { x: number; y: number }, join: boolean) =>
      void session.hold((b) => aim(b, { aim: [Math.round(x * 100) / 100, Math.round(y * 100) / 100, 0] }), join),
    [session],
  );
  const scene = useMemo(() => ({ scenery: show.scenery, types: show.types }), [show.scenery, show.types]);
  return (
    <div className={classes.stage} data-testid="stage" data-aiming={aiming}>
      <RoomFrame lamps={lamps} show={scene} selection={chosen} lit={lit} aiming={aiming} onPick={onPick} onAim={onAim}>
        <Tooltip label="The room in a window of its own, fed by the wire alone" openDelay={400}>
          <ActionIcon
            variant="subtle"
            color="gray"
            size={30}
            aria-label="A window fed by the wire"
            onClick={() =>
              window.open(`/standin/room/${session.id}`, `bold-comet-room-${session.id}`, "popup,width=1000,height=640")
            }
          >
            <IconExternalLink size={16} />
          </ActionIcon>
        </Tooltip>
        <Tooltip label="The plan, from above" openDelay={400}>
          <ActionIcon
            variant="subtle"
            color="gray"
            size={30}
            aria-label="Show the plan"
            onClick={() => setStageTools({ room: false })}
          >
            <IconMap2 size={16} />
          </ActionIcon>
        </Tooltip>
      </RoomFrame>
      <BlindFrame />
      {aiming && (
        <p className={classes.tool}>Press or drag on the floor where the selected movers are to point. Esc ends it.</p>
      )}
      {Object.keys(show.outputs).length > 0 && (
        <button type="button" className={classes.source} aria-pressed={fromWire} onClick={() => setFromWire(!fromWire)}>
          <IconPlugConnected size={14} />{" "}
          {fromWire
            ? received === null
              ? "from the wire: node not reached"
              : `from the wire: ${received.streams.length} universes`
            : "Live"}
        </button>
      )}
    </div>
  );
}
