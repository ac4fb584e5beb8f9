/** The settings of a holding line: "at 50", "pan at -20 to 20 delay 0 to 3", "colour at #2ad1c9". */
import { attributeInfo, withUnit } from "../fixture/attribute";
import { allTargets, targetsOf, type Target } from "../show/model";
import { functionOf, rangeOf } from "../fixture/parameters";
import { colourValues } from "../program/colour";
import { aimOfFixture } from "../program/resolve";
import { spreadItems } from "../select/place";
import { alongStops, closedPlace } from "../select/spread";
import { splitItem, type Item, type ParamKey } from "../show/ids";
import { fail } from "../show/refusal";
import { fixtureNumbered } from "../show/world";
import { RELEASE, type AimPoint, type Entry, type Timing } from "../show/value";
import { clamp, plain } from "../units/units";
import type { ReadContext } from "./command";
import type { Args } from "./grammar";
import type { What } from "./slots";

/** What a line is building: values to hold, parameters to drop, and what the last setting was of. */
export interface Building {
  items: readonly Item[];
  context: ReadContext;
  values: Record<ParamKey, Entry>;
  drops: ParamKey[];
  lastWhat: What;
  says: string[];
}

export interface Setting {
  syntax: string;
  about: string;
  example: string;
  apply(args: Args, building: Building): void;
}

type Amount = number | "full" | "out";

/** Items that have an attribute, and the closed place of each by the spread. */
function placed({ items, context }: Building, has: (item: Item) => boolean): { item: Item; t: number }[] {
  const having = items.filter(has);
  const { step, count } = spreadItems(context.world.show, having, context.world.hands.spread);
  return having.map((item, k) => ({ item, t: closedPlace(step[k]!, count) }));
}

const amountsText = (amounts: readonly Amount[], attribute: string): string =>
  amounts.map((a) => (typeof a === "number" ? withUnit(a, attribute) : a)).join(" to ");

function hold(building: Building, attribute: string, amounts: readonly Amount[], relative: boolean): void {
  const { show } = building.context.world;
  const targets = placed(building, (i) => targetsOf(show, i, attribute).length > 0);
  const { label } = attributeInfo(attribute);
  if (targets.length === 0)
    fail(`none of the selected fixtures has ${label.toLowerCase()}`, "Select fixtures that have it");
  for (const { item, t } of targets) {
    for (const target of targetsOf(show, item, attribute)) {
      const [low, high] = rangeOf(target.fn);
      const stops = amounts.map((a) => (a === "full" ? high : a === "out" ? low : a));
      const wanted = alongStops(stops, t);
      building.values[target.key] = held(
        building,
        target,
        relative ? clamp(now(building, target) + wanted, low, high) : wanted,
      );
    }
  }
  building.lastWhat = { attribute };
  building.says.push(`${label.toLowerCase()} ${relative ? "by" : "to"} ${amountsText(amounts, attribute)}`);
}

/** A strobe at 0 means the shutter open (SEMANTICS 9); own timing stays until taken away. */
function held(building: Building, target: Target, value: number): Entry {
  const open = target.attribute === "Shutter1Strobe" && value === 0;
  const time = current(building, target.key)?.time;
  return { attribute: open ? "Shutter1" : target.attribute, value: open ? 1 : value, ...(time ? { time } : {}) };
}

const current = ({ values, context }: Building, key: ParamKey): Entry | undefined =>
  values[key] ?? context.world.hands.held[key];

function now(building: Building, target: Target): number {
  const entry = current(building, target.key);
  if (entry && entry.attribute === target.attribute && typeof entry.value === "number") return entry.value;
  const stage = building.context.stage(target.key);
  return stage && stage.attribute === target.attribute
    ? stage.value
    : target.attribute === target.spec.head
      ? target.spec.default
      : rangeOf(target.fn)[0];
}

