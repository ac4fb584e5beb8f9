/** What is held as lines of the command language. */
import { attributeInfo } from "../fixture/attribute";
import { spreadItems } from "../select/place";
import { closedPlace } from "../select/spread";
import { item, splitKey, type Item, type ParamKey } from "../show/ids";
import { exact, selText, unsaid } from "../show/words/lineText";
import { saidBy } from "../palette/lookup";
import { allTargets, targetsOf } from "../show/model";
import { isAim, isLink, isRelease, type Entry } from "../show/value";
import type { Show } from "../show/schema";
import type { World } from "../show/world";
import { grouped } from "../units/grouped";
import { effectLines } from "./effectLines";

type Values = Readonly<Record<ParamKey, Entry>>;

const itemOfKey = (key: ParamKey): Item => {
  const { fixture, cell } = splitKey(key);
  return item(fixture, cell);
};

/** The items of parameters, each once and in their order. */
export const itemsOfKeys = (keys: readonly ParamKey[]): Item[] => [...new Set(keys.map(itemOfKey))];

/** The lines that do one thing to parameters, as `drop` does. */
export function keysLines(world: World, keys: readonly ParamKey[], verb: string): string[] {
  const byHead = grouped(keys, (key) => splitKey(key).head);
  const bySel = grouped(byHead, ([, of]) => selText(world.show, itemsOfKeys(of)));
  return [...bySel].map(([sel, heads]) => `${sel} ${heads.map(([head]) => `${head} ${verb}`).join(" ")}`);
}

/** The lines that hold values: of the selection where that is what they are of, else of a SEL each. */
export function holdLines(world: World, values: Values, over?: number): string[] {
  if (Object.values(values).some(({ effect }) => effect)) {
    const plain = Object.entries(values).flatMap(([key, { effect: _, ...entry }]) =>
      entry.value === undefined ? [] : [[key, entry] as const],
    );
    const time = over === undefined ? "" : ` over ${exact(over)}`;
    const lines = effectLines(world, values).map((line) => (/^(spread|\/\/)/.test(line) ? line : line + time));
    // A line with a SEL of its own selects.
    const selects = lines.some((line) => /^[\dg]/.test(line));
    return [
      ...(plain.length > 0 ? holdLines(world, Object.fromEntries(plain), over) : []),
      ...lines,
      ...(selects ? [selText(world.show, world.hands.selection)] : []),
    ];
  }
  const keys = Object.keys(values);
  if (!takesWholePalettes(world.show, values)) return [unsaid("holds parts of palettes")];
  const byAttribute = grouped(keys, (key) => values[key]!.attribute);
  const time = over === undefined ? "" : ` over ${exact(over)}`;
  const once = ofSelection(world, values, byAttribute);
  if (once !== undefined) return [once + time];
  return [...ofEach(world, values).map((line) => line + time), selText(world.show, world.hands.selection)];
}

/** Whether all that palettes say of the items is held by links to them: only that has a line. */
function takesWholePalettes(show: Show, values: Values): boolean {
  const linked = new Map<string, Set<Item>>();
  for (const [key, { value }] of Object.entries(values)) {
    if (typeof value !== "object" || !isLink(value)) continue;
    linked.set(value.palette, (linked.get(value.palette) ?? new Set<Item>()).add(itemOfKey(key)));
  }
  return [...linked].every(([id, items]) =>
    [...items].every((i) =>
      allTargets(show, i).every(({ key }) => {
        const value = values[key]?.value;
        const here = typeof value === "object" && isLink(value) && value.palette === id;
        return here === (saidBy(show, id, key) !== undefined);
      }),
    ),
  );
}

/** Spread over the selection as it is; undefined where the values are of other items or of no spread. */
function ofSelection(world: World, values: Values, byAttribute: Map<string, ParamKey[]>): string | undefined {
  const { show, hands } = world;
  const settings: string[] = [];
  const aimed = new Set<string>();
  for (const [attribute, keys] of byAttribute) {
    const having = hands.selection
      .map((i) => ({ item: i, keys: targetsOf(show, i, attribute).map((t) => t.key) }))
      .filter((of) => of.keys.length > 0);
    const all = having.flatMap((of) => of.keys);
    if (all.length !== keys.length || all.some((key) => !values[key])) return undefined;
    const places = spreadItems(
      show,
      having.map((of) => of.item),
      hands.spread,
    );
    const steps: Entry[] = [];
    for (const [k, of] of having.entries()) {
      for (const key of of.keys) {
        const step = places.step[k]!;
        steps[step] ??= values[key]!;
        if (!same(steps[step], values[key]!)) return undefined;
      }
    }
    const made = alongText(world, attribute, keys, steps, places.count, aimed);
    if (made === undefined) return undefined;
    settings.push(...made);
  }
  return settings.join(" ");
}

