/** The functions of a GDTF channel as ours. */
import { attributeInfo, FAMILIES, inTable, isFilter, type AttributeInfo, type Family } from "../../fixture/attribute";
import { openState } from "../../fixture/parameters";
import { EMITTERS, FILTERS } from "../../colour/emitters";
import type { ChannelFunction, Range, Step } from "../../fixture/type";
import { ends, filterOf, saidBy, stepsOf, wholeState, type Lookups } from "./states";
import { colourOf, dmxValue } from "./values";
import { all, num, text, type Element } from "./xml";
import type { Note } from "./notes";
import { fromPhysical, unitNamed } from "./units";

/** One function of the file: where it lies, what it is called, and its default. */
export interface Part {
  /** Its logical channel, and its own name. */
  logical: string;
  name: string;
  dmxFrom: number;
  dmxTo: number;
  default: number | undefined;
}

/** A channel function before its mode master is known by place. */
export interface ReadFunction {
  fn: ChannelFunction;
  /** What of the file is in it, in the file's order. */
  parts: Part[];
  master?: { of: string; from: string; to: string };
}

const FEATURES: Record<string, Family> = {
  Dimmer: "Intensity",
  Position: "Position",
  Gobo: "Gobo",
  Color: "Colour",
  Beam: "Beam",
  Focus: "Focus",
  Control: "Control",
  Shapers: "Shapers",
  Video: "Gobo",
};

/** Of a channel. */
const MOST_FUNCTIONS = 512;
const MOST_STEPS = 512;
/** What is one state as a whole: by its attribute, or by a name that says what the fixture does then. */
const ONE_STATE = /^NoFeature$|Reset$/;
const ACTS = /\b(lamp|ignite|strike|douse|reset)/i;

/** A name that can be an attribute of ours. */
export const attributeName = (name: string): string => name.replace(/[\s.]+/g, "_").slice(0, 50);

/** What the file says of an attribute our table does not know. */
function infoOf(name: string, { attributes }: Lookups): Pick<AttributeInfo, "label" | "family" | "unit"> | undefined {
  const said = attributes.get(name);
  if (inTable(name) || !said) return undefined;
  const feature = text(said, "Feature").split(".")[0] ?? "";
  return {
    label: (text(said, "Pretty") || name).slice(0, 60),
    family: FEATURES[feature] ?? FAMILIES.find((f) => f === feature) ?? "Control",
    unit: unitNamed(text(said, "PhysicalUnit")),
  };
}

/** What of a channel we write as unused is not a function. */
const UNUSED = /^Unused \d+$/;

/**
 * The functions of a channel, one for each attribute, ranges of one attribute together; those that do nothing count as
 * others do. @param bytes of the channel. @param note takes what was left out, in words.
 */
export function functionsOf(logical: readonly Element[], bytes: number, lookups: Lookups, note: Note): ReadFunction[] {
  const most = 256 ** bytes - 1;
  const elements = logical.flatMap((l) => all(l, "ChannelFunction").map((element, k) => [l, element, k] as const));
  if (elements.length > MOST_FUNCTIONS) note(`only ${MOST_FUNCTIONS} of its ${elements.length} functions`);
  const raw = elements.slice(0, MOST_FUNCTIONS).map(([l, element, k]) => {
    const attribute = text(element, "Attribute") || text(l, "Attribute") || NOTHING;
    return {
      element,
      attribute,
      logical: text(l, "Attribute"),
      name: text(element, "Name") || `${attribute} ${k + 1}`,
      from: dmxValue(text(element, "DMXFrom") || "0/1", bytes),
      master: text(element, "ModeMaster"),
      modeFrom: text(element, "ModeFrom") || "0/1",
      modeTo: text(element, "ModeTo") || "0/1",
    };
  });
  const made: ReadFunction[] = [];
  for (const f of raw) {
    if (f.from === undefined) {
      note(`${f.attribute}: "${text(f.element, "DMXFrom")}" is no DMX value`, f.element);
      continue;
    }
    if (f.attribute === NOTHING && UNUSED.test(f.name)) continue;
    const alike = raw.filter(
      (o) => o.from !== undefined && o.master === f.master && o.modeFrom === f.modeFrom && o.modeTo === f.modeTo,
    );
    const next = Math.min(most + 1, ...alike.map((o) => o.from!).filter((from) => from > f.from!));
    const [dmxFrom, dmxTo] = [f.from, next - 1];
    const fn = functionOf(f.element, attributeName(f.attribute), f.name, dmxFrom, dmxTo, bytes, lookups, (what) =>
      note(what, f.element),
    );
    const part = {
      logical: f.logical,
      name: f.name,
      dmxFrom,
      dmxTo,
      default: dmxValue(text(f.element, "Default"), bytes),
    };
    const read: ReadFunction = {
      fn,
      parts: [part],
      ...(f.master === "" ? {} : { master: { of: f.master, from: f.modeFrom, to: f.modeTo } }),
    };
    const twin = made.find((m) => m.fn.attribute === fn.attribute);
    if (!twin) made.push(read);
    else if (JSON.stringify(twin.master) === JSON.stringify(read.master))
      join(twin, read, (what) => note(what, f.element));
    else apart(twin, read, (what) => note(what, f.element));
  }
  for (const { fn, parts } of made) {
    settle(fn);
    const own = raw.filter((o) => attributeName(o.attribute) === fn.attribute).map((o) => o.element);
    if (/^Shutter\d+$/.test(fn.attribute) && (openState(fn) === undefined || isUntold(fn, parts, own)))
      note(`${fn.attribute}: nothing tells which of its ranges is open; they count from 0 in their order`);
  }
  return made;
}