/** The parameters of an item that WHAT means, each with the attribute to hold it by. */
function targetsOfWhat(building: Building, item: Item, what: What): Target[] {
  const { show } = building.context.world;
  if ("attribute" in what) return targetsOf(show, item, what.attribute);
  return allTargets(show, item).filter((t) => what.families.includes(attributeInfo(t.attribute).family));
}

const whatText = (what: What): string =>
  ("attribute" in what
    ? attributeInfo(what.attribute).label
    : what.families.length > 2
      ? "everything"
      : what.families.join(", ")
  ).toLowerCase();

function eachHeld(building: Building, what: What, change: (entry: Entry, t: number) => Entry): void {
  const targets = placed(building, (i) => targetsOfWhat(building, i, what).some((t) => current(building, t.key)));
  if (targets.length === 0) fail(`no ${whatText(what)} is held for the selected fixtures`, "Set a value first");
  for (const { item, t } of targets) {
    for (const target of targetsOfWhat(building, item, what)) {
      const entry = current(building, target.key);
      if (entry) building.values[target.key] = change(entry, t);
    }
  }
}

function time(args: Args, building: Building): void {
  const what = (args.what as What | undefined) ?? building.lastWhat;
  const delays = args.delays as number[] | undefined;
  const fades = args.fades as number[] | undefined;
  if ([...(delays ?? []), ...(fades ?? [])].some((s) => typeof s !== "number" || s < 0))
    fail("times are seconds, from 0 up");
  eachHeld(building, what, (entry, t) => {
    const timing: Timing = { ...entry.time };
    if (delays) timing.delay = alongStops(delays, t);
    if (fades) timing.fade = alongStops(fades, t);
    return { ...entry, time: timing };
  });
  building.says.push(
    `${whatText(what)} with ${[delays && `delay ${delays.join(" to ")} s`, fades && `fade ${fades.join(" to ")} s`].filter(Boolean).join(", ")}`,
  );
}

function everyDefault(building: Building, value: (target: Target) => number): void {
  for (const item of building.items) {
    for (const target of allTargets(building.context.world.show, item))
      building.values[target.key] = { attribute: target.attribute, value: value(target) };
  }
}

