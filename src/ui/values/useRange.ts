"use client";

import { useRef, useState } from "react";

/** A range of a sheet: rows and columns by their places, both ends in it. */
export interface Range {
  row: number;
  column: number;
  toRow: number;
  toColumn: number;
}

export interface Bounds {
  top: number;
  bottom: number;
  left: number;
  right: number;
}

export const boundsOf = ({ row, column, toRow, toColumn }: Range): Bounds => ({
  top: Math.min(row, toRow),
  bottom: Math.max(row, toRow),
  left: Math.min(column, toColumn),
  right: Math.max(column, toColumn),
});

export const within = (range: Range | null, row: number, column: number): boolean => {
  if (!range) return false;
  const { top, bottom, left, right } = boundsOf(range);
  return row >= top && row <= bottom && column >= left && column <= right;
};

const STEPS: Record<string, [number, number]> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};

/** The range a hand takes in a sheet: by drag, with Shift, and by keys. @param size rows and columns there are. */
export function useRange(size: { rows: number; columns: number }) {
  const [range, setRange] = useState<Range | null>(null);
  const dragging = useRef(false);
  const clamp = (v: number, most: number) => Math.min(Math.max(v, 0), Math.max(0, most - 1));
  return {
    range,
    setRange,
    press(row: number, column: number, extend: boolean) {
      dragging.current = true;
      setRange((now) =>
        extend && now ? { ...now, toRow: row, toColumn: column } : { row, column, toRow: row, toColumn: column },
      );
    },
    over(row: number, column: number) {
      if (dragging.current) setRange((now) => now && { ...now, toRow: row, toColumn: column });
    },
    letGo: () => void (dragging.current = false),
    /** Moves by an arrow. Returns whether it was one. */
    step(key: string, extend: boolean): boolean {
      const by = STEPS[key];
      if (!by) return false;
      setRange((now) => {
        if (!now) return { row: 0, column: 0, toRow: 0, toColumn: 0 };
        const toRow = clamp(now.toRow + by[0], size.rows);
        const toColumn = clamp(now.toColumn + by[1], size.columns);
        return extend ? { ...now, toRow, toColumn } : { row: toRow, column: toColumn, toRow, toColumn };
      });
      return true;
    },
  };
}