/** Whether states of one attribute are told apart by their place alone, neither by names nor by values. */
function isUntold(fn: ChannelFunction, parts: readonly Part[], elements: readonly Element[]): boolean {
  const values = elements.map((e) => `${text(e, "PhysicalFrom")} ${text(e, "PhysicalTo")}`);
  return (
    parts.length > 1 &&
    (fn.ranges !== undefined || fn.steps?.length === parts.length) &&
    values.every((v) => v === values[0]) &&
    !parts.some((p) => saidBy(fn.attribute, p.name) !== undefined)
  );
}

/** What a function without use is called in GDTF. */
export const NOTHING = "NoFeature";

/** A function whose every value is one: its middle is sent; where nothing tells what it means, it can be moved over. */
function settle(fn: ChannelFunction): void {
  if (fn.steps || fn.ranges || fn.from !== fn.to) return;
  if ((fn.info ?? attributeInfo(fn.attribute)).unit === "") fn.to = fn.from + 1;
  else fn.ranges = rangesOf(fn, "");
}

const MOST_RANGES = 64;

/** A function as ranges: what it has, its steps, or all of it. */
function rangesOf(fn: ChannelFunction, name: string): Range[] {
  if (fn.ranges) return fn.ranges;
  const { dmxFrom, dmxTo, from, to } = fn;
  return (
    fn.steps?.map(({ value, colour: _c, picture: _p, ...rest }): Range => ({ ...rest, from: value, to: value })) ?? [
      { name: name.slice(0, 80), dmxFrom, dmxTo, from, to },
    ]
  );
}

/** A range or slot that hangs on a channel which is not known by its place yet. */
export type Asking<T = Range | Step> = T & { asks?: NonNullable<ReadFunction["master"]> };

/** Ranges or slots, each of which asks for what all of its function did. */
const asking = <T>(all: readonly Asking<T>[], { master }: ReadFunction): Asking<T>[] =>
  all.map((one) => (one.asks || !master ? one : { ...one, asks: master }));

/** Two functions of one attribute become one with ranges beside each other. */
function beside(first: ReadFunction, second: ReadFunction, ranges: Range[], note: Note): void {
  const [a, b] = [first.fn, second.fn];
  if (ranges.length > MOST_RANGES)
    return note(`${a.attribute}: its range from ${b.dmxFrom} to ${b.dmxTo} is left out, ${MOST_RANGES} are the most`);
  delete a.steps;
  a.ranges = ranges;
  const values = ranges.flatMap((r) => [r.from, r.to]);
  [a.from, a.to] = [Math.min(...values), Math.max(...values)];
  takeIn(first, second);
}

/** A function reaches over the DMX of another too, and stands for its part of the file. */
function takeIn(first: ReadFunction, second: ReadFunction): void {
  first.fn.dmxFrom = Math.min(first.fn.dmxFrom, second.fn.dmxFrom);
  first.fn.dmxTo = Math.max(first.fn.dmxTo, second.fn.dmxTo);
  first.parts.push(...second.parts);
}

/** Two functions of one attribute that hang on different channels, or on different ranges of one: each range or slot asks for its own. */
function apart(first: ReadFunction, second: ReadFunction, note: Note): void {
  const [a, b] = [first.fn, second.fn];
  // Where there are too many the first stays as it is.
  if (a.steps && b.steps) {
    if (a.steps.length + b.steps.length <= MOST_STEPS) {
      a.steps = asking(a.steps, first);
      b.steps = asking(b.steps, second);
      delete first.master;
    }
    return putTogether(first, second, note);
  }
  const [own, others] = [rangesOf(a, first.parts[0]!.name), rangesOf(b, second.parts[0]!.name)];
  const ranges = [...asking(own, first), ...asking(others, second)];
  if (ranges.length <= MOST_RANGES) delete first.master;
  beside(first, second, ranges, note);
}

