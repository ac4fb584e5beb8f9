/**
 * Building what is to be held: typed steps, one after another, that lines of the command language and the
 * controls of the interface use alike.
 */
import { insteadOf } from "../fixture/dmxValue";
import { attributeInfo, withUnit } from "../fixture/attribute";
import { openState, rangeOf } from "../fixture/parameters";
import { openShutters } from "./shutters";
import { drop, hold as holdIntent, keepOut } from "../program/intents";
import { aimOfFixture } from "../program/resolve";
import { spreadItems } from "../select/place";
import { alongStops, closedPlace } from "../select/spread";
import { familiesOf } from "../palette/families";
import { askerOf } from "../palette/lookup";
import { paletteText } from "../palette/words";
import { splitItem, type Id, type Item, type ParamKey } from "../show/ids";
import type { Intent } from "../show/change/intent";
import { allTargets, targetsOf, type Target } from "../show/model";
import { NO_SPREAD, type Hands, type Spread } from "../show/hands";
import type { Show } from "../show/schema";
import { own } from "../show/hasOwn";
import { fail } from "../show/refusal";
import { asBuilt, type AimPoint, type Entry, type Timing } from "../show/value";
import { clamp, plain } from "../units/units";
import type { ReadContext } from "./context";
import { whatText, type Amounts, type What } from "./what";

/** What is being built: values to hold, parameters to drop, and what the last setting was of. */
export interface Building {
  items: readonly Item[];
  context: ReadContext;
  values: Record<ParamKey, Entry>;
  drops: ParamKey[];
  /** Held parameters to keep out of recording, or to take back in. */
  kept: { keys: ParamKey[]; out: boolean }[];
  /** Seconds it takes to get there. */
  over?: number;
  lastWhat: What;
  /** Spread from first to last, whatever the spread of the hands is. */
  plainly?: boolean;
  says: string[];
}

/** Nothing yet. */
export const newBuilding = (items: readonly Item[], context: ReadContext): Building => ({
  items,
  context,
  values: {},
  drops: [],
  kept: [],
  lastWhat: { attribute: "Dimmer" },
  says: [],
});

/** What was built, as intents, with what they say. */
export function builtIntents(
  { context, drops, kept, values, says, items, over }: Building,
  selects: boolean,
): Intent[] {
  const opened = openShutters(context, items, values);
  const shutters = Object.keys(opened).length;
  if (shutters > 0) says = [...says, `opens ${shutters === 1 ? "its shutter" : `${shutters} shutters`}`];
  return [
    ...(drops.length > 0 ? [drop.of({ keys: drops.filter((key) => context.world.hands.held[key]) })] : []),
    ...((says.length > 0 && drops.length === 0 && kept.length === 0) || Object.keys(values).length > 0
      ? [
          holdIntent.of({
            values: asBuilt({ ...values, ...opened }),
            says: `${selects ? "" : `${items.length} selected: `}${says.join(", ")}`,
            ...(over === undefined ? {} : { over }),
          }),
        ]
      : []),
    ...kept.map(({ keys, out }) => keepOut.of({ keys, out })),
  ];
}

const spreadIn = ({ plainly, context }: Building): Spread => (plainly ? NO_SPREAD : context.world.hands.spread);

/** Items that have an attribute, and the closed place of each by the spread. */
export function placed(building: Building, has: (item: Item) => boolean): { item: Item; t: number }[] {
  const having = building.items.filter(has);
  const { step, count } = spreadItems(building.context.world.show, having, spreadIn(building));
  return having.map((item, k) => ({ item, t: closedPlace(step[k]!, count) }));
}

interface Placed {
  targets: readonly Target[];
  t: number;
}

/** What a show was asked for last: a drag asks for the same thousands again and again. */
const lastPlaced = new WeakMap<
  Show,
  { items: readonly Item[]; spread: Hands["spread"]; of: Map<string, readonly Placed[]> }
>();

/** The targets of an attribute of the items that have it, with the closed place of each item by the spread. */
function placedTargets(building: Building, attribute: string): readonly Placed[] {
  const { items, context } = building;
  const { show } = context.world;
  const spread = spreadIn(building);
  let last = lastPlaced.get(show);
  if (last?.items !== items || last.spread !== spread) lastPlaced.set(show, (last = { items, spread, of: new Map() }));
  const known = last.of.get(attribute);
  if (known) return known;
  const made = placed(building, (i) => targetsOf(show, i, attribute).length > 0).map(({ item, t }) => ({
    targets: targetsOf(show, item, attribute),
    t,
  }));
  last.of.set(attribute, made);
  return made;
}

