"use client";

import { useMemo, useRef } from "react";
import { hasStops, type Stop, type Voice, type WaveVoice } from "@/core/show/effectSchema";
import type { Item } from "@/core/show/ids";
import type { World } from "@/core/show/world";
import { useShow } from "@/ui/show/useSession";
import { bandOf } from "./band";
import { useFrames } from "./cycles";
import { heightAt, pathOf } from "./shape";
import voices from "./Voices.module.css";

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
  return <WaveMini voice={voice} moving={moving && voice.bpm > 0} />;
}

const SIZE = { width: 96, height: 26 };
/** Many of them move at once: they need not move smoothly. */
const PER_SECOND = 12;

function WaveMini({ voice, moving }: { voice: WaveVoice; moving: boolean }) {
  const show = useShow((s) => s.world.show);
  const path = useMemo(() => pathOf(show, voice, SIZE.width, SIZE.height), [show, voice]);
  const dot = useRef<SVGCircleElement>(null);
  const seconds = Math.max(0.25, 60 / Math.max(voice.bpm, 1e-3));
  useFrames(() => {
    const x = (performance.now() / 1000 / seconds) % 1;
    dot.current?.setAttribute("cx", (x * SIZE.width).toFixed(1));
    dot.current?.setAttribute("cy", ((1 - heightAt(show, voice, x)) * SIZE.height).toFixed(1));
  }, PER_SECOND);
  return (
    <svg className={voices.mini} viewBox="-3 -4 102 34" preserveAspectRatio="none" aria-hidden>
      <path d={path} />
      {moving && <circle ref={dot} r={3} />}
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
      <span className={voices["mini-band"]} aria-hidden>
        {band.colours.map((c, k) => (
          <i key={k} style={{ background: c }} />
        ))}
      </span>
    );
  return (
    <span className={voices["mini-stops"]} aria-hidden>
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
