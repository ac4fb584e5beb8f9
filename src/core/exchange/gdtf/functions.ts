/** The functions of a GDTF channel as ours. */
import { attributeInfo, FAMILIES, inTable, isFilter, type AttributeInfo, type Family } from "../../fixture/attribute";
import { EMITTERS, FILTERS } from "../../colour/emitters";
import type { ChannelFunction, Range, Step } from "../../fixture/type";
import { colourOf, dmxValue, hexOfColour } from "./values";
import { all, num, text, type Element } from "./xml";
import type { Note } from "./notes";
import { fromPhysical, unitNamed } from "./units";

/** What a type says beside its modes. */
export interface Lookups {
  attributes: ReadonlyMap<string, Element>;
  wheels: ReadonlyMap<string, Element>;
  emitters: ReadonlyMap<string, Element>;
  filters: ReadonlyMap<string, Element>;
  /** The pictures there are, by name. */
  pictures: ReadonlySet<string>;
}

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
/** Of a function: more are read than are kept, as those without a name do not count. */
const MOST_SETS = 2048;
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
    else if (JSON.stringify(twin.master) !== JSON.stringify(read.master))
      note(
        `${fn.attribute}: its range from ${dmxFrom} to ${dmxTo} depends on another channel and is left out`,
        f.element,
      );
    else join(twin, read, (what) => note(what, f.element));
  }
  for (const { fn } of made) settle(fn);
  return made;
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
  if (a.steps && b.steps) {
    if (a.steps.length + b.steps.length > MOST_STEPS)
      return note(`${a.attribute}: its steps from ${b.dmxFrom} to ${b.dmxTo} are left out, ${MOST_STEPS} are the most`);
    const taken = new Set(a.steps.map((s) => s.value));
    for (const step of b.steps) {
      let value = step.value;
      while (taken.has(value)) value += 1;
      taken.add(value);
      a.steps.push({ ...step, value });
    }
    ends(a);
  } else {
    const ranges = [...rangesOf(a, first.parts[0]!.name), ...rangesOf(b, second.parts[0]!.name)];
    if (ranges.length > MOST_RANGES)
      return note(`${a.attribute}: its range from ${b.dmxFrom} to ${b.dmxTo} is left out, ${MOST_RANGES} are the most`);
    delete a.steps;
    a.ranges = ranges;
    const values = ranges.flatMap((r) => [r.from, r.to]);
    [a.from, a.to] = [Math.min(...values), Math.max(...values)];
  }
  a.dmxFrom = Math.min(a.dmxFrom, b.dmxFrom);
  a.dmxTo = Math.max(a.dmxTo, b.dmxTo);
  first.parts.push(...second.parts);
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

/** What the name of a function of a shutter says of it. */
const saidBy = (attribute: string, name: string): number | undefined =>
  /^Shutter\d+$/.test(attribute) ? shutterCalled(name) : undefined;

/** A function that is one state: it sends the function's own default, where the file gives one. */
function wholeState({ dmxFrom, dmxTo }: ChannelFunction, name: string, value: number, own: number | undefined): Step {
  const sends = own !== undefined && own >= dmxFrom && own <= dmxTo ? { sends: own } : {};
  return { value, name: name.slice(0, 80), dmxFrom, dmxTo, ...sends };
}

/** Stepped functions go from their least to their greatest value. */
function ends(fn: ChannelFunction): void {
  const values = fn.steps!.map((s) => s.value);
  fn.from = Math.min(...values);
  fn.to = Math.max(...values);
  fn.steps!.sort((a, b) => a.value - b.value);
}

function stepsOf(
  element: Element,
  slots: boolean,
  dmxTo: number,
  bytes: number,
  lookups: Lookups,
  attribute: string,
  note: (text: string) => void,
): Step[] {
  const listed = all(element, "ChannelSet");
  if (listed.length > MOST_SETS) note(`${attribute}: only ${MOST_SETS} of its ${listed.length} channel sets`);
  const sets = listed
    .slice(0, MOST_SETS)
    .map((set) => ({ set, from: dmxValue(text(set, "DMXFrom") || "0/1", bytes) }))
    .filter((s): s is { set: Element; from: number } => s.from !== undefined)
    .sort((a, b) => a.from - b.from);
  const wheel = lookups.wheels.get(text(element, "Wheel"));
  const plates = all(wheel, "Slot");
  const taken = new Set<number>();
  return sets.flatMap(({ set, from }, k): Step[] => {
    const name = text(set, "Name");
    const index = num(set, "WheelSlotIndex") ?? 0;
    if (name === "" && index < 1) return [];
    const plate = plates[index - 1];
    const end = (sets[k + 1]?.from ?? dmxTo + 1) - 1;
    let value = slots
      ? index >= 1
        ? index
        : taken.size + 1
      : valueOf(set, name, text(element, "Name"), attribute, taken);
    while (taken.has(value)) value += 1;
    taken.add(value);
    const colour = plate && (colourOf(text(plate, "Color")) ?? filterOf(text(plate, "Filter"), lookups));
    const picture = text(plate, "MediaFileName");
    return [
      {
        value,
        name: (name || text(plate, "Name") || String(value)).slice(0, 80),
        dmxFrom: from,
        dmxTo: Math.max(from, end),
        ...(colour && /^Color|^ColorMacro/.test(attribute) ? { colour: hexOfColour(colour) } : {}),
        ...(picture && lookups.pictures.has(picture) ? { picture } : {}),
      },
    ];
  });
}

/** What the name of a state of a shutter says: closed is 0, open is 1; undefined where it says neither. */
const shutterCalled = (name: string): number | undefined =>
  /clos|shut(?!ter)|black/i.test(name) ? 0 : /open/i.test(name) ? 1 : undefined;

/** The value of a state of a function: what the file says, else what it is called, else its turn. */
function valueOf(set: Element, name: string, of: string, attribute: string, taken: ReadonlySet<number>): number {
  const said = saidBy(attribute, name) ?? saidBy(attribute, of);
  if (said !== undefined) return said;
  const [from, to] = [num(set, "PhysicalFrom"), num(set, "PhysicalTo")];
  if (from !== undefined && from === to && Number.isInteger(from) && !taken.has(from)) return from;
  return taken.size;
}

/** The colour a filter leaves of daylight, where it was measured. */
function filterOf(name: string, { filters }: Lookups): ReturnType<typeof colourOf> {
  const found = name === "" ? undefined : filters.get(name);
  return found && colourOf(text(found, "Color"));
}

function emitterOf(element: Element, { emitters }: Lookups): ChannelFunction["emitter"] {
  const found = emitters.get(text(element, "Emitter"));
  const colour = found && colourOf(text(found, "Color"));
  return colour && { xy: colour.xy, flux: colour.Y };
}
