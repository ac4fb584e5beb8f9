"use client";

import { useRef, useState, type KeyboardEvent, type PointerEvent } from "react";
import { at, moved, normal, type Range } from "./range";

interface Ways {
  rows: number;
  columns: number;
  lead: number;
  /** The hand has taken a range, or none any more; by itself where only the rows have moved. */
  onTake?(range: Range | null, byItself: boolean): void;
  /** Ctrl and a press on a row. */
  onToggle(row: number): void;
  /** A range's lower edge was dragged on to a row. */
  onFill(range: Range, to: number): void;
  /** Brings a row into sight. */
  reveal(row: number): void;
}

const cellAt = (event: PointerEvent): { row: number; column: number } | undefined => {
  const under = document.elementFromPoint(event.clientX, event.clientY) as HTMLElement | null;
  const cell = under?.closest<HTMLElement>("[data-column]");
  return cell ? { row: Number(cell.dataset.row), column: Number(cell.dataset.column) } : undefined;
};

/** What a hand does with a sheet: takes ranges by drag, Shift and keys, and drags them on. */
export function useSheetHand({ rows, columns, lead, onTake, onToggle, onFill, reveal }: Ways) {
  const [range, setRange] = useState<Range | null>(null);
  const [fillTo, setFillTo] = useState<number | null>(null);
  const drag = useRef<"range" | "fill" | null>(null);
  const n = range && normal(range);
  const take = (next: Range, byItself = false) => {
    setRange(next);
    onTake?.(next, byItself);
  };
  return {
    /** What is taken, upper left end first; rows that are gone are not in it. */
    taken:
      n && rows > 0 && n.r1 < rows ? { ...n, r2: Math.min(n.r2, rows - 1), c2: Math.min(n.c2, columns - 1) } : null,
    range: range && range.r1 < rows && range.c1 < columns ? range : null,
    fillTo,
    take,
    drop: () => (setRange(null), onTake?.(null, true)),
    /** Goes on by a key; false where it is not one that moves. */
    step(event: KeyboardEvent, page: number): boolean {
      const from = range ?? at(-1, lead);
      const next = moved(
        from,
        event.key,
        { rows, columns, lead, page },
        event.shiftKey && range !== null,
        event.ctrlKey || event.metaKey,
      );
      if (!next || rows === 0) return false;
      take(next);
      reveal(next.r2);
      return true;
    },
    down(event: PointerEvent<HTMLElement>) {
      const target = event.target as HTMLElement;
      const cell = event.button === 0 && !target.closest("input, button, [data-title]") ? cellAt(event) : undefined;
      if (!cell || cell.column < lead) return;
      event.currentTarget.setPointerCapture(event.pointerId);
      event.currentTarget.focus({ preventScroll: true });
      if (target.dataset.handle !== undefined) return void (drag.current = "fill");
      if (event.ctrlKey || event.metaKey) return onToggle(cell.row);
      drag.current = "range";
      setRange(event.shiftKey && range ? { ...range, r2: cell.row, c2: cell.column } : at(cell.row, cell.column));
    },
    move(event: PointerEvent) {
      const cell = drag.current ? cellAt(event) : undefined;
      if (!cell || !range || !n) return;
      if (drag.current === "fill") setFillTo(Math.max(n.r2, cell.row));
      else if (cell.row !== range.r2 || cell.column !== range.c2)
        setRange({ ...range, r2: cell.row, c2: Math.max(lead, cell.column) });
    },
    up() {
      if (drag.current === "fill" && n && fillTo !== null && fillTo > n.r2) {
        onFill(n, fillTo);
        setRange({ ...n, r2: fillTo });
      } else if (drag.current === "range" && range) onTake?.(range, false);
      drag.current = null;
      setFillTo(null);
    },
  };
}
