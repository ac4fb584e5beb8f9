"use client";

import { Button } from "@mantine/core";
import { IconCheck } from "@tabler/icons-react";
import { useDeferredValue, useEffect, useState } from "react";
import { useSession, useShow } from "@/ui/show/useSession";
import { firstSteps } from "./firstSteps";
import { Strip } from "./Strip";
import { usePath } from "./useStart";
import classes from "./Start.module.css";

/** Beside the work of a new show: the five steps to a first cue that plays, each ticked by what was done. */
export function FirstSteps() {
  const session = useSession();
  const [seen, close] = usePath("first-steps");
  // A show that came with cues is past its first steps.
  const [isNew] = useState(() =>
    firstSteps(session.store.getState().world, false)
      .slice(0, 4)
      .some((s) => !s.done),
  );
  if (seen === "closed" || (seen === "open" && !isNew) || session.readOnly !== null) return null;
  return <Steps onClose={close} />;
}

function Steps({ onClose }: { onClose(): void }) {
  const session = useSession();
  const world = useDeferredValue(useShow((s) => s.world));
  const runs = useShow((s) => Object.values(s.playing.runs).some((run) => run.cue !== null));
  const [played, setPlayed] = useState(false);
  useEffect(() => setPlayed((was) => was || runs), [runs]);
  const steps = firstSteps(world, played || runs);
  const now = steps.findIndex((s) => !s.done);
  const step = steps[now];
  const does = async () => {
    for (const line of step?.lines ?? []) if (await session.run(line)) return;
  };
  return (
    <Strip title="First steps" onClose={onClose}>
      <ol className={classes.steps}>
        {steps.map(({ name, done }, k) => (
          <li key={name} data-done={done} aria-current={k === now ? "step" : undefined}>
            {done ? <IconCheck size={14} aria-label="done" /> : <span className="num">{k + 1}</span>} {name}
          </li>
        ))}
      </ol>
      {step ? (
        <>
          <p className={classes.about}>{step.about}</p>
          <Button size="compact-sm" variant="light" flex="none" onClick={() => void does()}>
            {step.button}
          </Button>
          <span className={classes.line}>
            or type <code>{step.lines[0]}</code>
          </span>
        </>
      ) : (
        <p className={classes.about}>That is the whole path. Every command has an example in the handbook.</p>
      )}
    </Strip>
  );
}
