"use client";

import { ActionIcon, Button } from "@mantine/core";
import { IconChevronLeft, IconChevronRight } from "@tabler/icons-react";
import { useState } from "react";
import { putIntoAsk } from "@/ui/show/foresight/askInput";
import { usePlaces } from "@/ui/show/addresses/places";
import { useSession } from "@/ui/show/useSession";
import { Strip } from "./Strip";
import { usePath } from "./useStart";
import { WORTH_TRYING, type Trial } from "./worthTrying";
import classes from "./Start.module.css";

/** What was tried and can be taken back: how much had been done before it. */
interface Tried {
  at: number;
  before: number;
}

/** Beside the work of the demo show: ten things worth trying, each of which sets itself up and can be taken back. */
export function WorthTrying() {
  const session = useSession();
  const { go } = usePlaces();
  const [seen, close] = usePath("worth-trying");
  const [at, setAt] = useState(0);
  const [tried, setTried] = useState<Tried | null>(null);
  if (seen === "closed" || session.readOnly !== null) return null;
  const trial = WORTH_TRYING[at]!;
  const done = () => session.store.getState().history.done.length;
  const takeBack = async () => {
    if (!tried) return;
    for (const line of WORTH_TRYING[tried.at]!.ends ?? []) await session.run(line);
    for (let left = done(); left > tried.before; left = done()) {
      await session.step("undo");
      if (done() === left) break;
    }
    putIntoAsk("");
    setTried(null);
  };
  const tryIt = async ({ place, lines, typed }: Trial) => {
    await takeBack();
    const before = done();
    go(place);
    for (const line of lines) if (await session.run(line)) break;
    if (typed !== undefined) putIntoAsk(typed);
    setTried({ at, before });
  };
  const walk = (by: number) => setAt((at + by + WORTH_TRYING.length) % WORTH_TRYING.length);
  return (
    <Strip title="Worth trying" onClose={close}>
      <ActionIcon variant="subtle" color="gray" aria-label="The one before" onClick={() => walk(-1)}>
        <IconChevronLeft size={16} />
      </ActionIcon>
      <span className={`num ${classes.count}`}>
        {at + 1} of {WORTH_TRYING.length}
      </span>
      <ActionIcon variant="subtle" color="gray" aria-label="The next one" onClick={() => walk(1)}>
        <IconChevronRight size={16} />
      </ActionIcon>
      <p className={classes.about}>
        <b>{trial.title}</b>
        {trial.about}
      </p>
      <Button size="compact-sm" variant="light" flex="none" onClick={() => void tryIt(trial)}>
        Try it
      </Button>
      <Button
        size="compact-sm"
        variant="default"
        flex="none"
        disabled={tried === null}
        title="Ends what it started and undoes everything since, your own changes too"
        onClick={() => void takeBack()}
      >
        Take it back
      </Button>
    </Strip>
  );
}
