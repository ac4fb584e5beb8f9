/** A fixture type from the description of a GDTF file (DIN SPEC 15800). */
import { fromDmx } from "../../dmx/decode";
import { toDmx } from "../../fixture/dmxValue";
import { isEmitter } from "../../fixture/attribute";
import { parametersOf } from "../../fixture/parameters";
import {
  modeProblem,
  ModeSchema,
  typeProblem,
  type Channel,
  type FixtureType,
  type Master,
  type Mode,
} from "../../fixture/type";
import { refuse, type Refusal } from "../../show/refusal";
import { actionsOf, macrosOf } from "./actions";
import { functionsOf, NOTHING, type Asking, type ReadFunction } from "./functions";
import type { Lookups } from "./states";
import { axisOf, beamOf, geometriesOf, instancesOf, type Geometry, type Instance } from "./geometry";
import { kindOf } from "./kind";
import { createNotes, type Note } from "./notes";
import { inBreaks, natural, numberCells, placesOfCells, type Placed } from "./placed";
import { dmxValue } from "./values";
import { all, first, num, readXml, text, within, type Element } from "./xml";

export interface TypeRead {
  type: Omit<FixtureType, "id">;
  /** What could not be used, and where. */
  notes: string[];
}

const MOST_NOTES = 200;
/** Functions of one channel: as the schema has it. */
const MOST_ON_A_CHANNEL = 64;
const MOST_MODES = 64;
/** Of a universe: no mode of ours takes more. */
const MOST_SLOTS = 512;

/** Reads a description. @param pictures the names of the wheel pictures that came with it. */
export function readDescription(xml: string, pictures: ReadonlySet<string>): TypeRead | Refusal {
  const root = readXml(xml, "GDTF", "the description of this fixture type");
  if ("refused" in root) return root as Refusal;
  const type = first(root, "FixtureType");
  if (!type) return refuse("the description has no FixtureType in it", "Get the file from its maker again");
  const notes = createNotes(xml, MOST_NOTES);
  const { note } = notes;
  const named = (elements: readonly Element[]) => new Map(elements.map((e) => [text(e, "Name"), e]));
  const physical = first(type, "PhysicalDescriptions");
  const lookups: Lookups = {
    attributes: named(within(first(type, "AttributeDefinitions"), "Attributes", "Attribute")),
    wheels: named(within(type, "Wheels", "Wheel")),
    emitters: named(within(physical, "Emitters", "Emitter")),
    filters: named(within(physical, "Filters", "Filter")),
    pictures,
  };
  const tops = geometriesOf(type);
  const modes: Mode[] = [];
  const elements = within(type, "DMXModes", "DMXMode");
  if (elements.length > MOST_MODES) note(`only ${MOST_MODES} of its ${elements.length} modes`, elements[MOST_MODES]);
  for (const element of elements.slice(0, MOST_MODES)) {
    const mode = readMode(element, tops, lookups, note);
    const wrong = mode && faultOf(mode, modes);
    if (wrong) note(`mode ${mode.name}: ${wrong}, so it is left out`, element);
    else if (mode) modes.push(mode);
  }
  if (modes.length === 0)
    return refuse(
      "no DMX mode of this fixture type can be used",
      notes.list()[0] ?? "Get the file from its maker again",
    );
  const maker = text(type, "Manufacturer").slice(0, 80);
  const model = (text(type, "LongName") || text(type, "Name") || "Fixture").slice(0, 80);
  const guid = text(type, "FixtureTypeID");
  const made = {
    maker,
    model,
    kind: kindOf(modes),
    modes,
    ...physicalOf(type, tops, text(within(type, "DMXModes", "DMXMode")[0], "Geometry")),
    ...(/^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i.test(guid) ? { guid } : {}),
  };
  const wrong = typeProblem({ ...made, id: "read" });
  return wrong ? refuse(`this fixture type cannot be used: ${wrong}`) : { type: made, notes: notes.list() };
}

