/** A voice laid over items: which parameters it drives, and each item's turn in it (SEMANTICS 7, 2). */
import { attributeInfo } from "../fixture/attribute";
import { functionOf, type ParameterSpec } from "../fixture/parameters";
import { colourValues } from "../palette/colour";
import { saidBy } from "../palette/lookup";
import { classesBy } from "../select/place";
import { sizeOf } from "../select/spread";
import { hasStops, type Effect, type EffectRecord, type Stop, type StopsVoice, type Voice } from "../show/effectSchema";
import { item as itemOf, splitKey, type Item, type ParamKey } from "../show/ids";
import { allTargets, targetsOf, type Target } from "../show/model";
import type { Show } from "../show/schema";
import type { Entry, Value } from "../show/value";

/** An item's turn: its place, shared ones counted once, of so many. */
export interface Turn {
  at: number;
  of: number;
}

const rgbOf = (hex: string): [number, number, number] =>
  [1, 3, 5].map((i) => parseInt(hex.slice(i, i + 2), 16) / 255) as [number, number, number];

/** What a stop says of a parameter: the attribute it sets there, and to what; undefined where it says nothing. */
export function stopFor(
  show: Show,
  key: ParamKey,
  spec: ParameterSpec,
  of: StopsVoice["of"],
  { value }: Pick<Stop, "value">,
): { attribute: string; value: Value } | undefined {
  if (typeof value === "number")
    return "attribute" in of && functionOf(spec, of.attribute) ? { attribute: of.attribute, value } : undefined;
  if ("palette" in value) {
    const said = saidBy(show, value.palette, key);
    return said && { attribute: said.attribute, value: said.value };
  }
  const { fixture, cell } = splitKey(key);
  const made = colourValues(show, itemOf(fixture, cell), { rgb: rgbOf(value.colour) }).values.find(
    ([k]) => k === key,
  )?.[1];
  return made?.value === undefined ? undefined : { attribute: made.attribute, value: made.value };
}

/** The parameters of an item that a voice drives. */
export function drivenBy(show: Show, item: Item, voice: Voice): Target[] {
  if (!hasStops(voice)) return targetsOf(show, item, voice.attribute);
  const { of, stops } = voice;
  const meant =
    "attribute" in of
      ? targetsOf(show, item, of.attribute)
      : allTargets(show, item).filter((t) => attributeInfo(t.attribute).family === of.family);
  return meant.filter(({ key, spec }) => stops.some((stop) => stopFor(show, key, spec, of, stop) !== undefined));
}

/** Lays a voice over items in their order. @param plays the effect of an item by its turn. @returns entries by parameter. */
export function castVoice(
  show: Show,
  items: readonly Item[],
  voice: Voice,
  plays: (turn: Turn) => Effect,
): Record<ParamKey, Entry> {
  const having = items.map((item) => ({ item, targets: drivenBy(show, item, voice) })).filter((x) => x.targets.length);
  const classes = classesBy(
    show,
    having.map((x) => x.item),
    voice.spread,
  );
  const of = classes ? sizeOf(classes) : having.length;
  const made: Record<ParamKey, Entry> = {};
  having.forEach(({ targets }, k) => {
    const effect = plays({ at: classes ? classes[k]! : k, of });
    for (const { key, attribute } of targets) made[key] = { attribute, effect };
  });
  return made;
}

/** Those of some items that a voice of an effect runs on: of what the effect keeps, only those that held it. */
export function itemsOf(
  { cast }: Pick<EffectRecord, "cast">,
  { items: own }: Pick<EffectRecord["voices"][number], "items">,
  items: readonly Item[],
): readonly Item[] {
  if (!own || !cast) return items;
  const [holds, keeps] = [new Set(own), new Set(cast)];
  return items.filter((item) => holds.has(item) || !keeps.has(item));
}
