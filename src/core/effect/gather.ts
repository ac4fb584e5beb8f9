/** The voices that are held, as an effect would be recorded from them. */
import { hasStops, isFrom, isStop, type Voice } from "../show/effectSchema";
import { item as itemOf, splitKey, type Item, type ParamKey } from "../show/ids";
import type { Show } from "../show/schema";
import type { Entry } from "../show/value";
import { drivenBy } from "./casting";
import { voiceOf } from "./voices";

export interface HeldVoice {
  voice: Voice;
  /** What it runs over, in order. */
  items: Item[];
}

/** What a voice drives, in words that tell it from other voices of an effect. */
export const drives = (voice: Voice): string =>
  hasStops(voice) ? ("family" in voice.of ? voice.of.family : voice.of.attribute) : voice.attribute;

/** The voices among entries, each with its items in their order. */
export function voicesIn(show: Show, entries: Readonly<Record<ParamKey, Entry>>): HeldVoice[] {
  const found = new Map<string, { voice: Voice; turns: Map<ParamKey, number> }>();
  for (const [key, { effect }] of Object.entries(entries)) {
    const sounded = voiceOf(show, effect);
    if (!sounded || !effect || isStop(effect)) continue;
    const name = isFrom(effect) ? `${effect.from} ${effect.voice}` : JSON.stringify(effect.plays);
    const held = found.get(name) ?? { voice: sounded.voice, turns: new Map<ParamKey, number>() };
    found.set(name, held);
    held.turns.set(key, effect.at);
  }
  return [...found.values()].map(({ voice, turns }) => ({ voice, items: itemsOf(show, voice, turns) }));
}

/** A fixture counts as one where all that the voice drives of it has one turn; else its cells do. */
function itemsOf(show: Show, voice: Voice, turns: ReadonlyMap<ParamKey, number>): Item[] {
  const made = new Map<Item, number>();
  for (const [key, at] of turns) {
    const { fixture, cell } = splitKey(key);
    const whole = drivenBy(show, fixture, voice).every((t) => turns.get(t.key) === at);
    const item = whole ? fixture : itemOf(fixture, cell);
    if (!made.has(item)) made.set(item, at);
  }
  return [...made].sort((a, b) => a[1] - b[1]).map(([item]) => item);
}

/** All items of voices, those of the first first. */
export const allItems = (voices: readonly HeldVoice[]): Item[] => [...new Set(voices.flatMap((v) => v.items))];
