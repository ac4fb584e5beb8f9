"use client";

import { Button } from "@mantine/core";
import { IconAlertTriangle, IconCheck } from "@tabler/icons-react";
import { outputFindings, type OutputFinding } from "@/core/dmx/outputCheck";
import { deleteCue, setCue } from "@/core/cue/intents";
import { linesOf } from "@/core/desk/lines";
import { address } from "@/core/patch/intents";
import { deleteGroup } from "@/core/select/groupIntents";
import { runsOnTheSpot } from "@/core/play/kinds/cues";
import { saidBy } from "@/core/palette/lookup";
import { widenPalette } from "@/core/palette/intents";
import { gapsOf } from "@/core/palette/uses";
import { paletteText } from "@/core/palette/words";
import { kindOf } from "@/core/play/kinds/kinds";
import { cuesOf, fixturesByNumber, groupsByNumber, listsByNumber, type World } from "@/core/show/world";
import { useSession, useShow } from "../useSession";
import classes from "./Check.module.css";

type Finding = OutputFinding;

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** What can be told from the show so far. */
function findingsIn({ show }: World): Finding[] {
  const bare = fixturesByNumber(show).filter((f) => f.addresses.length === 0);
  return [
    ...(bare.length
      ? [
          {
            what:
              bare.length === 1
                ? `Fixture ${bare[0]!.number} has no address`
                : `${bare.length} fixtures have no address`,
            why: "They can be programmed, but nothing of them goes down the wire.",
            cure: "Give them the first free run",
            intents: [address.of({ fixtures: bare.map((f) => f.id), at: "auto" })],
          },
        ]
      : []),
    ...outputFindings(show),
    ...groupsByNumber(show)
      .filter((g) => g.members.length === 0)
      .map((g) => ({
        what: `Group ${g.number} "${g.name}" is empty`,
        why: "Its fixtures were removed.",
        cure: "Delete it",
        intents: [deleteGroup.of({ group: g.id })],
      })),
    ...[...gapsOf(show, (id, key) => saidBy(show, id, key) !== undefined)].map(([id, fixtures]) => ({
      what: `${capital(paletteText({ show }, id))} has nothing for ${fixtures.size === 1 ? "fixture" : "fixtures"} ${[
        ...fixtures,
      ]
        .flatMap((f) => show.fixtures[f]?.number ?? [])
        .sort((a, b) => a - b)
        .join(", ")}`,
      why: "Cues name it there, and it says nothing: what came before shows through.",
      cure: show.palettes[id]?.width === "each" ? "Let their types follow it" : "Make it wider: for any fixture",
      intents: [widenPalette.of({ palette: id, width: show.palettes[id]?.width === "each" ? "type" : "any" })],
    })),
    ...listsByNumber(show)
      .filter((list) => kindOf(list).goes && runsOnTheSpot(list))
      .map((list) => ({
        what: `List ${list.number} "${list.name}" comes round in no time`,
        why: "It stops in its last cue instead of running for ever.",
        cure: "Wait a second before its first cue",
        intents: [setCue.of({ list: list.id, cue: cuesOf(list)[0]!.id, trigger: { kind: "auto", after: 1 } })],
      })),
    ...listsByNumber(show).flatMap((list) =>
      cuesOf(list)
        .filter((c) => Object.keys(c.entries).length === 0)
        .map((c) => ({
          what: `Cue ${c.number} of ${list.name} stores nothing`,
          why: "Its look is the one before it.",
          cure: "Delete it",
          intents: [deleteCue.of({ list: list.id, cue: c.id, keepLooks: true })],
        })),
    ),
  ];
}

/** Everything suspicious in the show, each with its cure. */
export function CheckPlace() {
  const session = useSession();
  const world = useShow((s) => s.world);
  const findings = findingsIn(world);
  return (
    <div className={classes.check}>
      <h1>Check</h1>
      {findings.length === 0 && (
        <p className={classes.fine}>
          <IconCheck size={18} /> Every fixture has an address, every patched universe goes somewhere, every group has
          members, every cue stores something, no list runs round on the spot, every palette a cue names has something
          for its fixtures.
        </p>
      )}
      {findings.map((f) => (
        <article key={f.what} className={classes.finding}>
          <IconAlertTriangle size={20} color="var(--caution)" />
          <div>
            <h2>{f.what}</h2>
            <p>{f.why}</p>
          </div>
          <Button
            size="compact-sm"
            variant="default"
            title={linesOf(world, f.intents).join("; ")}
            onClick={() => session.act(f.intents)}
          >
            {f.cure}
          </Button>
        </article>
      ))}
    </div>
  );
}
