"use client";

import type { Step } from "@/core/fixture/type";
import { useShow } from "@/ui/show/useSession";
import { GoboPicture } from "@/ui/stage/pictures/GoboPicture";
import classes from "./Programmer.module.css";

interface Props {
  steps: readonly Step[];
  now: number;
  /** Whether its slots are gobos. */
  gobos?: boolean;
  onPick(value: number): void;
}

/** The slots of a wheel or the states of a function, to be pressed: a colour as its colour, a gobo drawn, others by name. */
export function SlotRow({ steps, now, gobos, onPick }: Props) {
  const coloured = steps.some((s) => s.colour);
  const types = useShow((state) => state.world.show.types);
  const drawn = (name: string | undefined): string | undefined =>
    name === undefined ? undefined : Object.values(types).find((t) => t.pictures?.[name])?.pictures?.[name];
  return (
    <div className={classes.slots} data-coloured={coloured} data-gobos={gobos}>
      {steps.map((s) => (
        <button
          key={s.value}
          type="button"
          title={s.name}
          aria-pressed={s.value === now}
          aria-label={s.name}
          style={s.colour ? { background: s.colour } : undefined}
          onClick={() => onPick(s.value)}
        >
          {coloured ? "" : gobos ? <GoboPicture name={s.name} picture={drawn(s.picture)} /> : s.name}
        </button>
      ))}
    </div>
  );
}
