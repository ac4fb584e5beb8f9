"use client";

import { Button } from "@mantine/core";
import { IconCheck } from "@tabler/icons-react";
import { useState } from "react";
import { CONCERNS, type Finding } from "@/core/check/finding";
import { Stage } from "@/ui/stage/Stage";
import { Split } from "@/ui/base/parts/Split";
import { RipplePanel } from "@/ui/features/cues/RipplePanel";
import { capital } from "@/ui/base/typed/capital";
import { FindingCard } from "./FindingCard";
import { Section } from "./Section";
import { useFindings } from "./useFindings";
import classes from "./Check.module.css";

/** Everything suspicious in the show, by what it is about, each with its cure; beside it the stage, and what a cure would change. */
export function CheckPlace() {
  const { looked, open, urgent, aside, nevers, dismiss, takeBack, neverShow, showAgain } = useFindings();
  const [asides, setAsides] = useState(false);
  const group = (findings: readonly Finding[], isAside: boolean) =>
    CONCERNS.map((concern) => ({ concern, found: findings.filter((f) => f.concern === concern) }))
      .filter(({ found }) => found.length > 0)
      .map(({ concern, found }) => (
        <Section
          key={concern}
          concern={concern}
          found={found}
          onAside={dismiss}
          onNever={neverShow}
          card={(finding) => (
            <FindingCard
              key={finding.key}
              finding={finding}
              aside={isAside}
              onAside={() => (isAside ? takeBack(finding) : dismiss([finding]))}
            />
          )}
        />
      ));
  const put = aside.length + nevers.length;
  const wait = open.length - urgent.length;
  return (
    <Split
      name="check-across"
      label="Width of what is found"
      keeps="second"
      size="33.5%"
      least={[400, 260]}
      first={
        <div className={classes.check}>
          <header>
            <h1>Check</h1>
            <span className="muted" data-testid="check-count">
              {!looked
                ? "Checking the show…"
                : [
                    `${urgent.length} to look at`,
                    wait > 0 && `${wait} can wait`,
                    aside.length > 0 && `${aside.length} put aside`,
                  ]
                    .filter(Boolean)
                    .join(", ")}
            </span>
            {put > 0 && (
              <Button
                size="compact-sm"
                variant={asides ? "light" : "default"}
                aria-pressed={asides}
                onClick={() => setAsides(!asides)}
              >
                {asides ? "Open" : "Put aside"}
              </Button>
            )}
          </header>
          {looked && !asides && open.length === 0 && (
            <p className={classes.fine}>
              <IconCheck size={18} /> Nothing suspicious: addresses and wires, drift and moves in the dark, cues and
              their timing, palettes, groups and effects, signed-off looks.
            </p>
          )}
          {asides && nevers.length > 0 && (
            <ul className={classes.nevers} aria-label="Hidden kinds">
              {nevers.map(({ kind, count }) => (
                <li key={kind}>
                  {capital(kind)} hidden{count > 0 ? `: ${count} now` : ""}{" "}
                  <Button size="compact-sm" variant="default" onClick={() => showAgain(kind)}>
                    Show them again
                  </Button>
                </li>
              ))}
            </ul>
          )}
          {asides ? group(aside, true) : group(open, false)}
        </div>
      }
      second={
        <aside className={classes.side}>
          <div className={classes.stage}>
            <Stage />
          </div>
          <RipplePanel />
        </aside>
      }
    />
  );
}
