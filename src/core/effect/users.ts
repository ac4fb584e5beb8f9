/** Where effects and waves are used, and how an edit of an effect reaches its users. */
import { hasStops, isFrom, isStop, type Effect, type EffectRecord } from "../show/effectSchema";
import { splitKey, type Id, type Item, type ParamKey } from "../show/ids";
import type { WorldDraft } from "../show/change/intent";
import { linksIn, namedByRecord } from "../show/checking/links";
import type { Cue, CueList, Show } from "../show/schema";
import type { Entry } from "../show/value";
import { linesNaming, namingText } from "../show/words/linesNaming";
import { pagesText, pagesWith } from "../show/places";
import { cuesOf, effectsByNumber, type World } from "../show/world";
import { castVoice, itemsOf } from "./casting";
import { allItems, voicesIn } from "./gather";
import { plural } from "../units/plural";

type Entries = Readonly<Record<ParamKey, Entry>>;

export interface EffectUses {
  cues: { list: CueList; cue: Cue; entries: number }[];
  lanes: CueList[];
  /** Numbers of the effects that run a wave. */
  effects: number[];
  /** Numbers of the pages on which a pad runs it. */
  pages: number[];
  /** Lines of macros, and lines that cues run. */
  lines: ReturnType<typeof linesNaming>;
  held: number;
}

/** Who names an effect, or a wave. */
export function effectUses({ show, hands }: World, id: Id): EffectUses {
  const lists = Object.values(show.lists);
  return {
    cues: lists.flatMap((list) =>
      cuesOf(list).flatMap((cue) => {
        const entries = linksIn(cue.entries).get(id) ?? 0;
        return entries > 0 ? [{ list, cue, entries }] : [];
      }),
    ),
    lanes: lists.filter((list) => list.effect === id),
    effects: effectsByNumber(show).flatMap((e) => (namedByRecord(e).includes(id) ? [e.number] : [])),
    pages: pagesWith(show, "effect", id),
    lines: linesNaming(show, "effect", show.effects[id]?.number ?? -1),
    held: linksIn(hands.held).get(id) ?? 0,
  };
}

/** "in 3 cues, on lane 4, held"; empty where it is not used. */
export function effectUsesText({ cues, lanes, effects, pages, lines, held }: EffectUses): string {
  return [
    cues.length > 0 && `in ${plural(cues.length, "cue")}`,
    lanes.length > 0 && `on lane ${lanes.map((l) => l.number).join(", ")}`,
    effects.length > 0 && `in ${effects.length === 1 ? "effect" : "effects"} ${effects.join(", ")}`,
    pagesText(pages),
    namingText(lines),
    held > 0 && "held",
  ]
    .filter(Boolean)
    .join(", ");
}

const isOf = (id: Id, effect: Effect | undefined): boolean =>
  effect !== undefined && !isStop(effect) && isFrom(effect) && effect.from === id;

/** What of an effect says which parameters it drives, and in which turn. */
export const frameOf = ({ voices }: EffectRecord): string =>
  JSON.stringify(
    voices.map(({ key, voice }) => [
      key,
      hasStops(voice) ? [voice.of, voice.stops.map((s) => s.value)] : voice.attribute,
      voice.spread.by,
      voice.spread.steps,
    ]),
  );

/** Gives every user of an effect the entries of its voices as they are now, on the items that run it. */
export function recastUsers(world: WorldDraft, before: Show, after: Show, held: Entries, id: Id): void {
  const effect = after.effects[id]!;
  const recast = (plain: Entries, draft: Record<ParamKey, Entry>) => {
    if (!linksIn(plain).has(id)) return;
    const now = recastEntries(before, after, plain, effect);
    for (const [key, entry] of Object.entries(plain)) {
      if (!isOf(effect.id, entry.effect) || now[key]) continue;
      const { attribute, value, time } = entry;
      if (value === undefined) delete draft[key];
      else draft[key] = { attribute, value, ...(time ? { time } : {}) };
    }
    for (const [key, entry] of Object.entries(now))
      draft[key] = plain[key]?.attribute === entry.attribute ? { ...plain[key], effect: entry.effect } : { ...entry };
  };
  for (const list of Object.values(before.lists))
    for (const cue of Object.values(list.cues)) recast(cue.entries, world.show.lists[list.id]!.cues[cue.id]!.entries);
  recast(held, world.hands.held);
}

/** The items that run an effect among entries, in order of their first voice. */
const itemsRunning = (show: Show, entries: Entries, effect: EffectRecord): Item[] =>
  allItems(voicesIn(show, Object.fromEntries(Object.entries(entries).filter(([, e]) => isOf(effect.id, e.effect)))));

function recastEntries(before: Show, after: Show, entries: Entries, effect: EffectRecord): Record<ParamKey, Entry> {
  const running = Object.entries(entries).filter(([, e]) => isOf(effect.id, e.effect));
  // What the voices drove before may be no more: then the fixtures count.
  const known = itemsRunning(before, entries, effect);
  const fixtures = new Set(known.map((item) => item.split(".")[0]!));
  const items = [
    ...known,
    ...new Set(running.map(([key]) => splitKey(key).fixture).filter((fixture) => !fixtures.has(fixture))),
  ];
  return Object.assign(
    {},
    ...effect.voices.map(({ key, voice, items: own }) =>
      castVoice(after, itemsOf(effect, { items: own }, items), voice, (turn) => ({
        from: effect.id,
        voice: key,
        ...turn,
      })),
    ),
  ) as Record<ParamKey, Entry>;
}

/** An entry with a voice of its own in place of that effect's: what is left where it goes; undefined where that is nothing. */
export function withOwnVoice(entry: Entry, effect: EffectRecord): Entry | undefined {
  const { effect: plays, ...rest } = entry;
  if (!plays || isStop(plays) || !isFrom(plays) || plays.from !== effect.id) return entry;
  const voice = effect.voices.find((v) => v.key === plays.voice)?.voice;
  const bpm = voice && Math.min(6000, (voice.bpm * effect.rate) / 100);
  return voice
    ? { ...rest, effect: { plays: { ...voice, bpm: bpm! }, at: plays.at, of: plays.of } }
    : rest.value === undefined
      ? undefined
      : rest;
}