/** Why a mode cannot be used beside others; undefined where it can. */
function faultOf(mode: Mode, others: readonly Mode[]): string | undefined {
  const issue = ModeSchema.safeParse(mode).error?.issues[0];
  if (issue) return `${issue.path.join(" ")}: ${issue.message}`;
  if (others.some((other) => other.name.toLowerCase() === mode.name.toLowerCase())) return "another mode has this name";
  return modeProblem(mode);
}

function readMode(
  element: Element,
  tops: ReadonlyMap<string, Geometry>,
  lookups: Lookups,
  note: Note,
): Mode | undefined {
  const name = (text(element, "Name") || "standard").slice(0, 60);
  const instances = instancesOf(tops, text(element, "Geometry"));
  const placed: Placed[] = [];
  for (const channel of within(element, "DMXChannels", "DMXChannel")) {
    const found = placesOf(channel, name, instances, lookups, note, MOST_SLOTS - placed.length);
    if (!found) {
      note(`mode ${name}: it takes more than ${MOST_SLOTS} slots and is left out`, element);
      return undefined;
    }
    placed.push(...found);
  }
  if (placed.length === 0) {
    note(`mode ${name}: it has no DMX channels`, element);
    return undefined;
  }
  const breaks = inBreaks(placed);
  if (placed.some((p) => p.slots.some((s) => s > MOST_SLOTS))) {
    note(`mode ${name}: it takes more than ${MOST_SLOTS} slots and is left out`, element);
    return undefined;
  }
  numberCells(placed);
  placed.sort((a, b) => Math.min(...a.slots) - Math.min(...b.slots));
  const channels = placed.map((p) => channelOf(p));
  for (const {
    element,
    functions: { length },
  } of placed)
    if (length > MOST_ON_A_CHANNEL)
      note(`mode ${name}: only ${MOST_ON_A_CHANNEL} of the ${length} functions of a channel`, element);
  distinct(channels, name, (text, k) => note(text, placed[k]!.element));
  linkMasters(placed, channels, name, note);
  natural(channels);
  const cells = Math.max(0, ...channels.map((c) => c.cell));
  const places = placesOfCells(placed, cells);
  const mode: Mode = {
    name,
    cells,
    channels,
    ...(places ? { places } : {}),
    ...(breaks.length > 0 ? { breaks } : {}),
  };
  settleDefaults(mode, placed);
  const actions = actionsOf(macrosOf(element, placed, channels), channels);
  return actions.length > 0 ? { ...mode, actions } : mode;
}

/** A channel at each place of its geometry; none for a virtual one, undefined where there is no room for so many. */
function placesOf(
  element: Element,
  mode: string,
  instances: ReadonlyMap<string, readonly Instance[]>,
  lookups: Lookups,
  note: Note,
  room: number,
): Placed[] | undefined {
  const offsets = text(element, "Offset");
  const slots = offsets === "" || offsets === "None" ? [] : offsets.split(",").map(Number);
  const logical = all(element, "LogicalChannel");
  const what = `mode ${mode}, channel ${offsets || "without an offset"} (${text(logical[0], "Attribute") || "?"})`;
  if (slots.length === 0) {
    if (text(logical[0], "Attribute") !== "Dimmer") note(`${what}: it is virtual and left out`, element);
    return [];
  }
  if (slots.length > 4 || slots.some((s) => !Number.isInteger(s) || s < 1 || s > MOST_SLOTS)) {
    note(`${what}: its offset makes no sense`, element);
    return [];
  }
  const geometry = text(element, "Geometry");
  const found = instances.get(geometry) ?? [{ key: geometry, above: [], at: [0, 0, 0] }];
  if (found.length > room) return undefined;
  const functions = functionsOf(logical, slots.length, lookups, (text, of = element) => note(`${what}: ${text}`, of));
  const own = text(element, "DMXBreak") || "1";
  return found.map((instance): Placed => {
    const number = own === "Overwrite" ? (instance.overwrite ?? 1) : Number(own) || 1;
    const shift = instance.breaks?.get(number) ?? (instance.breaks ? [...instance.breaks.values()][0] : undefined) ?? 0;
    return {
      element,
      instance,
      geometry,
      // The break goes along as thousands until all are known.
      slots: slots.map((s) => (number - 1) * 1000 + s + shift),
      functions: functions.map((f) => ({ ...f, fn: structuredClone(f.fn) })),
      cell: 0,
    };
  });
}

