"use client";

import { useRef, type PointerEvent } from "react";
import type { SheetColumn, SheetView } from "./view";
import classes from "./Sheet.module.css";

interface Props {
  columns: readonly SheetColumn[];
  view: SheetView;
  setView(next: SheetView): void;
}

const STILL = 5;

/** Column titles: press to sort, drag to move, drag the edge to widen. */
export function SheetHead({ columns, view, setView }: Props) {
  const drag = useRef<{ id: string; x: number; width: number; edge: boolean; moved: boolean } | null>(null);
  const down = (column: SheetColumn) => (event: PointerEvent<HTMLElement>) => {
    if (event.button !== 0) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    const edge = (event.target as HTMLElement).dataset.edge !== undefined;
    drag.current = { id: column.id, x: event.clientX, width: column.width, edge, moved: false };
  };
  const move = (event: PointerEvent) => {
    const d = drag.current;
    if (!d || (!d.moved && Math.abs(event.clientX - d.x) < STILL)) return;
    d.moved = true;
    if (d.edge) {
      const width = Math.min(800, Math.max(34, d.width + event.clientX - d.x));
      return setView({ ...view, widths: { ...view.widths, [d.id]: width } });
    }
    const over = (document.elementFromPoint(event.clientX, event.clientY) as HTMLElement | null)?.closest<HTMLElement>(
      "[data-title]",
    )?.dataset.title;
    if (!over || over === d.id) return;
    const known = [...view.order, ...columns.map((c) => c.id).filter((id) => !view.order.includes(id))];
    const rest = known.filter((id) => id !== d.id);
    const to = rest.indexOf(over) + (known.indexOf(d.id) < known.indexOf(over) ? 1 : 0);
    setView({ ...view, order: [...rest.slice(0, to), d.id, ...rest.slice(to)] });
  };
  const up = (column: SheetColumn) => () => {
    const d = drag.current;
    drag.current = null;
    if (!d || d.moved || d.edge) return;
    const { sort } = view;
    const next =
      sort?.column !== column.id
        ? { column: column.id, down: false }
        : sort.down
          ? null
          : { column: column.id, down: true };
    setView({ ...view, sort: next });
  };
  return columns.map((column) => {
    const sorted = view.sort?.column === column.id ? (view.sort.down ? "descending" : "ascending") : undefined;
    return (
      <span
        key={column.id}
        role="columnheader"
        className={classes.title}
        data-title={column.id}
        data-kind={column.kind}
        data-fixed={column.fixed}
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
  });
}
