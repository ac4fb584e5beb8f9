"use client";

import { useState, type KeyboardEvent, type MouseEvent } from "react";

export interface Chosen {
  /** The cue that is shown beside the list. */
  shown: string | null;
  /** All cues that an edit goes to. */
  ids: ReadonlySet<string>;
  press(id: string, event: Pick<MouseEvent, "shiftKey" | "ctrlKey" | "metaKey">): void;
  choose(id: string | null): void;
  /** Up, down, Home and End; with Shift a range. @returns what is shown now, null where it did nothing. */
  step(event: KeyboardEvent): string | null;
}

const STEPS: Record<string, number> = {
  ArrowUp: -1,
  ArrowDown: 1,
  PageUp: -8,
  PageDown: 8,
  Home: -Infinity,
  End: Infinity,
};

/** Which cues of a list, or rows of a table, are chosen: one, a range with Shift, several with Ctrl. */
export function useChosen(cues: readonly { id: string }[]): Chosen {
  const [shown, setShown] = useState<string | null>(null);
  const [ids, setIds] = useState<ReadonlySet<string>>(new Set());
  const [anchor, setAnchor] = useState<string | null>(null);
  const place = (id: string | null) => cues.findIndex((c) => c.id === id);
  const range = (to: string) => {
    const [a, b] = [place(anchor ?? to), place(to)];
    setIds(new Set(cues.slice(Math.max(0, Math.min(a, b)), Math.max(a, b) + 1).map((c) => c.id)));
    setShown(to);
  };
  const choose = (id: string | null) => {
    setShown(id);
    setAnchor(id);
    setIds(new Set(id === null ? [] : [id]));
  };
  return {
    shown,
    ids,
    choose,
    press(id, { shiftKey, ctrlKey, metaKey }) {
      if (shiftKey) return range(id);
      if (!ctrlKey && !metaKey) return choose(id);
      const next = new Set(ids);
      if (!next.delete(id)) next.add(id);
      setIds(next);
      setShown(id);
      setAnchor(id);
    },
    step(event) {
      const by = STEPS[event.key];
      if (by === undefined || event.altKey || cues.length === 0) return null;
      const now = place(shown);
      const to = cues[Math.min(cues.length - 1, Math.max(0, now < 0 && Number.isFinite(by) ? 0 : now + by))]!.id;
      if (event.shiftKey) range(to);
      else choose(to);
      return to;
    },
  };
}
