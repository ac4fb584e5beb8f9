/** Voices as they are typed, made into what a show keeps; and laid over what is selected. */
import { rangeOf } from "../fixture/parameters";
import { castVoice, drivenBy } from "../effect/casting";
import { castEntries } from "../effect/lane";
import { PLAIN_PHASING, shapeText, effectText } from "../effect/words";
import { movesAround } from "../effect/voices";
import {
  hasStops,
  isStop,
  type Curve,
  type Driving,
  type End,
  type Phasing,
  type Shape,
  type Stop,
  type Voice,
  type WaveName,
} from "../show/effectSchema";
import type { Id, Item } from "../show/ids";
import { targetsOf } from "../show/model";
import { fail } from "../show/refusal";
import type { Show } from "../show/schema";
import { heldOver, STOP } from "../show/value";
import { effectNumbered, effectsByNumber, paletteNumbered, palettesByNumber, wavesByNumber } from "../show/world";
import { current, targetsOfWhat, type Building } from "./building";
import { whatText, type What } from "./what";

/** An end of a wave as it is typed. */
export type EndTyped = number | "full" | "out" | { palette: number | string };
export interface StopTyped {
  value: EndTyped | { colour: string };
  hold?: number;
  curve?: Curve;
}

/** How a voice runs, as its clauses are typed. */
export interface PhasingTyped {
  bpm?: number | undefined;
  across?: number | undefined;
  start?: number | undefined;
  width?: number | undefined;
  forward?: true | undefined;
  backward?: true | undefined;
  bounce?: true | undefined;
}
export const PHASING_SYNTAX =
  "[bpm <bpm:speed>] [across <across:degrees>] [start <start:degrees>] [width <width:percent>] [forward | backward | bounce]";

/** Those that were typed. */
export function phasingOf(args: PhasingTyped): Partial<Phasing> {
  const { bpm, across, start, width } = args;
  const direction = (["forward", "backward", "bounce"] as const).find((d) => args[d]);
  return {
    ...(bpm === undefined ? {} : { bpm }),
    ...(across === undefined ? {} : { across }),
    ...(start === undefined ? {} : { start }),
    ...(width === undefined ? {} : { width }),
    ...(direction ? { direction } : {}),
  };
}

/** The palette of a number or name; ends with `fail` where there is none. */
export function paletteCalled(show: Show, ref: number | string): Id {
  const found =
    typeof ref === "number"
      ? paletteNumbered(show, ref)
      : palettesByNumber(show).find((p) => p.name.toLowerCase() === ref.toLowerCase());
  const all = palettesByNumber(show);
  return (
    found?.id ??
    fail(
      `there is no palette ${typeof ref === "number" ? ref : `"${ref}"`}`,
      all.length === 0
        ? "There are no palettes yet: record palette 1"
        : `There is ${all
            .slice(0, 6)
            .map((p) => `${p.number} "${p.name}"`)
            .join(", ")}`,
    )
  );
}

/** The effect of a number or name; ends with `fail` where there is none. */
export function effectCalled(show: Show, ref: number | string): Id {
  const found =
    typeof ref === "number"
      ? effectNumbered(show, ref)
      : effectsByNumber(show).find((e) => e.name.toLowerCase() === ref.toLowerCase());
  const all = effectsByNumber(show);
  return (
    found?.id ??
    fail(
      `there is no effect ${typeof ref === "number" ? ref : `"${ref}"`}`,
      all.length === 0
        ? "There are no effects yet: record effect 1"
        : `There is ${all
            .slice(0, 6)
            .map((e) => `${e.number} "${e.name}"`)
            .join(", ")}`,
    )
  );
}

/** A wave by its word or its name; the second voice of one with two tracks takes the second. */
export function shapeOf(show: Show, ref: WaveName | { own: string }, second: boolean): Shape {
  if (typeof ref === "string") return ref;
  const found = wavesByNumber(show).find((w) => w.name.toLowerCase() === ref.own.toLowerCase());
  if (!found)
    fail(
      `there is no wave "${ref.own}"`,
      `There is ${["sine", "triangle", "square", ...wavesByNumber(show).map((w) => `"${w.name}"`)].slice(0, 8).join(", ")}`,
    );
  return { own: found.id, track: second && found.second ? 2 : 1 };
}

/** An end in an attribute's unit. @param range what full and out mean. */
export function endOf(show: Show, typed: EndTyped, range: readonly [number, number]): End {
  if (typed === "full") return range[1];
  if (typed === "out") return range[0];
  return typeof typed === "number" ? typed : { palette: paletteCalled(show, typed.palette) };
}

/** Stops as they are kept. @param of what they are stops of. */
export function stopsOf(show: Show, typed: readonly StopTyped[], range: readonly [number, number]): Stop[] {
  return typed.map(({ value, hold, curve = "linear" }) => ({
    value: typeof value === "object" && "colour" in value ? value : endOf(show, value, range),
    curve,
    ...(hold === undefined ? {} : { hold }),
  }));
}