/** As a hand would type it, before "at": nothing for the Dimmer. */
function wordOf(attribute: string): string {
  return attribute === "Dimmer" ? "" : `${attributeInfo(attribute).word ?? attribute} `;
}

const same = (a: Entry, b: Entry): boolean => JSON.stringify(a) === JSON.stringify(b);

/** Values of all steps: "20 to 80" where they lie evenly between stops. */
function alongText(
  world: World,
  attribute: string,
  keys: readonly ParamKey[],
  steps: readonly Entry[],
  count: number,
  aimed: Set<string>,
): string[] | undefined {
  const first = steps[0]!;
  const numbers = steps.map((s) => s.value);
  const time = timeText(world, attribute, keys, steps, count);
  if (time === undefined) return undefined;
  if (numbers.every((v) => typeof v === "number"))
    return [`${wordOf(attribute)}at ${stopsText(numbers, count)}`, ...time];
  if (!steps.every((s) => JSON.stringify(s.value) === JSON.stringify(first.value))) return undefined;
  return [...valueText(world.show, first, aimed), ...time];
}

/** The fewest stops that meet every step. */
function stopsText(values: readonly number[], count: number): string {
  for (let stops = 1; stops < count; stops++) {
    if (stops > 1 ? (count - 1) % (stops - 1) !== 0 : false) continue;
    const every = stops > 1 ? (count - 1) / (stops - 1) : count;
    const meets = values.every((value, step) => {
      if (stops === 1) return value === values[0];
      const t = closedPlace(step, count) * (stops - 1);
      const part = Math.min(Math.floor(t + 1e-9), stops - 2);
      const [low, high] = [values[part * every]!, values[(part + 1) * every]!];
      return Math.abs(low + (high - low) * (t - part) - value) < 1e-9;
    });
    if (meets) return Array.from({ length: stops }, (_, k) => exact(values[k * every]!)).join(" to ");
  }
  return values.map(exact).join(" to ");
}

/** Own timing; where there was one and is none, "cue time". Undefined where it is of some only. */
function timeText(
  { hands }: World,
  attribute: string,
  keys: readonly ParamKey[],
  steps: readonly Entry[],
  count: number,
): string[] | undefined {
  const had = keys.some((key) => hands.held[key]?.time);
  const parts = (["delay", "fade"] as const).map((name) => steps.map((s) => s.time?.[name]));
  if (parts.some((of) => of.some((t) => t === undefined) && of.some((t) => t !== undefined))) return undefined;
  const said = parts.flatMap((of, k) =>
    of[0] === undefined ? [] : [`${k ? "fade" : "delay"} ${stopsText(of as number[], count)}`],
  );
  const plain = had ? [`${attribute} cue time`] : [];
  return said.length > 0 ? [...plain, `${attribute} ${said.join(" ")}`] : plain;
}

/** A value that is the same for all. An aim is said once for pan and tilt. */
function valueText(show: Show, { attribute, value }: Entry, aimed: Set<string>): string[] {
  if (value === undefined) return [];
  if (typeof value === "number") return [`${wordOf(attribute)}at ${exact(value)}`];
  if (isRelease(value)) return [`${attribute} release`];
  if (isLink(value)) {
    const said = `palette ${show.palettes[value.palette]?.number ?? "?"}`;
    if (aimed.has(said)) return [];
    aimed.add(said);
    return [said];
  }
  if (!isAim(value)) return [];
  const text = `aim at ${value.aim.map(exact).join(" ")}${value.flip ? " flip" : ""}`;
  if (aimed.has(text)) return [];
  aimed.add(text);
  return [text];
}

/** A SEL for all that hold the same. */
function ofEach(world: World, values: Values): string[] {
  const { show } = world;
  const settings = new Map<Item, { texts: string[]; aimed: Set<string> }>();
  for (const [key, entry] of Object.entries(values)) {
    const of = settings.get(itemOfKey(key)) ?? { texts: [], aimed: new Set<string>() };
    settings.set(itemOfKey(key), of);
    of.texts.push(...valueText(show, entry, of.aimed), ...(timeText(world, entry.attribute, [key], [entry], 1) ?? []));
  }
  const bySetting = grouped(settings, ([, { texts }]) => texts.join(" "));
  return [...bySetting].map(
    ([text, of]) =>
      `${selText(
        show,
        of.map(([i]) => i),
      )} ${text}`,
  );
}
