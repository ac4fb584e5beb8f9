"use client";

import { Tooltip } from "@mantine/core";
import { IconChecklist, IconLayoutList, IconPlayerPlay, IconSpeakerphone, IconTools } from "@tabler/icons-react";
import { useFindings } from "@/ui/places/check/useFindings";
import { useKeyTable } from "@/ui/show/keys/useKeyTable";
import { usePlace, usePlaces } from "@/ui/show/addresses/places";
import classes from "./Shell.module.css";

export const PLACES = [
  { id: "rig", label: "Rig", icon: IconSpeakerphone, about: "Patch, addresses and DMX" },
  { id: "build", label: "Build", icon: IconTools, about: "Groups, values and looks" },
  { id: "cues", label: "Cues", icon: IconLayoutList, about: "The cue list" },
  { id: "run", label: "Run", icon: IconPlayerPlay, about: "Play the show" },
  { id: "check", label: "Check", icon: IconChecklist, about: "What looks suspicious in the show" },
] as const;

/** How many things Check has found that somebody must look at. */
function Count() {
  const { urgent } = useFindings();
  if (urgent.length === 0) return null;
  return (
    <span className={classes.count} data-testid="check-badge" aria-label={`${urgent.length} to look at`}>
      {urgent.length}
    </span>
  );
}

export function Rail() {
  const { shownKey } = useKeyTable();
  const here = usePlace();
  const { href, go } = usePlaces();
  return (
    <nav className={classes.rail} aria-label="Places">
      {PLACES.map(({ id, label, icon: Icon, about }) => (
        <Tooltip key={id} label={`${about} (${shownKey(id)})`} position="right" openDelay={500}>
          <a
            href={href(id)}
            className={classes["place-link"]}
            aria-current={here === id ? "page" : undefined}
            onClick={(event) => {
              // With a key held the browser opens it in a window or tab of its own.
              if (event.ctrlKey || event.metaKey || event.shiftKey) return;
              event.preventDefault();
              go(id);
            }}
          >
            <Icon size={20} stroke={1.6} aria-hidden />
            <span>{label}</span>
            {id === "check" && <Count />}
          </a>
        </Tooltip>
      ))}
    </nav>
  );
}