const MEASURED: Readonly<Record<string, string>> = { "": "without a unit", slot: "a slot", state: "a state" };

const amountsText = (amounts: Amounts, attribute: string): string =>
  amounts.map((a) => (typeof a === "number" ? withUnit(a, attribute) : a)).join(" to ");

/** An attribute of all that have it, spread over them. @param amounts in its unit; a spread where there are several. */
export function hold(building: Building, attribute: string, amounts: Amounts, relative: boolean): void {
  const aimed = placedTargets(building, attribute);
  const { label, unit } = attributeInfo(attribute);
  if (amounts.unit !== undefined && amounts.unit !== unit)
    fail(
      `${label} is ${MEASURED[unit] ?? `in ${unit}`}, not in ${amounts.unit}`,
      "Leave the unit out, or give its own",
    );
  if (aimed.length === 0)
    fail(`none of the selected fixtures has ${label.toLowerCase()}`, "Select fixtures that have it");
  let stops: readonly number[] = [];
  let fn: Target["fn"] | undefined;
  /** The first value that no range of its function has. */
  let gap = "";
  for (const { targets, t } of aimed) {
    for (const target of targets) {
      const [low, high] = rangeOf(target.fn);
      // Thousands are of one function.
      if (target.fn !== fn)
        stops = amounts.map((a) => (a === "full" ? (openState(target.fn) ?? high) : a === "out" ? low : a));
      fn = target.fn;
      const wanted = alongStops(stops, t);
      const entry = current(building, target.key);
      const value = relative ? clamp(now(building, target, entry) + wanted, low, high) : wanted;
      building.values[target.key] = heldAt(target, value, entry?.time);
      const near = gap === "" ? insteadOf(fn, value) : undefined;
      if (near !== undefined)
        gap = `; ${withUnit(value, attribute)} cannot be had, ${withUnit(near, attribute)} is sent`;
    }
  }
  building.lastWhat = { attribute };
  building.says.push(`${label.toLowerCase()} ${relative ? "by" : "to"} ${amountsText(amounts, attribute)}${gap}`);
}

/** An attribute of items, each at its own value in its unit. */
export function holdEach(building: Building, attribute: string, values: ReadonlyMap<Item, number>): void {
  const { show } = building.context.world;
  for (const [item, value] of values)
    for (const target of targetsOf(show, item, attribute)) building.values[target.key] = held(building, target, value);
  building.lastWhat = { attribute };
  building.says.push(`${attributeInfo(attribute).label.toLowerCase()} of ${values.size}`);
}

/** A strobe at 0 means the shutter open (SEMANTICS 9); own timing stays until taken away. */
export const held = (building: Building, target: Target, value: number): Entry =>
  heldAt(target, value, current(building, target.key)?.time);

function heldAt({ attribute }: Target, value: number, time: Timing | undefined): Entry {
  const open = attribute === "Shutter1Strobe" && value === 0;
  const entry: Entry = { attribute: open ? "Shutter1" : attribute, value: open ? 1 : value };
  if (time) entry.time = time;
  return entry;
}

/** What is held of a parameter, what is being built included; undefined where nothing is. */
export const current = ({ values, context }: Building, key: ParamKey): Entry | undefined =>
  own(values, key) ?? own(context.world.hands.held, key);

/** The value a parameter has now, in the unit of its attribute: held, else on stage before masters, else its default, else the low end of its range. @param entry what is held of it. */
function now(building: Building, target: Target, entry: Entry | undefined): number {
  if (entry && entry.attribute === target.attribute && typeof entry.value === "number") return entry.value;
  const stage = building.context.stage(target.key);
  return stage && stage.attribute === target.attribute
    ? stage.value
    : target.attribute === target.spec.head
      ? target.spec.default
      : rangeOf(target.fn)[0];
}

/** The parameters of an item that WHAT means, each with the attribute to hold it by. */
export function targetsOfWhat(building: Building, item: Item, what: What): Target[] {
  const { show } = building.context.world;
  if ("attribute" in what) return targetsOf(show, item, what.attribute);
  return allTargets(show, item).filter((t) => what.families.includes(attributeInfo(t.attribute).family));
}

