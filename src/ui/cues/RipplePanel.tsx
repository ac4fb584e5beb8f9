"use client";

import { Button } from "@mantine/core";
import { plain } from "@/core/units/units";
import { keeping, useForeseen } from "../ask/foreseen";
import { LookPicture } from "../parts/LookPicture";
import { capital } from "../parts/words";
import { useSession, useShow } from "../useSession";
import classes from "./Cues.module.css";

const MOST = 12;
const PICTURE = { width: 176, height: 100 };

/** The other looks an edit would change, as they are and as they would be; for the line that is typed or under the hand. */
export function RipplePanel() {
  const session = useSession();
  const { line, found } = useForeseen();
  const show = useShow((s) => s.world.show);
  if (found.ripple.length === 0) return null;
  const keeps = keeping(line);
  return (
    <section className={classes.ripple} aria-label="What this edit changes" data-testid="ripple-pictures">
      <header>
        <strong>What this edit changes</strong>
        <span className={classes.caution}>
          {found.ripple.length} other {found.ripple.length === 1 ? "look" : "looks"}
        </span>
      </header>
      <p className="muted">{capital(found.says)}</p>
      <div className={classes.pairs}>
        {found.ripple.slice(0, MOST).map(({ list, cue, fixtures }) => {
          const number = plain(show.lists[list]?.cues[cue]?.number ?? 0, 3);
          return (
            <figure key={`${list} ${cue}`}>
              <span>
                <LookPicture list={list} cue={cue} {...PICTURE} label={`Cue ${number} now`} />
                <LookPicture
                  list={list}
                  cue={cue}
                  {...PICTURE}
                  then={found}
                  marks={fixtures}
                  label={`Cue ${number} after`}
                />
              </span>
              <figcaption>
                cue <span className="num">{number}</span> now, and after · {fixtures.length}{" "}
                {fixtures.length === 1 ? "fixture differs" : "fixtures differ"}
              </figcaption>
            </figure>
          );
        })}
      </div>
      {found.ripple.length > MOST && <p className="muted">and {found.ripple.length - MOST} more</p>}
      {keeps && (
        <footer>
          <Button size="compact-sm" variant="light" color="teal" onClick={() => void session.run(keeps)}>
            Keep {found.ripple.length === 1 ? "that look" : "those looks"}
          </Button>
          <Button size="compact-sm" variant="default" onClick={() => void session.run(line)}>
            Let it track
          </Button>
        </footer>
      )}
    </section>
  );
}
