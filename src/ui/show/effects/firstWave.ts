import { PLAIN_PHASING } from "@/core/effect/words";
import type { Voice } from "@/core/show/effectSchema";
import { NO_SPREAD } from "@/core/show/spreadSchema";

/** A wave on one attribute of the selection, to begin with. */
export const firstWave = (attribute: string, min: number, max: number): Voice => ({
  ...PLAIN_PHASING,
  spread: NO_SPREAD,
  bpm: 20,
  attribute,
  wave: "sine",
  range:
    attribute === "Dimmer" || min === 0 ? { low: min, high: max } : { centre: 0, size: Math.min(12, (max - min) / 8) },
});
