"use client";

import { memo } from "react";
import type { Clash } from "@/core/patch/clash";
import type { FixtureChange } from "@/core/patch/intents";
import type { Fixture, Show } from "@/core/show/schema";
import type { Column } from "./columns";
import { drafted } from "./draft";
import classes from "./PatchTable.module.css";

interface Props {
  fixture: Fixture;
  row: number;
  show: Show;
  columns: readonly Column[];
  template: string;
  top: number;
  chosen: boolean;
  draft: FixtureChange | undefined;
  clashes: readonly Clash[] | undefined;
  /** First and last column of the range in this row, and where its cursor is. */
  from: number;
  to: number;
  cursor: number;
  /** Whether the range ends in this row: there it can be dragged on. */
  ends: boolean;
}

/** One fixture. Told what it shows, so that scrolling draws only what is new. */
export const PatchRow = memo(function PatchRow({
  fixture,
  row,
  show,
  columns,
  template,
  top,
  chosen,
  draft,
  clashes,
  from,
  to,
  cursor,
  ends,
}: Props) {
  const shown = draft ? drafted(fixture, new Map([[fixture.id, draft]])) : fixture;
  return (
    <div
      role="row"
      className={classes.row}
      data-chosen={chosen}
      style={{ top, gridTemplateColumns: template }}
      aria-rowindex={row + 2}
    >
      {columns.map((column, c) => {
        const clash = clashes?.find((k) => k.field === column.id);
        const text = column.text(shown, show);
        const inRange = c >= from && c <= to;
        return (
          <span
            key={column.id}
            role="gridcell"
            className={classes.cell}
            data-kind={column.kind}
            data-row={row}
            data-column={c}
            data-range={inRange}
            data-cursor={c === cursor}
            data-drafted={draft !== undefined && column.text(fixture, show) !== text}
            data-clash={clash !== undefined}
            data-fixed={!column.put}
            title={clash ? clash.text : column.kind === "text" && text.length > 14 ? text : undefined}
          >
            {clash && <b aria-label="clash">⚠ </b>}
            {column.kind === "yes" ? (
              <i data-on={text === "yes"} aria-label={text}>
                {text === "yes" ? "✓" : "·"}
              </i>
            ) : (
              text || (column.id === "addresses" ? <em>unpatched</em> : "")
            )}
            {ends && c === to && <b className={classes.handle} data-handle aria-hidden />}
          </span>
        );
      })}
    </div>
  );
});