/**
 * What a channel rests in: the function InitialFunction names, with its default; where that names none (GDTF 1.0), the
 * one the channel's own default lies in, else the first.
 */
function initialOf({ element, functions, slots }: Placed): { first: ReadFunction | undefined; rest?: number } {
  const link = text(element, "InitialFunction");
  const all = functions.flatMap((of) => of.parts.map((part) => ({ of, part })));
  const called = ({ part }: (typeof all)[number]) => link.endsWith(`.${part.name}`) || link === part.name;
  const found = all.find((f) => called(f) && link.endsWith(`${f.part.logical}.${f.part.name}`)) ?? all.find(called);
  const ofChannel = dmxValue(text(element, "Default"), slots.length);
  const holds =
    (dmx: number) =>
    ({ part }: (typeof all)[number]) =>
      dmx >= part.dmxFrom && dmx <= part.dmxTo;
  const named = found ?? (ofChannel === undefined ? all[0] : all.find(holds(ofChannel)));
  const rest = named?.part.default ?? ofChannel;
  if (rest === undefined) return { first: named?.of };
  const there = named && holds(rest)(named) ? named : all.find(holds(rest));
  return { first: there?.of ?? named?.of, rest };
}

function channelOf(placed: Placed): Channel {
  const { slots, functions, cell } = placed;
  const bytes = slots.length as Channel["bytes"];
  const most = 256 ** bytes - 1;
  const { first, rest } = initialOf(placed);
  if (rest !== undefined) placed.rest = rest;
  const own = [...(first ? [first] : []), ...functions.filter((f) => f !== first)].map((f) => f.fn);
  return {
    cell,
    bytes,
    slots,
    functions:
      own.length > 0
        ? own.slice(0, MOST_ON_A_CHANNEL)
        : [{ attribute: "Reserved", dmxFrom: 0, dmxTo: most, from: 0, to: most }],
  };
}

/** A second channel of an attribute in a cell takes another name, so that both can be set. */
function distinct(channels: readonly Channel[], mode: string, note: (what: string, k: number) => void): void {
  const taken = new Set<string>();
  for (const [at, channel] of channels.entries()) {
    const head = channel.functions[0]!;
    let name = head.attribute;
    for (let k = 2; taken.has(`${channel.cell}.${name}`); k++) name = `${head.attribute}_${k}`;
    taken.add(`${channel.cell}.${name}`);
    if (name === head.attribute) continue;
    if (head.attribute !== "Reserved" && head.attribute !== NOTHING)
      note(`mode ${mode}: a second ${head.attribute} is called ${name}`, at);
    head.attribute = name;
  }
}

