"use client";

import { useEffect, useState } from "react";
import { watchHints, type Hint } from "./hints";
import classes from "./Hints.module.css";

/** Widest a hint is, and its distance from what it is of, px. */
const WIDEST = 280;
const APART = 8;

/** What a mark, an icon or a letter is, said beside it. */
export function Hints() {
  const [hint, setHint] = useState<Hint | null>(null);
  useEffect(() => watchHints(setHint), []);
  if (!hint) return null;
  const { text, at, above } = hint;
  const isAbove = above ? at.top > 80 : at.bottom + 80 > innerHeight;
  return (
    <div
      role="tooltip"
      className={classes.hint}
      style={{
        maxWidth: WIDEST,
        left: Math.max(APART, Math.min(at.left, innerWidth - WIDEST - APART)),
        ...(isAbove ? { bottom: innerHeight - at.top + APART } : { top: at.bottom + APART }),
      }}
    >
      {text}
    </div>
  );
}
