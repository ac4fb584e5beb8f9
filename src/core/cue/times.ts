/** How long a cue takes, and which of its times a move uses (SEMANTICS 5). */
import { attributeInfo } from "../fixture/attribute";
import type { Bend, CueTimes } from "../show/schema";
import type { Timing } from "../show/value";

export const DEFAULT_FADE = 3;

/** Times of a new cue. @param fade seconds, both ways. */
export const newTimes = (fade = DEFAULT_FADE): CueTimes => ({
  up: fade,
  down: fade,
  delayUp: 0,
  delayDown: 0,
  families: {},
});

export interface MoveTime {
  delay: number;
  fade: number;
  /** How its progress is bent; linear where there is none. */
  curve?: Bend | undefined;
}

/**
 * Delay and fade of a move, seconds: own timing over its family's over the cue's.
 * @param falling whether an intensity falls; other families use the up times.
 */
export function moveTime(times: CueTimes, attribute: string, falling: boolean, own?: Timing): MoveTime {
  const { family } = attributeInfo(attribute);
  const down = family === "Intensity" && falling;
  const ofFamily = times.families[family];
  return {
    delay: own?.delay ?? ofFamily?.delay ?? (down ? times.delayDown : times.delayUp),
    fade: own?.fade ?? ofFamily?.fade ?? (down ? times.down : times.up),
    curve: family === "Intensity" ? times.curve : undefined,
  };
}

/** The cue's times in words: "3", "up 6, down 5 after 2". */
export function timesText({ up, down, delayUp, delayDown }: CueTimes): string {
  const one = (fade: number, delay: number) => (delay > 0 ? `${fade} after ${delay}` : `${fade}`);
  return up === down && delayUp === delayDown
    ? one(up, delayUp)
    : `up ${one(up, delayUp)}, down ${one(down, delayDown)}`;
}
