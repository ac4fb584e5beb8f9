/** Effects and their voices in words, and as they are typed. */
import { attributeInfo, familyWord } from "../fixture/attribute";
import { hasStops, type Phasing, type Shape, type Stop, type Voice } from "../show/effectSchema";
import type { Id } from "../show/ids";
import { exact, quote } from "../show/words/lineText";
import type { Show } from "../show/schema";
import { NO_SPREAD, type Spread } from "../show/spreadSchema";
import type { World } from "../show/world";

type Naming = Pick<Show, "palettes" | "waves" | "effects">;

/** An effect by number and name. */
export function effectText({ show }: Pick<World, "show">, id: Id): string {
  const effect = show.effects[id];
  return effect ? `effect ${effect.number}${effect.name ? ` "${effect.name}"` : ""}` : "an effect that is gone";
}

/** What a voice is when nothing is said of it. */
export const PLAIN_PHASING: Phasing = {
  bpm: 60,
  across: 360,
  start: 0,
  width: 100,
  direction: "forward",
  spread: NO_SPREAD,
};

/** A wave as a line names it. */
export function shapeText({ waves }: Pick<Show, "waves">, wave: Shape): string {
  if (typeof wave === "string") return wave;
  return "own" in wave ? `${quote(waves[wave.own]?.name ?? "?")}${wave.track === 2 ? " second" : ""}` : "a drawn wave";
}

/** What a voice drives, as it is typed. */
export const drivenText = (voice: Voice): string => {
  const attribute = hasStops(voice) ? ("attribute" in voice.of ? voice.of.attribute : undefined) : voice.attribute;
  if (attribute === undefined && hasStops(voice) && "family" in voice.of) {
    return familyWord(voice.of.family);
  }
  return attribute === "Dimmer" ? "dimmer" : (attributeInfo(attribute!).word ?? attribute!);
};

const endText = ({ palettes }: Naming, value: Stop["value"]): string =>
  typeof value === "number"
    ? exact(value)
    : "palette" in value
      ? `palette ${palettes[value.palette]?.number ?? "?"}`
      : value.colour;

const curveText = ({ hold, curve }: Stop): string =>
  `${hold === undefined ? "" : ` hold ${exact(hold)}`}${curve === "linear" ? "" : ` ${curve}`}`;

/** A spread as a line sets it. */
export const spreadText = ({ mirror, bunch, repeat, by, steps }: Spread): string =>
  [
    mirror !== 1 && `mirror ${mirror}`,
    bunch !== 1 && `bunch ${bunch}`,
    repeat !== 0 && `repeat ${repeat}`,
    by !== "order" && (by === "steps" && !steps ? undefined : `by ${by}`),
  ]
    .filter(Boolean)
    .join(" ");

/** How a voice runs, as it is typed: only what is not as usual. */
export function phasingText(voice: Phasing): string {
  const parts = [
    voice.bpm !== 60 && `bpm ${exact(voice.bpm)}`,
    voice.across !== 360 && `across ${exact(voice.across)}`,
    voice.start !== 0 && `start ${exact(voice.start)}`,
    voice.width !== 100 && `width ${exact(voice.width)}`,
    voice.direction !== "forward" && voice.direction,
  ].filter(Boolean);
  return parts.length > 0 ? ` ${parts.join(" ")}` : "";
}

/** A voice as a line of a hold sets it; undefined where no line can say it (a wave that nobody named). */
export function voiceLine(show: Naming, voice: Voice): string | undefined {
  const driven = drivenText(voice);
  if (hasStops(voice)) {
    const stops = voice.stops.map((s) => endText(show, s.value) + curveText(s)).join(" ");
    return `${driven} stops ${stops}${phasingText(voice)}`;
  }
  if (typeof voice.wave === "object" && "drawn" in voice.wave) return undefined;
  const { range } = voice;
  const ends =
    "low" in range
      ? `low ${endText(show, range.low)} high ${endText(show, range.high)}`
      : `relative${range.centre === 0 ? "" : ` centre ${exact(range.centre)}`} size ${exact(range.size)}`;
  return `${driven} wave ${shapeText(show, voice.wave)} ${ends}${phasingText(voice)}`;
}

/** A voice in words. */
export const voiceText = (show: Naming, voice: Voice): string => {
  const spread = spreadText(voice.spread);
  return `${voiceLine(show, voice) ?? `${drivenText(voice)} a drawn wave`}${spread ? `, spread ${spread}` : ""}`;
};
