"use client";

import { Button, Group } from "@mantine/core";
import { useMemo, useState } from "react";
import { saidBy } from "@/core/palette/lookup";
import { hangOf, type Sighting } from "@/core/patch/hang";
import { setFixtures } from "@/core/patch/intents";
import { beamOf } from "@/core/patch/room";
import { correctHang, steeredFrom } from "@/core/program/hangIntent";
import { drop } from "@/core/program/intents";
import { splitItem } from "@/core/show/ids";
import { targetsOf } from "@/core/show/model";
import { isAim } from "@/core/show/value";
import { plain } from "@/core/units/units";
import { useSession, useShow } from "@/ui/show/useSession";

const ENOUGH = 3;
const LEVEL = { turn: { x: 0, y: 0, z: 0 } };

/** After steering away from a position palette: the difference as the correction, or three points as the way the unit really hangs. */
export function HangPanel() {
  const session = useSession();
  const show = useShow((s) => s.world.show);
  const { selection, held, cameFrom } = useShow((s) => s.world.hands);
  const [noted, setNoted] = useState<{ fixture: string; sightings: Sighting[] } | null>(null);
  const steered = useMemo(
    () =>
      Object.keys(cameFrom).length === 0
        ? []
        : [...new Set(selection.map((i) => splitItem(i).fixture))].filter(
            (id) => steeredFrom(show, { held, cameFrom }, id).length > 0,
          ),
    [show, selection, held, cameFrom],
  );
  const one = steered.length === 1 && selection.length === 1 ? show.fixtures[steered[0]!] : undefined;
  const sightings = noted && one?.id === noted.fixture ? noted.sightings : [];
  if (steered.length === 0 && sightings.length === 0) return null;

  /** The point the palette is at, and where the unit was steered for it. */
  const note = () => {
    if (!one) return;
    const [pan, tilt] = ["Pan", "Tilt"].map((attribute) => targetsOf(show, one.id, attribute)[0]!.key);
    const palette = cameFrom[pan!] ?? cameFrom[tilt!];
    const point = palette && saidBy(show, palette, pan!)?.value;
    const { view, world } = session.store.getState();
    const at = (key: string) => {
      const value = world.hands.held[key]?.value;
      return typeof value === "number" ? value : view ? session.context().stage(key)?.value : undefined;
    };
    const [p, t] = [at(pan!), at(tilt!)];
    if (!point || typeof point === "number" || !isAim(point) || p === undefined || t === undefined)
      return session.tell("This needs a palette aimed at a point in the room. Record one from an aim", "refused");
    const beam = beamOf(LEVEL, p + one.correct.pan, t + one.correct.tilt);
    const [x, y, z] = point.aim;
    const to = [x - one.place.x, y - one.place.y, z - one.place.z] as const;
    setNoted({ fixture: one.id, sightings: [...sightings, { beam, to }] });
  };
  const solve = () => {
    if (!one) return;
    const { turn, off } = hangOf(sightings);
    const round = (v: number) => Math.round(v * 1000) / 1000;
    const rounded = { x: round(turn.x), y: round(turn.y), z: round(turn.z) };
    const keys = ["Pan", "Tilt"]
      .flatMap((a) => targetsOf(show, one.id, a).map((t) => t.key))
      .filter((key) => held[key]);
    const says = `solves how fixture ${one.number} hangs`;
    const done = session.act(
      [
        setFixtures.of({ changes: { [one.id]: { turn: rounded, correct: { pan: 0, tilt: 0 } } }, says }),
        drop.of({ keys }),
      ],
      says,
    );
    if (done) return;
    setNoted(null);
    session.tell(
      `Fixture ${one.number} hangs turned ${plain(rounded.x, 1)}° ${plain(rounded.y, 1)}° ${plain(rounded.z, 1)}°; ${plain(off, 2)}° is left over at most`,
    );
  };
  return (
    <Group gap={4}>
      <Button
        size="compact-xs"
        variant="default"
        disabled={steered.length === 0}
        title="The difference to the palette becomes the correction at output; palettes and cues stay"
        onClick={() => session.act([correctHang.of({ fixtures: steered })])}
      >
        Correct the hang
      </Button>
      {one && (
        <Button
          size="compact-xs"
          variant="default"
          title="Aim it at three known points to solve its rotation instead of one correction"
          onClick={note}
        >
          Note this point ({sightings.length})
        </Button>
      )}
      {one && sightings.length >= ENOUGH && (
        <Button size="compact-xs" onClick={solve}>
          Solve its rotation
        </Button>
      )}
    </Group>
  );
}
