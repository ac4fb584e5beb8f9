/** The voice that a parameter runs, and what it depends on. */
import { isAround, isFrom, isStop, type Effect, type Voice } from "../show/effectSchema";
import type { Id } from "../show/ids";
import { namedByRecord } from "../show/checking/links";
import { cyclicPlace, stepsOf } from "../select/spread";
import type { Show } from "../show/schema";

/** What finding voices looks at. */
export type Sounding = Pick<Show, "effects">;

export interface Sounded {
  voice: Voice;
  /** Cycles a second. */
  speed: number;
  /** Tells it from the other voices of its effect. */
  key: number;
}

const perSecond = (voice: Voice, rate: number): number => (voice.bpm / 60) * (rate / 100);

/** The voice an effect runs on a parameter; undefined for a stop, and where its effect no longer has it or has it muted. */
export function voiceOf(show: Sounding, effect: Effect | undefined): Sounded | undefined {
  if (effect === undefined || isStop(effect)) return undefined;
  if (!isFrom(effect)) return { voice: effect.plays, speed: perSecond(effect.plays, 100), key: 0 };
  const record = show.effects[effect.from];
  const found = record?.voices.find(({ key }) => key === effect.voice);
  return found && !found.muted
    ? { voice: found.voice, speed: perSecond(found.voice, record!.rate), key: found.key }
    : undefined;
}

/** Whether an effect moves around what lies underneath; a stop does not. */
export const movesAround =
  (show: Sounding) =>
  (effect: Effect): boolean => {
    const found = voiceOf(show, effect);
    return found !== undefined && isAround(found.voice);
  };

/** The cyclic place of an item, 0 up to 1, by its turn and the voice's spread. */
export function placeInCycle({ spread }: Voice, { at, of }: { at: number; of: number }): number {
  const { step, count } = stepsOf(of, spread);
  return cyclicPlace(step(Math.min(at, of - 1)), count);
}

/** Whether two effects of a parameter are one and the same, so that one goes on as the other. */
export const sameEffect = (a: Effect, b: Effect): boolean => a === b || JSON.stringify(a) === JSON.stringify(b);

/** The effects that play otherwise in one version of a show than in another. @param palettes those that changed. */
export function changedEffects(
  before: Pick<Show, "effects" | "waves">,
  after: Pick<Show, "effects" | "waves">,
  palettes: ReadonlySet<Id>,
): Set<Id> {
  const changed = new Set<Id>();
  if (before.effects === after.effects && before.waves === after.waves && palettes.size === 0) return changed;
  for (const [id, effect] of Object.entries(after.effects)) {
    if (
      before.effects[id] !== effect ||
      namedByRecord(effect).some((name) => palettes.has(name) || before.waves[name] !== after.waves[name])
    )
      changed.add(id);
  }
  return changed;
}

/** The waves that run otherwise. */
export const changedWaves = (before: Pick<Show, "waves">, after: Pick<Show, "waves">): Set<Id> =>
  before.waves === after.waves
    ? new Set()
    : new Set(Object.keys(after.waves).filter((id) => before.waves[id] !== after.waves[id]));
