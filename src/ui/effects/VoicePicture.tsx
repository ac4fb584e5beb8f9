"use client";

import { hasStops, type Stop, type Voice } from "@/core/show/effectSchema";
import type { Item } from "@/core/show/ids";
import type { World } from "@/core/show/world";
import { useShow } from "../useSession";
import { bandOf } from "./band";
import { pathOf } from "./shape";
import classes from "./Effects.module.css";

/** A voice, small: its wave with a dot running on it, or its stops. */
export function VoicePicture({
  voice,
  items,
  moving = true,
}: {
  voice: Voice;
  items: readonly Item[];
  moving?: boolean;
}) {
  const world = useShow((s) => s.world);
  if (hasStops(voice)) return <StopsPicture world={world} stops={voice.stops} voice={voice} items={items} />;
  const path = pathOf(world.show, voice, 96, 26);
  const seconds = voice.bpm > 0 ? Math.max(0.25, 60 / voice.bpm) : 0;
  return (
    <svg className={classes.mini} viewBox="-3 -4 102 34" preserveAspectRatio="none" aria-hidden>
      <path d={path} />
      {moving && seconds > 0 && (
        <circle r={3}>
          <animateMotion dur={`${seconds}s`} repeatCount="indefinite" path={path} />
        </circle>
      )}
    </svg>
  );
}

function StopsPicture({
  world,
  stops,
  voice,
  items,
}: {
  world: World;
  stops: readonly Stop[];
  voice: Voice;
  items: readonly Item[];
}) {
  const band = hasStops(voice) ? bandOf(world.show, voice, items, 24)[0] : undefined;
  if (band)
    return (
      <span className={classes["mini-band"]} aria-hidden>
        {band.colours.map((c, k) => (
          <i key={k} style={{ background: c }} />
        ))}
      </span>
    );
  return (
    <span className={classes["mini-stops"]} aria-hidden>
      {stops.slice(0, 6).map((s, k) => (
        <i key={k}>
          {typeof s.value === "number"
            ? s.value
            : "colour" in s.value
              ? ""
              : (world.show.palettes[s.value.palette]?.name ?? "?")}
        </i>
      ))}
    </span>
  );
}
