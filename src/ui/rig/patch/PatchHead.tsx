"use client";

import { useRef, type PointerEvent } from "react";
import type { Column } from "./columns";
import type { View } from "./view";
import classes from "./PatchTable.module.css";

interface Props {
  columns: readonly Column[];
  template: string;
  view: View;
  setView(next: View): void;
}

const STILL = 5;

/** Column titles: press to sort, drag to move, drag the edge to widen. */
export function PatchHead({ columns, template, view, setView }: Props) {
  const drag = useRef<{ id: string; x: number; width: number; edge: boolean; moved: boolean } | null>(null);
  const down = (column: Column) => (event: PointerEvent<HTMLElement>) => {
    if (event.button !== 0) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    const edge = (event.target as HTMLElement).dataset.edge !== undefined;
    drag.current = {
      id: column.id,
      x: event.clientX,
      width: view.widths[column.id] ?? column.width,
      edge,
      moved: false,
    };
  };
  const move = (event: PointerEvent) => {
    const d = drag.current;
    if (!d || (!d.moved && Math.abs(event.clientX - d.x) < STILL)) return;
    d.moved = true;
    if (d.edge)
      return setView({
        ...view,
        widths: { ...view.widths, [d.id]: Math.min(800, Math.max(34, d.width + event.clientX - d.x)) },
      });
    const over = (document.elementFromPoint(event.clientX, event.clientY) as HTMLElement | null)?.closest<HTMLElement>(
      "[data-title]",
    )?.dataset.title;
    if (!over || over === d.id) return;
    const rest = view.order.filter((id) => id !== d.id);
    const to = rest.indexOf(over) + (view.order.indexOf(d.id) < view.order.indexOf(over) ? 1 : 0);
    setView({ ...view, order: [...rest.slice(0, to), d.id, ...rest.slice(to)] });
  };
  const up = (column: Column) => () => {
    const d = drag.current;
    drag.current = null;
    if (!d || d.moved || d.edge) return;
    const { sort } = view;
    setView({
      ...view,
      sort:
        sort?.column !== column.id
          ? { column: column.id, down: false }
          : sort.down
            ? null
            : { column: column.id, down: true },
    });
  };
  return (
    <div className={`${classes.row} ${classes.titles}`} role="row" style={{ gridTemplateColumns: template }}>
      {columns.map((column) => {
        const sorted = view.sort?.column === column.id ? (view.sort.down ? "descending" : "ascending") : undefined;
        return (
          <span
            key={column.id}
            role="columnheader"
            className={classes.title}
            data-title={column.id}
            data-kind={column.kind}
            title={`${column.hint}. Press to sort, drag to move`}
            aria-sort={sorted}
            onPointerDown={down(column)}
            onPointerMove={move}
            onPointerUp={up(column)}
          >
            {column.title}
            {sorted === "ascending" ? " ↑" : sorted === "descending" ? " ↓" : ""}
            <i data-edge className={classes.edge} />
          </span>
        );
      })}
    </div>
  );
}
