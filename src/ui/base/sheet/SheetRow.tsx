"use client";

import { memo } from "react";
import { BUNCH, type Bunch, type Look } from "./looks";
import type { SheetColumn } from "./view";
import classes from "./Sheet.module.css";

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
});

/** Where the range is in a row: its first and last column, and its cursor; -1 for none. */
interface Marked {
  from: number;
  to: number;
  cursor: number;
  /** Whether the range ends in this row: there it can be dragged on. */
  ends: boolean;
}

interface BunchProps extends Marked {
  index: number;
  bunch: Bunch<SheetColumn>;
  looks: readonly Look[];
}

/** Some cells side by side, drawn again only where one of them shows something else. */
const Cells = memo(function Cells({ index, bunch, looks, from, to, cursor, ends }: BunchProps) {
  return bunch.columns.map((column, k) => {
    const c = bunch.from + k;
    return (
      <Cell
        key={column.id}
        kind={column.kind}
        fixed={column.fixed}
        row={index}
        column={c}
        inRange={c >= from && c <= to}
        isCursor={c === cursor}
        isEnd={ends && c === to}
        look={looks[k]!}
      />
    );
  });
});

interface Props<C extends SheetColumn> extends Marked {
  index: number;
  bunches: readonly Bunch<C>[];
  /** Before which bunch the room of the columns that are not drawn is; -1 where all are. */
  gapAt: number;
  template: string;
  top: number;
  chosen: boolean;
  /** What the cells show, bunch by bunch. */
  looks: readonly (readonly Look[])[];
}

/** One row of a sheet. Told what it shows, so that scrolling and editing draw only what is new. */
export const SheetRow = memo(function SheetRow<C extends SheetColumn>(props: Props<C>) {
  const { index, bunches, gapAt, template, top, chosen, looks, ...marked } = props;
  const cells = bunches.map((bunch, k) => (
    <Cells
      key={Math.floor(bunch.from / BUNCH) + (k > 0 && gapAt === 1 ? 1 : 0)}
      index={index}
      bunch={bunch}
      looks={looks[k]!}
      {...marked}
    />
  ));
  if (gapAt >= 0) cells.splice(gapAt, 0, <span key="gap" aria-hidden />);
  return (
    <div
      role="row"
      className={classes.row}
      data-chosen={chosen}
      style={{ top, gridTemplateColumns: template }}
      aria-rowindex={index + 2}
    >
      {cells}
    </div>
  );
});
