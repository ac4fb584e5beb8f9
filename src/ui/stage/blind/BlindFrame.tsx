"use client";

import { Button, Tooltip } from "@mantine/core";
import { namesIn } from "@/core/units/names";
import { useEffect } from "react";
import { updateCue } from "@/core/cue/intents/recordIntents";
import { linesOf } from "@/core/desk/lines";
import { clear, setBlind } from "@/core/program/intents";
import { plain } from "@/core/units/units";
import { hinting, useForeseen } from "@/ui/show/foresight/foreseen";
import { useKeyTable } from "@/ui/show/keys/useKeyTable";
import { useSession, useShow } from "@/ui/show/useSession";
import { countFrame, leaveBlind, useBlind } from "@/ui/show/blind";
import classes from "./Blind.module.css";

/** What is held comes on stage in so many seconds. */
const APPLY_S = 3;

/** Around the picture while what is held is not on stage: what the picture shows, and the ways out. */
export function BlindFrame() {
  const session = useSession();
  const { shownKey } = useKeyTable();
  const { list, cue, peeks } = useBlind();
  const show = useShow((s) => s.world.show);
  const held = useShow((s) => namesIn(s.world.hands.held).length);
  const blind = useShow((s) => s.world.hands.blind);
  useEffect(() => (blind ? countFrame() : undefined), [blind]);
  if (!blind) return null;
  const owner = list ? show.lists[list] : undefined;
  const at = owner && cue ? owner.cues[cue] : undefined;
  const comes = (over?: number) => {
    session.act([setBlind.of({ on: false, ...(over === undefined ? {} : { over }) })], "blind off");
    leaveBlind();
  };
  return (
    <div className={classes.blind} data-peeks={peeks} data-testid="blind">
      <p>
        <strong>
          {peeks
            ? "The live stage"
            : owner && at
              ? `Blind: cue ${plain(at.number, 3)} ${at.name}${owner.number === 1 ? "" : ` of list ${owner.number}`}`
              : "Blind"}
        </strong>
        <span>
          {peeks
            ? "blind is kept"
            : at
              ? held > 0
                ? "with what is held; the stage goes on"
                : "the stage goes on"
              : "what is held is on this picture, not on stage"}
        </span>
        <Tooltip label={`${peeks ? "Back to what is worked on blind" : "The live stage"} (${shownKey("peek")})`}>
          <Button size="compact-xs" variant="default" onClick={() => useBlind.setState({ peeks: !peeks })}>
            {peeks ? "Blind picture" : "Live picture"}
          </Button>
        </Tooltip>
        {!peeks && held > 0 && owner && at && <WriteInto list={owner.id} cue={at.id} />}
        {!peeks && held > 0 && (
          <Button
            size="compact-xs"
            variant="default"
            title="What is held comes on stage"
            onClick={() => comes(APPLY_S)}
          >
            On stage in {APPLY_S} s
          </Button>
        )}
        {at ? (
          <Button
            size="compact-xs"
            variant="default"
            title={held > 0 ? "Clears the programmer; undo brings it back" : "Ends blind"}
            onClick={() => {
              session.act([...(held > 0 ? [clear.of({})] : []), setBlind.of({ on: false })], "leaves blind");
              leaveBlind();
            }}
          >
            Leave
          </Button>
        ) : (
          <Button
            size="compact-xs"
            variant="default"
            title={held > 0 ? "What is held comes on stage at once" : "Ends blind"}
            onClick={() => comes()}
          >
            Go live
          </Button>
        )}
      </p>
    </div>
  );
}

/** Writes what is held into the cue that is open, and lets go of it. */
function WriteInto({ list, cue }: { list: string; cue: string }) {
  const session = useSession();
  const write = (looks: "track" | "keeplooks") => updateCue.of({ list, cue, all: true, looks });
  const hint = (looks: "track" | "keeplooks") =>
    hinting(() => linesOf(session.store.getState().world, [write(looks)])[0]);
  const put = (looks: "track" | "keeplooks") => {
    useForeseen.setState({ hint: null });
    if (!session.act([write(looks)])) session.act([clear.of({})]);
  };
  return (
    <>
      <Button size="compact-xs" variant="light" color="teal" {...hint("track")} onClick={() => put("track")}>
        Write into the cue
      </Button>
      <Button size="compact-xs" variant="default" {...hint("keeplooks")} onClick={() => put("keeplooks")}>
        and keep later looks
      </Button>
    </>
  );
}