export const SETTINGS: Setting[] = [
  {
    syntax: "at <amounts:values>",
    about: "intensity, spread over the selection",
    example: "1 thru 9 at 20 to 80",
    apply: (args, b) => hold(b, "Dimmer", args.amounts as Amount[], false),
  },
  {
    syntax: "by <amounts:values>",
    about: "more or less intensity; stops at the ends",
    example: "1 thru 9 by -10",
    apply: (args, b) => hold(b, "Dimmer", args.amounts as Amount[], true),
  },
  {
    syntax: "<attr> at <amounts:values>",
    about: "an attribute, in its own unit",
    example: "1 thru 12 pan at -20 to 20 tilt at 30",
    apply: (args, b) => hold(b, args.attr as string, args.amounts as Amount[], false),
  },
  {
    syntax: "<attr> by <amounts:values>",
    about: "more or less of an attribute",
    example: "1 thru 12 zoom by 5",
    apply: (args, b) => hold(b, args.attr as string, args.amounts as Amount[], true),
  },
  {
    syntax: "colour at <hex:colour>",
    about: "a colour, by the type's own primaries",
    example: "21 thru 36 colour at #2ad1c9",
    apply(args, b) {
      const made = Object.assign(
        {},
        ...b.items.map((i) => colourValues(b.context.world.show, i, args.hex as string)),
      ) as Record<ParamKey, Entry>;
      if (Object.keys(made).length === 0)
        fail("none of the selected fixtures has colour", "Select fixtures that have it");
      Object.assign(b.values, made);
      b.lastWhat = { families: ["Colour"] };
      b.says.push(`colour to ${args.hex as string}`);
    },
  },
  {
    syntax: "aim at <x:metres> <y:metres> <z:metres> [flip]",
    about:
      "a point in the room: each mover solves its own pan and tilt, and follows where it hangs; flip takes the other way round",
    example: "1 thru 12 aim at 0 2 0",
    apply(args, b) {
      const point: AimPoint = {
        aim: [args.x as number, args.y as number, args.z as number],
        ...(args.flip === true ? { flip: true } : {}),
      };
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
    },
  },
  {
    syntax: "[<what>] delay <delays:values> [fade <fades:values>]",
    about: "own timing of WHAT, else of the setting before",
    example: "1 thru 9 at full delay 0 to 3 fade 2",
    apply: time,
  },
  { syntax: "[<what>] fade <fades:values>", about: "own fade time", example: "1 thru 9 at full fade 4", apply: time },
  {
    syntax: "<what> cue time",
    about: "take own timing away",
    example: "intensity cue time",
    apply(args, b) {
      eachHeld(b, args.what as What, ({ attribute, value }) => ({ attribute, value }));
      b.says.push(`${whatText(args.what as What)} by the cue's time`);
    },
  },
  {
    syntax: "<what> release",
    about: "hold a release: shows what lies below, and stores a release",
    example: "1 thru 9 colour release",
    apply(args, b) {
      for (const item of b.items)
        for (const t of targetsOfWhat(b, item, args.what as What))
          b.values[t.key] = { attribute: t.attribute, value: RELEASE };
      b.says.push(`${whatText(args.what as What)} released`);
    },
  },
  {
    syntax: "<what> drop",
    about: "let go of it here",
    example: "1 thru 9 colour drop",
    apply(args, b) {
      for (const item of b.items) for (const t of targetsOfWhat(b, item, args.what as What)) b.drops.push(t.key);
      b.says.push(`lets go of ${whatText(args.what as What)}`);
    },
  },
  {
    syntax: "copy from <fixture>",
    about: "hold what another fixture shows: all the two have in common, by attribute",
    example: "8 thru 9 copy from 7",
    apply(args, b) {
      const { world, stage } = b.context;
      const source =
        fixtureNumbered(world.show, args.fixture as number) ?? fail(`there is no fixture ${args.fixture as number}`);
      const shown = new Map(
        allTargets(world.show, source.id).map((t) => {
          const now = stage(t.key);
          return [
            `${t.spec.cell} ${t.spec.head}`,
            world.hands.held[t.key] ?? {
              attribute: now?.attribute ?? t.attribute,
              value: now?.value ?? t.spec.default,
            },
          ];
        }),
      );
      let copied = 0;
      for (const item of b.items) {
        if (item === source.id) continue;
        for (const target of allTargets(world.show, item)) {
          const entry =
            shown.get(`${target.spec.cell} ${target.spec.head}`) ??
            [...shown.values()].find((e) => e.attribute === target.attribute && target.spec.cell === 0);
          const fn = entry && functionOf(target.spec, entry.attribute);
          if (!entry || !fn) continue;
          const [low, high] = rangeOf(fn);
          b.values[target.key] =
            typeof entry.value === "number" ? { ...entry, value: clamp(entry.value, low, high) } : entry;
          copied += 1;
        }
      }
      if (copied === 0)
        fail(
          `fixture ${source.number} has nothing in common with what is selected`,
          "Select fixtures that share attributes with it",
        );
      b.says.push(`as fixture ${source.number}`);
    },
  },
  {
    syntax: "home",
    about: "hold every parameter at its default",
    example: "1 thru 12 home",
    apply: (_, b) => (everyDefault(b, (t) => t.spec.default), void b.says.push("everything to its default")),
  },
  {
    syntax: "locate",
    about: "hold full, open, white, centred",
    example: "1 thru 12 locate",
    apply: (_, b) => (
      everyDefault(b, (t) =>
        t.attribute === "Dimmer" ? 100 : t.attribute.startsWith("ColorAdd_") ? 100 : t.spec.default,
      ),
      void b.says.push("full, open, white, centred")
    ),
  },
];
