"use client";

import { useMemo, useRef } from "react";
import { playedAt, playingOf, type Playing } from "@/core/play/stage/playing";
import { isStepped } from "@/core/play/stage/rig";
import { resolveEntry } from "@/core/program/resolve";
import { castVoice } from "@/core/effect/casting";
import { beamOf } from "@/core/patch/room";
import { hasStops, type Voice } from "@/core/show/effectSchema";
import { splitItem } from "@/core/show/ids";
import { targetsOf } from "@/core/show/model";
import type { Fixture } from "@/core/show/schema";
import type { World } from "@/core/show/world";
import { useShow } from "@/ui/show/useSession";
import { useFrames } from "@/ui/stage/pictures/cycles";
import type { Target } from "./target";
import classes from "./Effects.module.css";

/** The room as the plan sees it, metres; beams end at its walls. */
const ROOM = { left: -9, right: 9, front: -4, back: 11 };
const MOST = 8;
const STEPS = 72;

interface Traced {
  fixture: Fixture;
  points: [number, number][];
  at(cycles: number): [number, number];
}

const moves = (voice: Voice): boolean =>
  hasStops(voice)
    ? "family" in voice.of
      ? voice.of.family === "Position"
      : /^(Pan|Tilt)$/.test(voice.of.attribute)
    : /^(Pan|Tilt)$/.test(voice.attribute);

/** Where a beam meets the floor, or the wall that is in its way. */
function landing(fixture: Fixture, pan: number, tilt: number): [number, number] {
  const [dx, dy, dz] = beamOf(fixture, pan, tilt);
  const { x, y, z } = fixture.place;
  const far = [
    dz < -1e-6 ? z / -dz : Infinity,
    dx > 0 ? (ROOM.right - x) / dx : dx < 0 ? (ROOM.left - x) / dx : Infinity,
    dy > 0 ? (ROOM.back - y) / dy : dy < 0 ? (ROOM.front - y) / dy : Infinity,
  ].filter((t) => t >= 0);
  const t = Math.min(...far, 40);
  return [x + dx * t, y + dy * t];
}

function trace(world: World, target: Target): Traced[] {
  const { show, hands } = world;
  const voices = target.voices.filter((v) => !v.muted && moves(v.voice));
  const items = [...new Set(voices.flatMap((v) => v.items))].slice(0, 400);
  const step = Math.max(1, Math.ceil(items.length / MOST));
  return items
    .filter((_, k) => k % step === 0)
    .flatMap((item): Traced[] => {
      const fixture = show.fixtures[splitItem(item).fixture];
      if (!fixture) return [];
      const parts = ["Pan", "Tilt"].map((attribute) => {
        const t = targetsOf(show, item, attribute)[0];
        if (!t) return undefined;
        const entry = hands.held[t.key];
        const base =
          (entry?.value !== undefined ? resolveEntry(show, t.key, t.spec, entry)?.value : undefined) ?? t.spec.default;
        const playing = voices.flatMap((v): { plays: Playing; speed: number }[] => {
          const cast = castVoice(show, v.items, v.voice, (turn) => ({ plays: v.voice, ...turn }))[t.key];
          const plays =
            cast &&
            playingOf(
              show,
              t.key,
              t.spec,
              t.spec.functions.map((f) => !isStepped(f)),
              cast,
            );
          return plays ? [{ plays, speed: v.voice.bpm }] : [];
        })[0];
        return { base, playing };
      });
      const [pan, tilt] = parts;
      if (!pan || !tilt) return [];
      const slowest = Math.max(
        1e-6,
        Math.min(...[pan, tilt].flatMap((p) => (p.playing && p.playing.speed > 0 ? [p.playing.speed] : [])), 6000),
      );
      const angle = (p: typeof pan, cycles: number) =>
        p.playing ? playedAt(p.playing.plays, (cycles * p.playing.speed) / slowest, p.base, 0, 1) : p.base;
      const at = (cycles: number) => landing(fixture, angle(pan, cycles), angle(tilt, cycles));
      return [{ fixture, at, points: Array.from({ length: STEPS + 1 }, (_, k) => at(k / STEPS)) }];
    });
}

/** The paths beams draw on the floor and against the walls, with where each is now. Nothing where the effect moves nothing. */
export function PathPicture({ target, cycles }: { target: Target; cycles(): number }) {
  const world = useShow((s) => s.world);
  const traced = useMemo(() => trace(world, target), [world, target]);
  const marks = useRef<(SVGCircleElement | null)[]>([]);
  useFrames(() => {
    const now = cycles();
    traced.forEach(({ at }, k) => {
      const [x, y] = at(now);
      marks.current[k]?.setAttribute("cx", x.toFixed(2));
      marks.current[k]?.setAttribute("cy", (-y).toFixed(2));
    });
  });
  if (traced.length === 0) return null;
  return (
    <svg
      className={classes.path}
      viewBox={`${ROOM.left - 0.5} ${-ROOM.back - 0.5} ${ROOM.right - ROOM.left + 1} ${ROOM.back - ROOM.front + 1}`}
      role="img"
      aria-label="The paths of the beams on the floor"
    >
      <rect x={ROOM.left} y={-ROOM.back} width={ROOM.right - ROOM.left} height={ROOM.back - ROOM.front} />
      {traced.map(({ fixture, points }, k) => (
        <g key={fixture.id}>
          <path d={points.map(([x, y], i) => `${i ? "L" : "M"}${x.toFixed(2)} ${(-y).toFixed(2)}`).join(" ")} />
          <text x={fixture.place.x} y={-fixture.place.y}>
            {fixture.number}
          </text>
          <circle ref={(el) => void (marks.current[k] = el)} r={0.22} />
        </g>
      ))}
    </svg>
  );
}