/** Changes what is held of WHAT for every item. @param change is given the entry and the item's closed place, 0..1. Ends with `fail` where nothing of it is held. */
export function eachHeld(building: Building, what: What, change: (entry: Entry, t: number) => Entry): void {
  const targets = placed(building, (i) => targetsOfWhat(building, i, what).some((t) => current(building, t.key)));
  if (targets.length === 0) fail(`no ${whatText(what)} is held for the selected fixtures`, "Set a value first");
  for (const { item, t } of targets) {
    for (const target of targetsOfWhat(building, item, what)) {
      const entry = current(building, target.key);
      if (entry) building.values[target.key] = change(entry, t);
    }
  }
}

/** Own timing of what is held of WHAT, spread over the items. @param delay, fade in seconds, at least 0; undefined leaves what there is. */
export function ownTime(b: Building, what: What, delay?: readonly number[], fade?: readonly number[]): void {
  eachHeld(b, what, (entry, t) => {
    const timing: Timing = { ...entry.time };
    if (delay) timing.delay = alongStops(delay, t);
    if (fade) timing.fade = alongStops(fade, t);
    return { ...entry, time: timing };
  });
  const parts = [delay && `delay ${delay.join(" to ")} s`, fade && `fade ${fade.join(" to ")} s`];
  b.says.push(`${whatText(what)} with ${parts.filter(Boolean).join(", ")}`);
}

/** Takes own timing of what is held of WHAT away. */
export function cueTime(b: Building, what: What): void {
  eachHeld(b, what, ({ time: _, ...entry }) => entry);
  b.says.push(`${whatText(what)} by the cue's time`);
}

/** Holds every parameter of every item. @param value in the unit of the parameter's head attribute. */
export function everyDefault(building: Building, value: (target: Target) => number): void {
  for (const item of building.items) {
    for (const target of allTargets(building.context.world.show, item))
      building.values[target.key] = { attribute: target.attribute, value: value(target) };
  }
}

/** What a palette says of the items, as links to it. Own timing stays. @param id of a palette that is there. */
export function palette(b: Building, id: Id): void {
  const { show } = b.context.world;
  const saidOf = askerOf(show, id);
  let without = 0;
  // Thousands hold the very same.
  const entries = new Map<string, Entry>();
  const value = Object.freeze({ palette: id });
  for (const item of b.items) {
    let says = false;
    for (const { key, spec } of allTargets(show, item)) {
      const attribute = saidOf(key, spec)?.attribute;
      if (attribute === undefined) continue;
      says = true;
      const time = current(b, key)?.time;
      let entry = entries.get(attribute);
      if (!entry) entries.set(attribute, (entry = Object.freeze({ attribute, value })));
      b.values[key] = time ? { ...entry, time } : entry;
    }
    if (!says) without += 1;
  }
  b.lastWhat = { families: [...familiesOf(show.palettes[id]!)] };
  b.says.push(
    `${paletteText({ show }, id)}${without > 0 ? ` (it has nothing for ${without === b.items.length ? "any of them" : `${without} of ${b.items.length}`})` : ""}`,
  );
}

/** A point in the room, solved by each mover for itself. */
export function aim(b: Building, point: AimPoint): void {
  const { show } = b.context.world;
  const short: number[] = [];
  let aimed = 0;
  for (const item of b.items) {
    const fixture = show.fixtures[splitItem(item).fixture];
    const found = fixture && aimOfFixture(show, fixture, point);
    const targets = found ? ["Pan", "Tilt"].flatMap((attribute) => targetsOf(show, item, attribute)) : [];
    if (!found || targets.length === 0) continue;
    aimed += 1;
    if (found.off > 0) short.push(found.off);
    for (const { key, attribute } of targets) {
      const time = current(b, key)?.time;
      b.values[key] = { attribute, value: point, ...(time ? { time } : {}) };
    }
  }
  if (aimed === 0) fail("none of the selected fixtures has pan and tilt", "Select movers");
  b.lastWhat = { families: ["Position"] };
  b.says.push(
    `aimed at ${point.aim.map((v) => plain(v)).join(" ")} m${point.flip ? ", the other way round" : ""}${
      short.length > 0
        ? `; ${short.length} of ${aimed} cannot reach it, ${plain(Math.max(...short), 1)}° off at most`
        : ""
    }`,
  );
}
