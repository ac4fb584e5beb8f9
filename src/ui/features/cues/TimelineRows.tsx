"use client";

import { NativeSelect } from "@mantine/core";
import { useRef, useState } from "react";
import type { Transition } from "@/core/play/arrive/transition";
import { attributeInfo, FAMILIES, familyWord, type Family } from "@/core/fixture/attribute";
import { splitKey } from "@/core/show/ids";
import { moveTime } from "@/core/cue/times";
import { select } from "@/core/select/intents";
import { selText } from "@/core/show/words/lineText";
import type { Cue, CueList, Show } from "@/core/show/schema";
import { plain } from "@/core/units/units";
import { timingDeed } from "@/core/command/cueTiming";
import type { Deed } from "@/core/command/deeds";
import { useForeseen } from "@/ui/show/foresight/foreseen";
import { EditableText } from "@/ui/base/parts/EditableText";
import { TimeBar, type BarTimes } from "@/ui/base/parts/TimeBar";
import { useSession, useShow } from "@/ui/show/useSession";
import { useChosen } from "./useChosen";
import classes from "./Timeline.module.css";

/** Told apart by hue and by their place in the table. */
export const HUES = ["#7ee8c4", "#9db2ff", "#ffb07a", "#ffd27d", "#e58fd0", "#7cc8ff", "#c4e07a", "#ff8f8f"];

const byNumber = (fixtures: Show["fixtures"], ids: readonly string[]): string[] =>
  ids.filter((id) => fixtures[id]).sort((a, b) => fixtures[a]!.number - fixtures[b]!.number);

/** Fixtures as a line names them, by number: "41 thru 44 + 50". */
export const fixturesText = (fixtures: Show["fixtures"], ids: readonly string[]): string =>
  selText({ fixtures }, byNumber(fixtures, ids));

/** The own times of what a cue stores of a family of some fixtures: the longest, as the cue's complete; null where there is none. */
function ownTimesOf(cue: Cue, fixtures: readonly string[], family: Family): BarTimes | null {
  const timed = Object.entries(cue.entries)
    .filter(([key, e]) => fixtures.includes(splitKey(key).fixture) && attributeInfo(e.attribute).family === family)
    .flatMap(([, e]) => (e.time ? [moveTime(cue.times, e.attribute, false, e.time)] : []))
    .sort((a, b) => b.delay + b.fade - a.delay - a.fade);
  return timed[0] ? { delay: timed[0].delay, fade: timed[0].fade } : null;
}

interface Dragged {
  row: string;
  change: Partial<BarTimes>;
}

interface Props {
  list: CueList;
  cue: Cue;
  made: Transition;
  /** What a track stands for, seconds. */
  longest: number;
}

/** What each fixture does, a row for those that do the same; own times typed or dragged, for one row or for all that are chosen. */
export function TimelineRows({ list, cue, made, longest }: Props) {
  const session = useSession();
  const fixtures = useShow((s) => s.world.show.fixtures);
  const rows = made.curves.map((curve) => ({
    ...curve,
    id: fixturesText(fixtures, curve.fixtures),
  }));
  const chosen = useChosen(rows);
  const stored = FAMILIES.filter((f) =>
    Object.values(cue.entries).some((e) => attributeInfo(e.attribute).family === f),
  );
  const [wanted, setFamily] = useState<Family>("Intensity");
  const family = stored.includes(wanted) ? wanted : (stored[0] ?? "Intensity");
  const [dragged, setDragged] = useState<Dragged | null>(null);
  /** The same, for a hand that lets go before it is drawn. */
  const latest = useRef<Dragged | null>(null);
  const drag = (now: Dragged | null) => {
    latest.current = now;
    setDragged(now);
    useForeseen.setState({ hint: now && dragging(now).line });
  };
  /** A row, and those chosen with it, with times of their own; without, they go by the cue's time again. */
  const timing = (row: string, times: { delay?: readonly number[]; fade?: readonly number[] }): Deed => {
    const those = rows.filter((r) => r.id === row || (chosen.ids.has(row) && chosen.ids.has(r.id)));
    const items = those.flatMap((r) => byNumber(fixtures, r.fixtures));
    return timingDeed({ list, cue, items, family }, times, session.store.getState().world);
  };
  const own = (row: string, what: keyof BarTimes, text: string) => {
    const typed = text.trim() ? session.read("times", text) : [];
    if (typed) session.build(timing(row, typed.length > 0 ? { [what]: typed } : {}));
  };
  const dragging = ({ row, change: { delay, fade } }: Dragged) =>
    timing(row, { ...(delay !== undefined && { delay: [delay] }), ...(fade !== undefined && { fade: [fade] }) });
  const drop = () => {
    const { current: now } = latest;
    drag(null);
    if (now) session.build(dragging(now));
  };
  return (
    <>
      {chosen.ids.size > 1 && (
        <p className={classes.chosen}>
          {chosen.ids.size} rows chosen: own times apply to all of them; 0 to 3 spreads over them
        </p>
      )}
      <table aria-label="What each fixture does">
        <thead>
          <tr>
            <th />
            <th>Fixtures</th>
            <th>Goes</th>
            <th>Moves, drag for times of its own</th>
            <th aria-label="From and to" />
            <th colSpan={2}>
              Own delay and fade, s, of{" "}
              <NativeSelect
                size="xs"
                display="inline-block"
                aria-label="Attribute family of own times"
                value={family}
                data={stored.map((f) => ({ value: f, label: familyWord(f) }))}
                onChange={(e) => setFamily(e.currentTarget.value as Family)}
              />
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row, k) => {
            const { fixtures: items, values, moves } = row;
            const its = family === "Intensity" ? row.own : ownTimesOf(cue, items, family);
            const now = moves && { delay: moves.from, fade: moves.to - moves.from };
            const shown = now && { ...now, ...(dragged?.row === row.id ? dragged.change : {}) };
            return (
              <tr
                key={row.id}
                data-chosen={chosen.ids.has(row.id)}
                aria-selected={chosen.ids.has(row.id)}
                onClick={(e) => (e.target as HTMLElement).closest("button, input") ?? chosen.press(row.id, e)}
              >
                <td>
                  <i style={{ background: HUES[k % HUES.length] }} data-dashed={k >= HUES.length} />
                </td>
                <td>
                  <button
                    type="button"
                    title="Select them"
                    onClick={() => session.act([select.of({ items })], "select")}
                  >
                    {row.id}
                  </button>
                </td>
                <td className="num">
                  {plain(values[0]!, 1)} to {plain(values.at(-1)!, 1)} %
                </td>
                <td className={classes.bar}>
                  {shown && (
                    <TimeBar
                      name={row.id}
                      fixed={family !== "Intensity"}
                      {...shown}
                      longest={longest}
                      onDrag={(change) => drag({ row: row.id, change })}
                      onDrop={drop}
                    />
                  )}
                </td>
                <td className="num">
                  {shown ? `${plain(shown.delay, 2)} to ${plain(shown.delay + shown.fade, 2)} s` : "stays"}
                </td>
                {(["delay", "fade"] as const).map((what) => (
                  <td key={what}>
                    <EditableText
                      mono
                      value={its ? plain(its[what], 2) : ""}
                      empty="the cue's"
                      label={`Own ${what} of ${row.id}`}
                      onSave={(text) => own(row.id, what, text)}
                    />
                  </td>
                ))}
              </tr>
            );
          })}
        </tbody>
      </table>
    </>
  );
}
