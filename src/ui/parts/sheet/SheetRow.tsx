"use client";

import { memo, type ReactNode } from "react";
import type { SheetColumn } from "./view";
import classes from "./Sheet.module.css";

/** What a cell shows. `data` are marks for its look. */
export interface Look {
  content: ReactNode;
  title?: string | undefined;
  data?: Record<`data-${string}`, string | number | boolean | undefined>;
}

/** Which columns are drawn where there are many: those that lead, then some in sight, with the room of those before. */
export interface Strip {
  lead: number;
  first: number;
  last: number;
  gap: number;
}

interface Props<R, C extends SheetColumn> {
  row: R;
  index: number;
  columns: readonly C[];
  strip: Strip | null;
  template: string;
  top: number;
  chosen: boolean;
  look(row: R, column: C): Look;
  /** First and last column of the range in this row, and where its cursor is. */
  from: number;
  to: number;
  cursor: number;
  /** Whether the range ends in this row: there it can be dragged on. */
  ends: boolean;
}

function Row<R, C extends SheetColumn>(props: Props<R, C>) {
  const { row, index, columns, strip, template, top, chosen, look, from, to, cursor, ends } = props;
  return (
    <div
      role="row"
      className={classes.row}
      data-chosen={chosen}
      style={{ top, gridTemplateColumns: template }}
      aria-rowindex={index + 2}
    >
      {columns.map((column, k) => {
        const { content, title, data } = look(row, column);
        const c = strip && k >= strip.lead ? strip.first + k - strip.lead : k;
        const cell = (
          <span
            key={column.id}
            role="gridcell"
            className={classes.cell}
            data-kind={column.kind}
            data-fixed={column.fixed}
            data-row={index}
            data-column={c}
            data-range={c >= from && c <= to}
            data-cursor={c === cursor}
            title={title}
            {...data}
          >
            {content}
            {ends && c === to && <b className={classes.handle} data-handle aria-hidden />}
          </span>
        );
        return strip && k === strip.lead ? [<span key="gap" aria-hidden />, cell] : cell;
      })}
    </div>
  );
}

/** One row of a sheet. Told what it shows, so that scrolling draws only what is new. */
export const SheetRow = memo(Row) as typeof Row;
