/** Held effects as lines of the command language. */
import { castEntries } from "../effect/lane";
import { castVoice } from "../effect/casting";
import { allItems, voicesIn } from "../effect/gather";
import { effectText, spreadText, voiceLine } from "../effect/words";
import { isFrom, isStop, type Voice } from "../show/effectSchema";
import { item, splitKey, type Item, type ParamKey } from "../show/ids";
import { selText, unsaid } from "../show/words/lineText";
import type { Entry } from "../show/value";
import type { World } from "../show/world";
import { grouped } from "../units/grouped";

type Values = Readonly<Record<ParamKey, Entry>>;

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

/** Whether entries are just what casting gives. */
const isCast = (values: Values, cast: Values): boolean =>
  Object.keys(values).length === Object.keys(cast).length &&
  Object.entries(cast).every(([key, { effect }]) => same(values[key]?.effect, effect));

/** The lines that hold the effects of entries, each for a SEL of its own unless that is the selection. */
export function effectLines(world: World, values: Values): string[] {
  const { show, hands } = world;
  const running = Object.entries(values).filter(([, { effect }]) => effect !== undefined);
  const stops = running.filter(([, { effect }]) => isStop(effect!)).map(([key]) => key);
  const plays = running.filter(([, { effect }]) => !isStop(effect!));
  const byName = grouped(plays, ([, { effect }]) =>
    isStop(effect!) ? "" : isFrom(effect!) ? effect.from : JSON.stringify(effect!.plays),
  );
  const sel = (items: readonly Item[]) => (same(items, hands.selection) ? "" : `${selText(show, items)} `);
  const lines: string[] = [];
  for (const [name, entries] of byName) {
    const of = Object.fromEntries(entries);
    const record = show.effects[name];
    const items = allItems(voicesIn(show, of));
    if (record)
      lines.push(
        isCast(of, castEntries(show, record, items))
          ? `${record.cast ? `${selText(show, items)} ` : sel(items)}effect ${record.number}`
          : unsaid(`holds parts of ${effectText(world, record.id)}`),
      );
    else lines.push(...voiceLines(world, of, JSON.parse(name) as Voice, items, sel(items)));
  }
  if (stops.length > 0) lines.push(...stopLines(stops, sel));
  return lines;
}

function voiceLines(world: World, of: Values, voice: Voice, items: readonly Item[], sel: string): string[] {
  const { show, hands } = world;
  const text = voiceLine(show, voice);
  const cast = castVoice(show, items, voice, (turn) => ({ plays: voice, ...turn }));
  if (text === undefined || voice.spread.steps || !isCast(of, cast)) return [unsaid("holds a voice no line can say")];
  if (same(voice.spread, hands.spread)) return [`${sel}${text}`];
  return [`spread ${spreadText(voice.spread)}`.trim(), `${sel}${text}`, `spread ${spreadText(hands.spread)}`.trim()];
}

function stopLines(keys: readonly ParamKey[], sel: (items: readonly Item[]) => string): string[] {
  const items = (of: readonly ParamKey[]) => [
    ...new Set(
      of.map((key) => {
        const { fixture, cell } = splitKey(key);
        return item(fixture, cell);
      }),
    ),
  ];
  const bySel = grouped(
    grouped(keys, (key) => splitKey(key).head),
    ([, of]) => sel(items(of)),
  );
  return [...bySel].map(([text, heads]) => `${text}${heads.map(([head]) => `${head} stop`).join(" ")}`);
}
