"use client";

import { Button } from "@mantine/core";
import { givenIn, hardenCue } from "@/core/cue/intents/hardIntent";
import { lineDone, useForeseen } from "@/ui/show/foresight/foreseen";
import { RipplePairs } from "@/ui/stage/pictures/RipplePairs";
import { capital } from "@/ui/base/typed/capital";
import { useSession, useShow } from "@/ui/show/useSession";
import classes from "./Cues.module.css";

const PICTURE = { width: 176, height: 100 };

/** The other looks an edit would change, as they are and as they would be; for the line that is typed or under the hand. */
export function RipplePanel() {
  const session = useSession();
  const { line, found } = useForeseen();
  const show = useShow((s) => s.world.show);
  if (found.ripple.length === 0) return null;
  const { keeps } = found;
  const palette = found.palettes.length === 1 ? show.palettes[found.palettes[0]!] : undefined;
  return (
    <section className={classes.ripple} aria-label="What this edit changes" data-testid="ripple-pictures">
      <header>
        <strong>What this edit changes</strong>
        <span className={classes.caution}>
          {found.ripple.length} other {found.ripple.length === 1 ? "look" : "looks"}
        </span>
      </header>
      <p className="muted">{capital(found.says)}</p>
      <RipplePairs
        ripple={found.ripple}
        then={found}
        {...PICTURE}
        more={({ list, cue }) =>
          palette &&
          givenIn(show, list, cue, palette.id).length > 0 && (
            <Button
              size="compact-xs"
              variant="default"
              title="Keeps what the palette gives it now, as numbers; the next cue still follows the palette"
              onClick={() => session.act([hardenCue.of({ list, cue, palette: palette.id })])}
            >
              not in this cue
            </Button>
          )
        }
      />
      {keeps && (
        <footer>
          <Button size="compact-sm" variant="light" color="teal" onClick={() => !session.act([...keeps]) && lineDone()}>
            Keep {found.ripple.length === 1 ? "that look" : "those looks"}
          </Button>
          <Button
            size="compact-sm"
            variant="default"
            onClick={() => void session.run(line).then((refused) => refused ?? lineDone())}
          >
            Let it track
          </Button>
        </footer>
      )}
    </section>
  );
}
