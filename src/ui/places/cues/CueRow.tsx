"use client";

import { memo, useMemo, type PointerEvent } from "react";
import { setCue } from "@/core/cue/intents/intents";
import { readStart, startText } from "@/core/cue/startText";
import { isRefusal, refusalText } from "@/core/show/refusal";
import type { Cue, CueList } from "@/core/show/schema";
import { plain } from "@/core/units/units";
import { EditableText } from "@/ui/base/parts/EditableText";
import { LookPicture } from "@/ui/stage/pictures/LookPicture";
import { TimeBar, type BarTimes } from "@/ui/base/parts/TimeBar";
import { useSession } from "@/ui/show/useSession";
import { CueMarks } from "./CueMarks";
import { CueMenu } from "./CueMenu";
import { FamilyTimes } from "@/ui/features/cues/FamilyTimes";
import classes from "@/ui/features/cues/Cues.module.css";

export const PICTURE = { width: 76, height: 56 };

interface Props {
  list: CueList;
  cue: Cue;
  index: number;
  measure(row: HTMLElement | null): void;
  running: boolean;
  shown: boolean;
  /** All cues that are chosen with it: an edit here goes to them too. */
  together: readonly string[] | undefined;
  longest: number;
  /** A dragged cue would go there. */
  gap: "above" | "below" | undefined;
  onPress(cue: Cue, event: React.MouseEvent): void;
  /** The hand takes it by its number, to put it elsewhere. */
  onGrab(cue: Cue, event: PointerEvent<HTMLElement>): void;
}

/** A press on what edits leaves those chosen together as they are. */
const edits = ({ target, shiftKey, ctrlKey, metaKey }: React.MouseEvent): boolean =>
  !(shiftKey || ctrlKey || metaKey) && (target as HTMLElement).closest("button, input") !== null;

/** One cue: its picture, what is edited where it stands, and what else can be done with it. */
export const CueRow = memo(function CueRow({
  list,
  cue,
  index,
  measure,
  running,
  shown,
  together,
  longest,
  gap,
  onPress,
  onGrab,
}: Props) {
  const session = useSession();
  const edited = useMemo(() => together ?? [cue.id], [together, cue.id]);
  const number = plain(cue.number, 3);
  type Change = Omit<Parameters<typeof setCue.of>[0], "list" | "cue">;
  const set = (change: Change, join = false) => {
    const intents = edited.map((id) => setCue.of({ list: list.id, cue: id, ...change }));
    session.act(intents, intents.length > 1 ? `sets ${intents.length} cues` : undefined, join);
  };
  const time = (what: "up" | "down") => (text: string) => {
    const seconds = session.read("seconds", text);
    if (seconds !== undefined) set({ times: { [what]: seconds } });
  };
  const scrub = (what: "up" | "down", value: number) => ({
    value,
    min: 0,
    step: 0.1,
    onSet: (v: number, first: boolean) => set({ times: { [what]: v } }, !first),
  });
  const setStart = (text: string) => {
    const trigger = readStart(text);
    if (isRefusal(trigger)) session.tell(refusalText(trigger), "refused");
    else set({ trigger });
  };
  return (
    <tr
      ref={measure}
      data-index={index}
      aria-rowindex={index + 2}
      className={classes.row}
      data-running={running}
      data-shown={shown}
      data-gap={gap}
      data-chosen={edited.length > 1}
      aria-selected={shown || edited.length > 1}
      onClick={(e) => (edited.length > 1 && edits(e)) || onPress(cue, e)}
      data-testid={`cue-${number}`}
    >
      <td className={classes.number} onPointerDown={(e) => onGrab(cue, e)} title="Drag it to another place">
        {number}
      </td>
      <td className={classes.picture}>
        <LookPicture list={list.id} cue={cue.id} {...PICTURE} label={`Look of cue ${number}`} />
      </td>
      <td>
        <div className={classes.name} data-name>
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
      <td className={classes.times}>
        <Times
          way="up"
          fade={cue.times.up}
          delay={cue.times.delayUp}
          longest={longest}
          onDrag={({ fade, delay }, first) =>
            set(
              {
                times: {
                  ...(fade === undefined ? {} : { up: fade }),
                  ...(delay === undefined ? {} : { delayUp: delay }),
                },
              },
              !first,
            )
          }
        >
          <EditableText
            mono
            value={plain(cue.times.up)}
            label={`Up time of cue ${number}`}
            onSave={time("up")}
            scrub={scrub("up", cue.times.up)}
          />
        </Times>
        <Times
          way="down"
          fade={cue.times.down}
          delay={cue.times.delayDown}
          longest={longest}
          onDrag={({ fade, delay }, first) =>
            set(
              {
                times: {
                  ...(fade === undefined ? {} : { down: fade }),
                  ...(delay === undefined ? {} : { delayDown: delay }),
                },
              },
              !first,
            )
          }
        >
          <EditableText
            mono
            value={plain(cue.times.down)}
            label={`Down time of cue ${number}`}
            onSave={time("down")}
            scrub={scrub("down", cue.times.down)}
          />
        </Times>
        <span>
          <FamilyTimes list={list} cue={cue} edited={edited} />
        </span>
      </td>
      <td className={classes.starts}>
        <EditableText
          mono
          value={startText(cue.trigger)}
          label={`Start of cue ${number}: on go, auto 2 or done 2`}
          onSave={setStart}
        />
      </td>
      <td>
        <div className={classes.marks}>
          <CueMarks list={list} cue={cue} />
        </div>
      </td>
      <td>
        <CueMenu list={list} cue={cue} together={edited} />
      </td>
    </tr>
  );
});

/** What rises or falls: its times as a bar, and what stands beside it. */
function Times({
  way,
  fade,
  delay,
  children,
  ...bar
}: BarTimes & {
  way: "up" | "down";
  longest: number;
  onDrag(change: Partial<BarTimes>, first: boolean): void;
  children: React.ReactNode;
}) {
  return (
    <div
      className={classes.time}
      title={`${way === "up" ? "What rises" : "What falls"}: ${plain(fade)} s${delay > 0 ? ` after ${plain(delay)} s` : ""}. Drag the bar's end for the fade, its beginning for the delay`}
    >
      <span aria-hidden>{way === "up" ? "↑" : "↓"}</span>
      <TimeBar name={way} pale={way === "down"} fade={fade} delay={delay} {...bar} />
      {children}
    </div>
  );
}