/** Two functions with steps become one; a value that is taken becomes the next. */
function putTogether(first: ReadFunction, second: ReadFunction, note: Note): void {
  const [a, b] = [first.fn, second.fn];
  const [own, others] = [a.steps!, b.steps!];
  if (own.length + others.length > MOST_STEPS)
    return note(`${a.attribute}: its steps from ${b.dmxFrom} to ${b.dmxTo} are left out, ${MOST_STEPS} are the most`);
  const taken = new Set(own.map((s) => s.value));
  for (const step of others) {
    let value = step.value;
    while (taken.has(value)) value += 1;
    taken.add(value);
    own.push({ ...step, value });
  }
  ends(a);
  takeIn(first, second);
}

/** Two functions of a channel of one attribute: their steps are put together, or they are ranges beside each other. */
function join(first: ReadFunction, second: ReadFunction, note: Note): void {
  const [a, b] = [first.fn, second.fn];
  // Several functions of what has states are its states, where nothing else tells them apart.
  const { unit } = a.info ?? attributeInfo(a.attribute);
  if ((unit === "state" || unit === "") && !a.ranges && !(a.steps && b.steps))
    for (const [{ fn, parts }, other] of [
      [first, b],
      [second, a],
    ] as const) {
      const isWhole = !fn.steps && (other.steps !== undefined || (fn.from === other.from && fn.to === other.to));
      const [part] = parts;
      if (isWhole) fn.steps = [wholeState(fn, part!.name, saidBy(fn.attribute, part!.name) ?? 0, part!.default)];
    }
  if (a.steps && b.steps) putTogether(first, second, note);
  else beside(first, second, [...rangesOf(a, first.parts[0]!.name), ...rangesOf(b, second.parts[0]!.name)], note);
}

function functionOf(
  element: Element,
  attribute: string,
  name: string,
  dmxFrom: number,
  dmxTo: number,
  bytes: number,
  lookups: Lookups,
  note: Note,
): ChannelFunction {
  const own = infoOf(text(element, "Attribute") || attribute, lookups);
  const { unit } = own ?? attributeInfo(attribute);
  const [from, to] = fromPhysical(unit, num(element, "PhysicalFrom") ?? 0, num(element, "PhysicalTo") ?? 1);
  const fn: ChannelFunction = { attribute, dmxFrom, dmxTo, from, to };
  const stepped = unit === "slot" || unit === "state" || (unit === "" && ACTS.test(name));
  const steps = stepped || own ? stepsOf(element, unit === "slot", dmxTo, bytes, lookups, attribute, note) : [];
  // One state as a whole: where its values say nothing else, or where its name or attribute does.
  const said = saidBy(attribute, name);
  if (
    stepped &&
    steps.length === 0 &&
    (from === to || said !== undefined || ONE_STATE.test(attribute) || ACTS.test(name))
  )
    steps.push(wholeState(fn, name, said ?? Math.round(Math.min(from, to)), dmxValue(text(element, "Default"), bytes)));
  if (steps.length > 0 && (stepped || steps.length > 1)) {
    fn.steps = steps.slice(0, MOST_STEPS);
    ends(fn);
    if (steps.length > MOST_STEPS) note(`${attribute}: only ${MOST_STEPS} of its ${steps.length} slots`);
  }
  if (own) fn.info = unit !== "" || !fn.steps ? own : { ...own, unit: "state" };
  const emitter = emitterOf(element, lookups);
  const usual = EMITTERS[attribute];
  const same =
    usual && emitter && usual.flux === emitter.flux && usual.xy[0] === emitter.xy[0] && usual.xy[1] === emitter.xy[1];
  if (emitter && !same && /^ColorAdd_/.test(attribute)) fn.emitter = emitter;
  const filter = isFilter(attribute) ? filterOf(text(element, "Filter"), lookups) : undefined;
  if (filter && FILTERS[attribute]?.join() !== filter.xy.join()) fn.through = filter.xy;
  return fn;
}

function emitterOf(element: Element, { emitters }: Lookups): ChannelFunction["emitter"] {
  const found = emitters.get(text(element, "Emitter"));
  const colour = found && colourOf(text(found, "Color"));
  return colour && { xy: colour.xy, flux: colour.Y };
}
