"use client";

import { Button, Tooltip } from "@mantine/core";
import { namesIn } from "@/core/units/names";
import { useEffect } from "react";
import { updateCue } from "@/core/cue/recordIntents";
import { linesOf } from "@/core/desk/lines";
import { clear, setBlind } from "@/core/program/intents";
import { plain } from "@/core/units/units";
import { hinting, useForeseen } from "../ask/foreseen";
import { useKeyTable } from "../shell/useKeyTable";
import { useSession, useShow } from "../useSession";
import { leaveBlind, useBlind } from "./blind";
import classes from "./Stage.module.css";

/** What is held comes on stage in so many seconds. */
const APPLY_S = 3;

/** Around the picture of a cue that is edited blind: what it is, and the ways out. */
export function BlindFrame() {
  const session = useSession();
  const { shownKey } = useKeyTable();
  const { list, cue, peeks } = useBlind();
  const show = useShow((s) => s.world.show);
  const held = useShow((s) => namesIn(s.world.hands.held).length);
  const blind = useShow((s) => s.world.hands.blind);
  // Ended by a line or another window.
  useEffect(() => {
    if (!blind) leaveBlind();
  }, [blind]);
  const owner = list ? show.lists[list] : undefined;
  const at = owner && cue ? owner.cues[cue] : undefined;
  if (!owner || !at) return null;
  const write = (looks: "track" | "keeplooks") => updateCue.of({ list: owner.id, cue: at.id, all: true, looks });
  const line = (looks: "track" | "keeplooks") => () => linesOf(session.store.getState().world, [write(looks)])[0];
  return (
    <div className={classes.blind} data-peeks={peeks} data-testid="blind">
      <p>
        <strong>
          {peeks
            ? "The live stage"
            : `Blind: cue ${plain(at.number, 3)} ${at.name}${owner.number === 1 ? "" : ` of list ${owner.number}`}`}
        </strong>
        <span>{peeks ? "blind is kept" : held > 0 ? "with what is held; the stage goes on" : "the stage goes on"}</span>
        <Tooltip label={`${peeks ? "Back to the blind cue" : "The live stage"} (${shownKey("peek")})`}>
          <Button size="compact-xs" variant="default" onClick={() => useBlind.setState({ peeks: !peeks })}>
            {peeks ? "Blind cue" : "Live"}
          </Button>
        </Tooltip>
        {!peeks && held > 0 && (
          <>
            <Button
              size="compact-xs"
              variant="light"
              color="teal"
              {...hinting(line("track"))}
              onClick={() => {
                useForeseen.setState({ hint: null });
                if (!session.act([write("track")])) session.act([clear.of({})]);
              }}
            >
              Write into the cue
            </Button>
            <Button
              size="compact-xs"
              variant="default"
              {...hinting(line("keeplooks"))}
              onClick={() => {
                useForeseen.setState({ hint: null });
                if (!session.act([write("keeplooks")])) session.act([clear.of({})]);
              }}
            >
              and keep later looks
            </Button>
            <Button
              size="compact-xs"
              variant="default"
              title="What is held comes on stage"
              onClick={() => {
                session.act([setBlind.of({ on: false, over: APPLY_S })]);
                leaveBlind();
              }}
            >
              On stage in {APPLY_S} s
            </Button>
          </>
        )}
        <Button
          size="compact-xs"
          variant="default"
          title={held > 0 ? "Lets go of what is held; undo brings it back" : "Ends blind"}
          onClick={() => {
            session.act([...(held > 0 ? [clear.of({})] : []), setBlind.of({ on: false })], "leaves blind");
            leaveBlind();
          }}
        >
          Leave
        </Button>
      </p>
    </div>
  );
}
