"use client";

import { useVirtualizer } from "@tanstack/react-virtual";
import { useEffect, useMemo, useRef } from "react";
import type { CueList } from "@/core/show/schema";
import { cuesOf } from "@/core/show/world";
import { useShow } from "../useSession";
import { CueRow } from "./CueRow";
import classes from "./Cues.module.css";

/** The usual height of a row, before it is measured. */
const ROW = 64;

/** The cues of a list: numbers, names, notes and times, edited where they stand. */
export function CueTable({ list, shown, onShow }: { list: CueList; shown: string | null; onShow(id: string): void }) {
  const running = useShow((s) => s.playing.runs[list.id]?.cue ?? null);
  const cues = useMemo(() => cuesOf(list), [list]);
  const scroll = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({
    count: cues.length,
    getScrollElement: () => scroll.current,
    estimateSize: () => ROW,
    getItemKey: (k) => cues[k]!.id,
    overscan: 6,
  });
  const place = cues.findIndex((c) => c.id === running);
  // A list that is opened shows where it stands; later it stays where the hand has put it.
  useEffect(() => {
    if (place >= 0) rows.scrollToIndex(place, { align: "center" });
    else rows.scrollToOffset(0);
  }, [list.id]); // eslint-disable-line react-hooks/exhaustive-deps
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
  const shownRows = rows.getVirtualItems().map(({ index, start, end }) => ({ index, start, end, cue: cues[index]! }));
  return (
    <div className={classes.scroll} ref={scroll}>
      <table className={classes.table} aria-label={`Cues of ${list.name}`} aria-rowcount={cues.length + 1}>
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
          <Gap height={shownRows[0]?.start ?? 0} />
          {shownRows.map(({ index, cue }) => (
            <CueRow
              key={cue.id}
              index={index}
              measure={rows.measureElement}
              list={list}
              cue={cue}
              running={cue.id === running}
              shown={cue.id === shown}
              longest={longest}
              onShow={() => onShow(cue.id)}
            />
          ))}
          <Gap height={rows.getTotalSize() - (shownRows.at(-1)?.end ?? 0)} />
        </tbody>
      </table>
    </div>
  );
}

/** The room of the rows that are not drawn. */
const Gap = ({ height }: { height: number }) =>
  height > 0 ? (
    <tr aria-hidden>
      <td colSpan={6} style={{ height, padding: 0 }} />
    </tr>
  ) : null;