/** Masters are named by their channel, "Head_Gobo1", or one of its functions. */
function linkMasters(placed: readonly Placed[], channels: readonly Channel[], mode: string, note: Note): void {
  const names = placed.map((p) => `${p.geometry}_${text(all(p.element, "LogicalChannel")[0], "Attribute")}`);
  placed.forEach((p, k) => {
    const linked = (attribute: string, master: NonNullable<ReadFunction["master"]>): Master | undefined => {
      const name = master.of.split(".")[0]!;
      const near = names.findIndex((n, i) => n === name && placed[i]!.instance.key === p.instance.key);
      const channel = near >= 0 ? near : names.indexOf(name);
      const bytes = channels[channel]?.bytes ?? 1;
      const [from, to] = [dmxValue(master.from, bytes), dmxValue(master.to, bytes)];
      if (channel >= 0 && channel !== k && from !== undefined && to !== undefined && to >= from)
        return { channel, from, to };
      note(`mode ${mode}: ${attribute} depends on ${master.of}, which is not there`, p.element);
      return undefined;
    };
    for (const { fn, master } of p.functions) {
      const whole = master && linked(fn.attribute, master);
      if (whole) fn.master = whole;
      for (const one of [...(fn.ranges ?? []), ...(fn.steps ?? [])] as Asking[]) {
        const own = one.asks && linked(fn.attribute, one.asks);
        if (own) one.master = own;
        delete one.asks;
      }
    }
  });
}

/** Defaults that differ from those every fixture has (SEMANTICS 1), and what highlight puts. */
function settleDefaults(mode: Mode, placed: readonly Placed[]): void {
  const specs = new Map(parametersOf(structuredClone(mode), true).map((s) => [s.channel, s]));
  mode.channels.forEach((channel, k) => {
    const fn = channel.functions[0]!;
    const given = placed[k]!.rest;
    const usual = specs.get(k)!.default;
    if (given !== undefined && given >= fn.dmxFrom && given <= fn.dmxTo) {
      const value = fromDmx(fn, given);
      // To the bit: a state rests at what its file says, wherever in its range that lies.
      const state = [...(fn.steps ?? []), ...(fn.ranges ?? [])].find((s) => given >= s.dmxFrom && given <= s.dmxTo);
      if (state && toDmx(fn, value) !== given) state.sends = given;
      if (toDmx(fn, usual) !== given) channel.default = value;
    }
    const lit = dmxValue(text(placed[k]!.element, "Highlight"), channel.bytes);
    if (lit !== undefined && lit >= fn.dmxFrom && lit <= fn.dmxTo && !isEmitter(fn.attribute))
      channel.highlight = fromDmx(fn, lit);
  });
}

function physicalOf(type: Element, tops: ReadonlyMap<string, Geometry>, root: string): Pick<FixtureType, "physical"> {
  const tree = tops.get(root) ?? [...tops.values()][0];
  const beam = beamOf(tree, tops);
  const properties = first(first(type, "PhysicalDescriptions"), "Properties");
  const models = new Map(within(type, "Models", "Model").map((m) => [text(m, "Name"), m]));
  const body = models.get(text(tops.get(root)?.element, "Model")) ?? [...models.values()][0];
  const between = (value: number | undefined, low: number, high: number) =>
    value !== undefined && value >= low && value <= high ? value : undefined;
  const sizeOf = (model: Element | undefined) => {
    const size = ["Width", "Length", "Height"].map((d) => between(num(model, d), 0.01, 100));
    return size.every((v) => v !== undefined) ? (size as [number, number, number]) : undefined;
  };
  const roundOf = (model: Element | undefined) =>
    /^(Cylinder|Sphere)$/.test(text(model, "PrimitiveType")) ? { round: true as const } : {};
  const turns = models.get(text(axisOf(tree, tops), "Model"));
  const head = turns === body ? undefined : sizeOf(turns);
  const made = {
    beamAngle: between(num(beam, "BeamAngle"), 0.1, 360),
    lumens: between(num(beam, "LuminousFlux"), 0, 10_000_000),
    watts: between(num(beam, "PowerConsumption"), 0, 1_000_000),
    kilograms: between(num(first(properties, "Weight"), "Value"), 0, 10_000),
    size: sizeOf(body),
    ...(sizeOf(body) ? roundOf(body) : {}),
    head: head && { size: head, ...roundOf(turns) },
  };
  const said = Object.fromEntries(Object.entries(made).filter(([, v]) => v !== undefined));
  return Object.keys(said).length > 0 ? { physical: said } : {};
}
