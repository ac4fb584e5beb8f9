"use client";

import { useEffect, useState } from "react";
import type { Mapping } from "@/core/exchange/patchColumns";
import { patchReader, type PatchReading, type TypeChoice } from "@/core/exchange/patchTable";
import type { Table } from "@/core/exchange/tableText";
import type { Show } from "@/core/show/schema";

const ROWS_A_STEP = 200;

export interface Reading {
  done: number;
  total: number;
  /** null while rows are still being read. */
  result: PatchReading | null;
}

/** Reads a table in short steps, so that no frame is held up; starts again when what it is read by changes. */
export function useReading(
  show: Show,
  table: Table | null,
  mapping: Mapping | null,
  choices: readonly TypeChoice[],
  how: "add" | "update",
): Reading {
  const [reading, setReading] = useState<Reading>({ done: 0, total: 0, result: null });
  useEffect(() => {
    if (!table || !mapping) return;
    const reader = patchReader(show, table, mapping, choices, how);
    let timer: ReturnType<typeof setTimeout>;
    const step = () => {
      const more = reader.step(ROWS_A_STEP);
      setReading({ done: reader.done(), total: reader.total, result: more ? null : { ...reader.result } });
      if (more) timer = setTimeout(step, 0);
    };
    timer = setTimeout(step, 0);
    return () => clearTimeout(timer);
  }, [show, table, mapping, choices, how]);
  return reading;
}
