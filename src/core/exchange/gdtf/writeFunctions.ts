/** The functions of a channel as a GDTF file has them: one for each range, sets for states, and what is unused. */
import { attributeInfo } from "../../fixture/attribute";
import { mastersOf, type Channel, type ChannelFunction, type Master } from "../../fixture/type";
import { toPhysical } from "./units";

export const isWheel = (fn: ChannelFunction): boolean =>
  fn.steps !== undefined && attributeInfo(fn.attribute).unit === "slot";

interface FunctionPart {
  name: string;
  from: number;
  to: number;
  physical: readonly [number, number];
  /** What it sends when it is chosen. */
  sends: number;
  /** Whether its states are written as channel sets. */
  sets: boolean;
  /** What it hangs on. */
  master: Master | undefined;
}

/** A function as the file's functions: one for each of its ranges, and for each state that sends a value of its own. @param k its place in the channel. */
export function partsOf(fn: ChannelFunction, k: number): FunctionPart[] {
  const name = `${fn.attribute} ${k + 1}`;
  const apart =
    fn.ranges ??
    (!isWheel(fn) && fn.steps?.some((s) => s.sends !== undefined)
      ? fn.steps.map((s) => ({ ...s, from: s.value, to: s.value }))
      : undefined);
  return (
    apart?.map((r, i): FunctionPart => ({
      name: r.name && apart.findIndex((o) => o.name === r.name) === i ? r.name : `${name} ${i + 1}`,
      from: r.dmxFrom,
      to: r.dmxTo,
      physical: [r.from, r.to],
      sends: r.sends ?? (r.from === r.to ? Math.floor((r.dmxFrom + r.dmxTo) / 2) : r.dmxFrom),
      sets: false,
      master: ("master" in r ? r.master : undefined) ?? fn.master,
    })) ?? [
      {
        name,
        from: fn.dmxFrom,
        to: fn.dmxTo,
        physical: [fn.from, fn.to],
        sends: fn.dmxFrom,
        sets: true,
        master: fn.master,
      },
    ]
  );
}

export function physicalOf(fn: ChannelFunction, [from, to]: FunctionPart["physical"]): object {
  const unit = (fn.info ?? attributeInfo(fn.attribute)).unit;
  return { "@PhysicalFrom": toPhysical(unit, from), "@PhysicalTo": toPhysical(unit, to) };
}

/** The steps of a function, and unnamed sets over what lies between them. */
export function setsOf(fn: ChannelFunction, at: (value: number) => string): object[] {
  const slots = isWheel(fn);
  const steps = [...(fn.steps ?? [])].sort((a, b) => a.dmxFrom - b.dmxFrom);
  return steps.flatMap((step, k) => {
    const next = steps[k + 1]?.dmxFrom ?? fn.dmxTo + 1;
    const set = {
      "@Name": step.name,
      "@DMXFrom": at(step.dmxFrom),
      "@PhysicalFrom": step.value,
      "@PhysicalTo": step.value,
      "@WheelSlotIndex": slots ? step.value : 0,
    };
    return step.dmxTo + 1 < next ? [set, { "@Name": "", "@DMXFrom": at(step.dmxTo + 1), "@WheelSlotIndex": 0 }] : [set];
  });
}

/** What of a channel does nothing is said too, so that what lies before it ends there. */
export function gapsOf(channel: Channel, at: (value: number) => string): object[] {
  const most = 256 ** channel.bytes - 1;
  if (channel.functions.some((f) => mastersOf(f).length > 0)) return [];
  const sorted = channel.functions
    .flatMap((fn, k) => partsOf(fn, k).map((part) => ({ dmxFrom: part.from, dmxTo: part.to })))
    .sort((a, b) => a.dmxFrom - b.dmxFrom);
  const gaps: number[] = [];
  let end = -1;
  for (const fn of sorted) {
    if (fn.dmxFrom > end + 1) gaps.push(end + 1);
    end = Math.max(end, fn.dmxTo);
  }
  if (end < most) gaps.push(end + 1);
  return gaps.map((from, k) => ({
    "@Name": `Unused ${k + 1}`,
    "@Attribute": "NoFeature",
    "@DMXFrom": at(from),
    "@Default": at(from),
    "@PhysicalFrom": 0,
    "@PhysicalTo": 0,
  }));
}
