"use client";

import { Tooltip } from "@mantine/core";
import type { Step } from "@/core/fixture/type";
import classes from "./Build.module.css";

/** The slots of a wheel or the states of a function, to be pressed: a colour as its colour, others by name. */
export function SlotRow({ steps, now, onPick }: { steps: readonly Step[]; now: number; onPick(value: number): void }) {
  const coloured = steps.some((s) => s.colour);
  return (
    <div className={classes.slots} data-coloured={coloured}>
      {steps.map((s) => (
        <Tooltip key={s.value} label={s.name} openDelay={250}>
          <button
            type="button"
            aria-pressed={s.value === now}
            aria-label={s.name}
            style={s.colour ? { background: s.colour } : undefined}
            onClick={() => onPick(s.value)}
          >
            {coloured ? "" : s.name}
          </button>
        </Tooltip>
      ))}
    </div>
  );
}
