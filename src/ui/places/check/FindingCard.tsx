"use client";

import { ActionIcon, Button, Tooltip } from "@mantine/core";
import { IconAlertTriangle, IconArrowBackUp, IconEyeOff } from "@tabler/icons-react";
import type { Finding } from "@/core/check/finding";
import { linesOf } from "@/core/desk/lines";
import { select } from "@/core/select/intents";
import { hinting, useForeseen } from "@/ui/show/foresight/foreseen";
import { LookPicture } from "@/ui/stage/pictures/LookPicture";
import { showCue } from "@/ui/features/cues/showCue";
import { usePlaces } from "@/ui/show/addresses/places";
import { useSession, useShow } from "@/ui/show/useSession";
import classes from "./Check.module.css";

const PICTURE = { width: 92, height: 66 };

/** One finding: what, where, why it matters, and its cures, each a press that undo takes back. */
export function FindingCard({ finding, aside, onAside }: { finding: Finding; aside: boolean; onAside(): void }) {
  const session = useSession();
  const { go } = usePlaces();
  const show = useShow((s) => s.world.show);
  const { list, cue, fixtures } = finding;
  const owner = list ? show.lists[list] : undefined;
  const at = owner && cue ? owner.cues[cue] : undefined;
  const signed = finding.concern === "Looks that were signed off";
  return (
    <article className={classes.finding} data-aside={aside} data-testid="finding">
      {at && owner ? (
        <span className={classes.pictures}>
          {signed && (
            <LookPicture
              list={owner.id}
              cue={at.id}
              {...PICTURE}
              signed
              label={`Cue ${at.number} as it was signed off`}
            />
          )}
          <LookPicture
            list={owner.id}
            cue={at.id}
            {...PICTURE}
            {...(fixtures ? { marks: fixtures } : {})}
            label={`Cue ${at.number} now`}
          />
        </span>
      ) : (
        <IconAlertTriangle size={20} color="var(--caution)" aria-hidden />
      )}
      <div>
        <h3>{finding.what}</h3>
        <p>{finding.why}</p>
        <p className={classes.deeds}>
          {finding.cures.map((cure) => {
            const line = () => linesOf(session.store.getState().world, cure.intents).join("; ");
            return (
              <Button
                key={cure.says}
                size="compact-sm"
                variant="default"
                title={line()}
                {...hinting(line)}
                onClick={() => {
                  useForeseen.setState({ hint: null });
                  session.act(cure.intents);
                }}
              >
                {cure.says}
              </Button>
            );
          })}
          {at && owner && (
            <Button size="compact-sm" variant="subtle" onClick={() => (showCue(owner.id, at.id), go("cues"))}>
              Show the cue
            </Button>
          )}
          {fixtures && fixtures.length > 0 && (
            <Button
              size="compact-sm"
              variant="subtle"
              onClick={() => session.act([select.of({ items: fixtures.filter((f) => show.fixtures[f]) })], "select")}
            >
              Select {fixtures.length === 1 ? "it" : `the ${fixtures.length}`}
            </Button>
          )}
        </p>
      </div>
      <Tooltip label={aside ? "Shows it again" : "It is all right: put it aside"}>
        <ActionIcon
          variant="subtle"
          color="gray"
          aria-label={aside ? `Take back: ${finding.what}` : `Put aside: ${finding.what}`}
          onClick={onAside}
        >
          {aside ? <IconArrowBackUp size={16} /> : <IconEyeOff size={16} />}
        </ActionIcon>
      </Tooltip>
    </article>
  );
}
