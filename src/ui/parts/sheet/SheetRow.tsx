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

interface CellProps {
  kind: SheetColumn["kind"];
  fixed: SheetColumn["fixed"];
  row: number;
  column: number;
  inRange: boolean;
  isCursor: boolean;
  isEnd: boolean;
  look: Look;
}

/** One cell, drawn again only where it shows something else. */
const Cell = memo(function Cell({ kind, fixed, row, column, inRange, isCursor, isEnd, look }: CellProps) {
  return (
    <span
      role="gridcell"
      className={classes.cell}
      data-kind={kind}
      data-fixed={fixed}
      data-row={row}
      data-column={column}
      data-range={inRange}
      data-cursor={isCursor}
      title={look.title}
      {...look.data}
    >
      {look.content}
      {isEnd && <b className={classes.handle} data-handle aria-hidden />}
    </span>
  );
}, isSameCell);

function isSameCell(before: CellProps, { look, ...now }: CellProps): boolean {
  for (const name in now) if (before[name as keyof CellProps] !== now[name as keyof typeof now]) return false;
  const { content, title, data } = before.look;
  return content === look.content && title === look.title && isSameData(data, look.data);
}

/** Marks for a look are the same few for all cells of a sheet. */
function isSameData(a: Look["data"] = {}, b: Look["data"] = {}): boolean {
  for (const name in a) if (a[name as keyof typeof a] !== b[name as keyof typeof b]) return false;
  for (const name in b) if (!(name in a)) return false;
  return true;
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
        const c = strip && k >= strip.lead ? strip.first + k - strip.lead : k;
        const cell = (
          <Cell
            key={column.id}
            kind={column.kind}
            fixed={column.fixed}
            row={index}
            column={c}
            inRange={c >= from && c <= to}
            isCursor={c === cursor}
            isEnd={ends && c === to}
            look={look(row, column)}
          />
        );
        return strip && k === strip.lead ? [<span key="gap" aria-hidden />, cell] : cell;
      })}
    </div>
  );
}

/** One row of a sheet. Told what it shows, so that scrolling draws only what is new. */
export const SheetRow = memo(Row) as typeof Row;
