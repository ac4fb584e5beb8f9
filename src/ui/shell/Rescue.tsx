"use client";

import { Button, Group, Loader, Stack, Text } from "@mantine/core";
import Link from "next/link";
import { useCallback, useEffect, useState } from "react";
import { WAITING } from "@/core/dmx/consent";
import { isRefusal, refusalText } from "@/core/show/refusal";
import { addShow } from "@/session/storage/shows";
import { listVersions, openVersion, type Version, type Versions } from "@/session/storage/versions";
import { capital } from "@/ui/base/typed/capital";
import { versionText } from "@/ui/show/addresses/places";
import classes from "./Shell.module.css";

/** A few of the steps are shown; older ones on demand. */
const A_FEW = 12;

/**
 * Earlier versions of a show: to look at, and to go on with as a show of its own. Whatever is kept of the show
 * stays as it is.
 *
 * @param tells whether it says what is wrong: where nobody else has.
 */
export function Rescue({
  showId,
  tells = false,
  onKept,
}: {
  showId: string;
  tells?: boolean;
  onKept(id: string): void;
}) {
  const [versions, setVersions] = useState<Versions | null>(null);
  const [said, setSaid] = useState("");
  const [most, setMost] = useState(A_FEW);
  useEffect(() => {
    listVersions(showId).then(setVersions, (error: Error) => setSaid(error.message));
  }, [showId]);
  const keep = useCallback(
    async (version: Version) => {
      const world = await openVersion(showId, version);
      const made = isRefusal(world)
        ? world
        : await addShow(
            { ...world, show: { ...world.show, name: `${world.show.name.slice(0, 180)} (earlier)` } },
            WAITING,
          );
      if (isRefusal(made)) return setSaid(refusalText(made));
      onKept(made);
    },
    [showId, onKept],
  );
  if (!versions) return <Waiting said={said} />;
  const { steps, moments, newest, wrong } = versions;
  const row = (version: Version, text: string, best: boolean) => (
    <Group key={versionText(version)} justify="space-between" wrap="nowrap" gap="sm" data-testid="version">
      <Text size="sm" fw={best ? 700 : 400} style={{ minWidth: 0, overflowWrap: "anywhere" }}>
        {text}
      </Text>
      <Group gap={6} wrap="nowrap">
        <Button
          component={Link}
          size="compact-sm"
          variant="default"
          href={`/show/${showId}/build?version=${versionText(version)}`}
        >
          Look at it
        </Button>
        <Button size="compact-sm" variant={best ? "filled" : "default"} onClick={() => void keep(version)}>
          Keep as a show
        </Button>
      </Group>
    </Group>
  );
  return (
    <Stack gap="xs" className={classes.rescue}>
      {wrong && tells && (
        <Text role="alert" size="sm" c="var(--caution)">
          {capital(wrong)}
        </Text>
      )}
      {said && (
        <Text role="alert" size="sm" c="var(--caution)">
          {said}
        </Text>
      )}
      {steps.length > 0 && (
        <Text size="sm" c="dimmed">
          Step by step, the last first.{" "}
          {newest === null ? "None of them opens." : "The one in bold is the last that opens."}
        </Text>
      )}
      {steps
        .slice(0, most)
        .map(({ seq, says }) => row({ step: seq }, `Step ${seq}${says ? `: ${says}` : ""}`, seq === newest))}
      {steps.length > most && (
        <Button size="compact-sm" variant="subtle" onClick={() => setMost(most + 100)}>
          {(steps.length - most).toLocaleString("en")} earlier steps
        </Button>
      )}
      {moments.length > 0 && (
        <Text size="sm" c="dimmed" mt={6}>
          Kept moments
        </Text>
      )}
      {moments.map((m) =>
        row(
          { moment: m.at },
          `${new Date(m.at).toLocaleString()} · ${m.name} · ${m.fixtures} fixtures, ${m.cues} cues`,
          newest === null && m === moments[0],
        ),
      )}
      {steps.length + moments.length === 0 && <Text size="sm">Nothing of it can be read any more.</Text>}
    </Stack>
  );
}

const Waiting = ({ said }: { said: string }) =>
  said ? (
    <Text role="alert" size="sm">
      {said}
    </Text>
  ) : (
    <Loader color="mint" size="sm" aria-label="Looking for earlier versions" />
  );
