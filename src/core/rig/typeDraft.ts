/** Making a fixture type by hand: a mode, a channel, a function, a slot of a wheel, each as one would begin with it. */
import slugify from "slugify";
import { attributeInfo, inTable } from "../fixture/attribute";
import {
  FixtureTypeSchema,
  modeProblem,
  type Channel,
  type ChannelFunction,
  type FixtureType,
  type Master,
  type Mode,
  type Range,
  type Step,
} from "../fixture/type";
import { libraryType } from "../fixture/library/library";
import { own } from "../show/hasOwn";
import type { Show } from "../show/schema";

/** The usual range of an attribute, by its unit. */
const RANGES: Record<string, readonly [number, number]> = {
  "%": [0, 100],
  "°": [0, 360],
  Hz: [0.5, 20],
  rpm: [-60, 60],
  slot: [1, 1],
  state: [0, 1],
  K: [2700, 6500],
  s: [0, 10],
  "": [0, 255],
};
const NAMED: Record<string, readonly [number, number]> = { Pan: [-270, 270], Tilt: [-135, 135], Zoom: [6, 50] };

/** A function of an attribute over DMX values. */
export function newFunction(attribute: string, dmxFrom: number, dmxTo: number): ChannelFunction {
  const { unit } = attributeInfo(attribute);
  const [from, to] = NAMED[attribute] ?? RANGES[unit] ?? [0, 100];
  const made: ChannelFunction = { attribute, dmxFrom, dmxTo, from, to };
  if (unit === "slot") return { ...made, from: 1, to: 1, steps: [{ value: 1, name: "open", dmxFrom, dmxTo }] };
  if (attribute !== "Shutter1" && attribute !== "Prism1") return made;
  const middle = Math.floor((dmxFrom + dmxTo) / 2);
  const names = attribute === "Shutter1" ? ["closed", "open"] : ["out", "in"];
  return {
    ...made,
    steps: [
      { value: 0, name: names[0]!, dmxFrom, dmxTo: middle },
      { value: 1, name: names[1]!, dmxFrom: middle + 1, dmxTo },
    ],
  };
}

/** A channel of one attribute. */
export const newChannel = (attribute: string, cell = 0, bytes: Channel["bytes"] = 1): Channel => ({
  cell,
  bytes,
  functions: [newFunction(attribute, 0, 256 ** bytes - 1)],
});

export const newMode = (name: string): Mode => ({ name, cells: 0, channels: [newChannel("Dimmer")] });

export const newType = (): FixtureType => ({
  id: "own",
  maker: "",
  model: "New type",
  kind: "conventional",
  modes: [newMode("standard")],
});

/** A channel in so many bytes: ranges that went to its end still do. */
export function inBytes(channel: Channel, bytes: Channel["bytes"]): Channel {
  const [old, now] = [256 ** channel.bytes, 256 ** bytes];
  const moved = (dmx: number, end: boolean) =>
    end ? Math.floor(((dmx + 1) * now) / old) - 1 : Math.floor((dmx * now) / old);
  const both = <T extends { dmxFrom: number; dmxTo: number; sends?: number | undefined }>(of: T): T => ({
    ...of,
    dmxFrom: moved(of.dmxFrom, false),
    dmxTo: moved(of.dmxTo, true),
    ...(of.sends === undefined ? {} : { sends: moved(of.sends, false) }),
  });
  const { slots: _, ...rest } = channel;
  return {
    ...rest,
    bytes,
    functions: channel.functions.map((fn) => ({
      ...both(fn as ChannelFunction & { sends?: number }),
      ...(fn.steps ? { steps: fn.steps.map(both) } : {}),
      ...(fn.ranges ? { ranges: fn.ranges.map(both) } : {}),
    })),
  };
}

/** Slots of equal width over a function, with the names and colours they have. */
export function evenSlots(
  fn: ChannelFunction,
  steps: readonly Omit<Step, "dmxFrom" | "dmxTo" | "value">[],
): ChannelFunction {
  const width = Math.floor((fn.dmxTo - fn.dmxFrom + 1) / Math.max(1, steps.length));
  const first = attributeInfo(fn.attribute).unit === "slot" ? 1 : 0;
  const made = steps.map((s, k): Step => ({
    ...s,
    value: first + k,
    dmxFrom: fn.dmxFrom + k * width,
    dmxTo: k === steps.length - 1 ? fn.dmxTo : fn.dmxFrom + (k + 1) * width - 1,
  }));
  return { ...fn, steps: made, from: first, to: first + made.length - 1 };
}

/** The channels in another order; those that depend on one by its place follow it. */
export function moved(channels: readonly Channel[], from: number, to: number): Channel[] {
  const order = channels.map((_, k) => k);
  order.splice(to, 0, ...order.splice(from, 1));
  const place = new Map(order.map((old, now) => [old, now]));
  return order.map((old) => {
    const { slots: _, ...channel } = channels[old]!;
    return relinked(channel, (master) => place.get(master));
  });
}

/** The channels without one; what depended on it depends on nothing. */
export const without = (channels: readonly Channel[], gone: number): Channel[] =>
  channels.flatMap(({ slots: _, ...channel }, k) =>
    k === gone
      ? []
      : [relinked(channel, (master) => (master === gone ? undefined : master > gone ? master - 1 : master))],
  );

const relinked = (channel: Channel, place: (master: number) => number | undefined): Channel => {
  const follow = <T extends { master?: Master | undefined }>({ master, ...rest }: T) => {
    const at = master && place(master.channel);
    return master && at !== undefined ? { ...rest, master: { ...master, channel: at } } : rest;
  };
  return {
    ...channel,
    functions: channel.functions.map((fn) => ({
      ...(follow(fn) as ChannelFunction),
      ...(fn.ranges ? { ranges: fn.ranges.map((r) => follow(r) as Range) } : {}),
      ...(fn.steps ? { steps: fn.steps.map((s) => follow(s) as Step) } : {}),
    })),
  };
};

/** What keeps a type from being used, in words; undefined where nothing does. */
export function draftProblem(type: FixtureType): string | undefined {
  const parsed = FixtureTypeSchema.safeParse(type);
  if (!parsed.success) {
    const issue = parsed.error.issues[0]!;
    return `${issue.path.filter((p) => typeof p === "string").join(" ")}: ${issue.message}`;
  }
  const names = type.modes.map((m) => m.name.toLowerCase());
  if (new Set(names).size < names.length) return "two modes have the same name";
  for (const mode of type.modes) {
    const wrong = modeProblem(mode);
    if (wrong) return wrong;
  }
  return undefined;
}

/** The id under which a new type comes into a show: of its maker and model. */
export function idFor(show: Pick<Show, "types">, { maker, model }: Pick<FixtureType, "maker" | "model">): string {
  const base =
    slugify(`${maker} ${model}`.replace(/[^\p{L}\p{N}]+/gu, " "), { lower: true, strict: true })
      .slice(0, 56)
      .replace(/-$/, "") || "own-type";
  let id = base;
  for (let k = 2; own(show.types, id) || libraryType(id) || id in {}; k++) id = `${base}-${k}`;
  return id;
}

/** An attribute nobody knows is told what it is. */
export const needsInfo = (attribute: string): boolean => !inTable(attribute);