/** What stops are of; ends with `fail` where they cannot be of that. */
export function stopsOfWhat(what: What, stops: readonly Stop[]): Extract<Voice, { stops: unknown }>["of"] {
  if ("attribute" in what) return { attribute: what.attribute };
  if (what.families.length !== 1)
    fail("stops are of one family or one attribute", "Such as: colour stops palette 1 palette 2");
  if (stops.some((s) => typeof s.value === "number"))
    fail("numbers are stops of one attribute", "Name it, such as: dimmer stops 10 90");
  return { family: what.families[0]! };
}

/** The range of an attribute among items. */
export function rangeAmong(
  { items, context }: Pick<Building, "items" | "context">,
  attribute: string,
): [number, number] {
  const { show } = context.world;
  for (const item of items) {
    const target = targetsOf(show, item, attribute)[0];
    if (target) return rangeOf(target.fn);
  }
  return [0, 100];
}

/** A voice laid over the items by the spread that is set. */
export function holdVoice(b: Building, made: Driving, phasing: Partial<Phasing>, says: string): void {
  const { show, hands } = b.context.world;
  const voice = { ...PLAIN_PHASING, ...phasing, spread: hands.spread, ...made };
  if (!b.items.some((item) => drivenBy(show, item, voice).length > 0))
    fail(
      hasStops(voice)
        ? "none of these stops has a value for the selected fixtures"
        : "none of the selected fixtures has that attribute",
      "Select fixtures that have it",
    );
  put(
    b,
    castVoice(show, b.items, voice, (turn) => ({ plays: voice, ...turn })),
  );
  b.lastWhat = hasStops(voice)
    ? "family" in voice.of
      ? { families: [voice.of.family] }
      : { attribute: voice.of.attribute }
    : { attribute: voice.attribute };
  b.says.push(says);
}

/** Voices as they are, each laid over the items by its own spread; those that drive nothing there are left out. */
export function holdVoices(b: Building, voices: readonly Voice[], says: string): void {
  const { show } = b.context.world;
  for (const voice of voices)
    put(
      b,
      castVoice(show, b.items, voice, (turn) => ({ plays: voice, ...turn })),
    );
  if (Object.keys(b.values).length === 0)
    fail("none of the selected fixtures has what it drives", "Select fixtures that have it");
  b.says.push(says);
}

function put(b: Building, entries: Building["values"]): void {
  const around = movesAround(b.context.world.show);
  for (const [key, entry] of Object.entries(entries)) {
    const time = current(b, key)?.time;
    b.values[key] = heldOver(b.values[key], time ? { ...entry, time } : entry, around);
  }
}

/** Whether the second track of a wave is the one to take: the items run its first on another attribute. */
export function takesSecond(b: Building, name: string, attribute: string): boolean {
  const { show, hands } = b.context.world;
  const own = wavesByNumber(show).find((w) => w.name.toLowerCase() === name.toLowerCase());
  if (!own?.second) return false;
  return Object.entries({ ...hands.held, ...b.values }).some(([, { effect }]) => {
    if (!effect || isStop(effect) || !("plays" in effect) || hasStops(effect.plays)) return false;
    const { wave, attribute: other } = effect.plays;
    return other !== attribute && typeof wave === "object" && "own" in wave && wave.own === own.id && wave.track === 1;
  });
}

/** An effect of the show on items: those of the line, or, where it is cast and none are named, its own. */
export function holdEffect(b: Building, id: Id, items: readonly Item[]): void {
  const { show } = b.context.world;
  const effect = show.effects[id]!;
  const entries = castEntries(show, effect, items);
  if (Object.keys(entries).length === 0)
    fail(`${effectText({ show }, id)} has nothing for these fixtures`, "Select fixtures that have what it drives");
  put(b, entries);
  b.lastWhat = { families: [] };
  b.says.push(effectText({ show }, id));
}

/** Holds the stop of effects on WHAT. */
export function stopWhat(b: Building, what: What): void {
  const found = b.items.flatMap((item) => targetsOfWhat(b, item, what));
  if (found.length === 0) fail(`none of the selected fixtures has ${whatText(what)}`, "Select fixtures that have it");
  for (const t of found) {
    const now = current(b, t.key);
    put(b, { [t.key]: { attribute: now?.attribute ?? t.attribute, effect: STOP } });
  }
  b.lastWhat = what;
  b.says.push(`effects on ${whatText(what)} stopped`);
}

/** A wave in the words of the line. */
export const waveSays = (show: Show, wave: Shape, label: string, ends: string): string =>
  `${label} ${shapeText(show, wave)} ${ends}`;
