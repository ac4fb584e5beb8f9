"use client";

import { IconLock } from "@tabler/icons-react";
import { useRef, useState } from "react";
import classes from "./Run.module.css";

/** So long the button is held to unlock, milliseconds. */
const HOLD_MS = 900;

/** The screen locked against touches: keys still work, and it is opened by holding. */
export function ScreenLock({ onOpen }: { onOpen(): void }) {
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null);
  const [holding, setHolding] = useState(false);
  const begin = () => {
    setHolding(true);
    timer.current = setTimeout(onOpen, HOLD_MS);
  };
  const end = () => {
    setHolding(false);
    if (timer.current) clearTimeout(timer.current);
  };
  return (
    <div className={classes.locked} role="dialog" aria-label="The screen is locked">
      <button
        type="button"
        data-holding={holding}
        onPointerDown={begin}
        onPointerUp={end}
        onPointerLeave={end}
        onPointerCancel={end}
        onKeyDown={(e) => e.key === "Enter" && !e.repeat && begin()}
        onKeyUp={end}
      >
        <IconLock size={22} /> The screen is locked; keys still work. Hold to unlock
      </button>
    </div>
  );
}
