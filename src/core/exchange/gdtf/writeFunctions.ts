/** The functions of a channel as a GDTF file has them: one for each range, sets for states, and what is unused. */
import { attributeInfo } from "../../fixture/attribute";
import { sameMaster, type ChannelFunction, type Master, type Step } from "../../fixture/type";
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
  /** Its states that are written as channel sets. */
  steps: readonly Step[];
  /** What it hangs on. */
  master: Master | undefined;
}

/** A function as the file's functions: one for each of its ranges, and for each state that sends a value of its own. @param k its place in the channel. */
export function partsOf(fn: ChannelFunction, k: number): FunctionPart[] {
  const name = `${fn.attribute} ${k + 1}`;
  const { steps = [] } = fn;
  if (isWheel(fn) && steps.some((s) => s.master)) return wheelsOf(fn, steps, name);
  const apart =
    fn.ranges ??
    (!isWheel(fn) && steps.some((s) => s.sends !== undefined || s.master)
      ? steps.map((s) => ({ ...s, from: s.value, to: s.value }))
      : undefined);
  return (
    apart?.map((r, i): FunctionPart => ({
      name: r.name && apart.findIndex((o) => o.name === r.name) === i ? r.name : `${name} ${i + 1}`,
      from: r.dmxFrom,
      to: r.dmxTo,
      physical: [r.from, r.to],
      sends: r.sends ?? (r.from === r.to ? Math.floor((r.dmxFrom + r.dmxTo) / 2) : r.dmxFrom),
      steps: [],
      master: ("master" in r ? r.master : undefined) ?? fn.master,
    })) ?? [
      {
        name,
        from: fn.dmxFrom,
        to: fn.dmxTo,
        physical: [fn.from, fn.to],
        sends: fn.dmxFrom,
        steps,
        master: fn.master,
      },
    ]
  );
}

/** A wheel whose slots hang on different masters: a function for each of them. */
function wheelsOf(fn: ChannelFunction, steps: readonly Step[], name: string): FunctionPart[] {
  const masters = steps.flatMap((s, i) => (steps.findIndex((o) => sameMaster(o.master, s.master)) === i ? [s] : []));
  return masters.map(({ master }, i): FunctionPart => {
    const own = steps.filter((s) => sameMaster(s.master, master));
    const [from, to] = [Math.min(...own.map((s) => s.dmxFrom)), Math.max(...own.map((s) => s.dmxTo))];
    return {
      name: `${name} ${i + 1}`,
      from,
      to,
      physical: [own[0]!.value, own.at(-1)!.value],
      sends: from,
      steps: own,
      master: master ?? fn.master,
    };
  });
}

export function physicalOf(fn: ChannelFunction, [from, to]: FunctionPart["physical"]): object {
  const unit = (fn.info ?? attributeInfo(fn.attribute)).unit;
  return { "@PhysicalFrom": toPhysical(unit, from), "@PhysicalTo": toPhysical(unit, to) };
}

/** The steps of a part of a function, and unnamed sets over what lies between them. */
export function setsOf(fn: ChannelFunction, part: FunctionPart, at: (value: number) => string): object[] {
  const slots = isWheel(fn);
  const steps = [...part.steps].sort((a, b) => a.dmxFrom - b.dmxFrom);
  return steps.flatMap((step, k) => {
    const next = steps[k + 1]?.dmxFrom ?? part.to + 1;
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

/** A part of a function beside what it hangs on, as its file says it. */
interface Placed {
  part: FunctionPart;
  /** ModeMaster, ModeFrom and ModeTo. */
  hangs: object;
}

/** What of a channel does nothing is said too, so that what lies before it ends there: for each thing its functions hang on. */
export function gapsOf(parts: readonly Placed[], most: number, at: (value: number) => string): object[] {
  const masters = parts.filter(({ part }, i) => parts.findIndex((o) => sameMaster(o.part.master, part.master)) === i);
  const gaps = masters.flatMap(({ part, hangs }) => {
    const own = parts.flatMap((o) => (sameMaster(o.part.master, part.master) ? [o.part] : []));
    return between(own, most).map((from) => ({ from, hangs }));
  });
  return gaps.map(({ from, hangs }, k) => ({
    "@Name": `Unused ${k + 1}`,
    "@Attribute": "NoFeature",
    "@DMXFrom": at(from),
    "@Default": at(from),
    "@PhysicalFrom": 0,
    "@PhysicalTo": 0,
    ...hangs,
  }));
}

/** Where none of the parts lies: the first value of each gap. */
function between(parts: readonly FunctionPart[], most: number): number[] {
  const gaps: number[] = [];
  let end = -1;
  for (const { from, to } of [...parts].sort((a, b) => a.from - b.from)) {
    if (from > end + 1) gaps.push(end + 1);
    end = Math.max(end, to);
  }
  return end < most ? [...gaps, end + 1] : gaps;
}
