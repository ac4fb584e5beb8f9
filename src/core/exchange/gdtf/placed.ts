/** Channels of a GDTF mode at the places of their geometry: in which order their slots lie, which are cells, and where. */
import type { Channel, Mode } from "../../fixture/type";
import { NOTHING, type ReadFunction } from "./functions";
import type { Instance } from "./geometry";
import type { Element } from "./xml";

export interface Placed {
  element: Element;
  instance: Instance;
  geometry: string;
  slots: number[];
  functions: ReadFunction[];
  cell: number;
  /** DMX at rest, where the file says it. */
  rest?: number;
}

/** Lays DMX breaks one after another. @returns how many slots lie before the second and each further one. */
export function inBreaks(placed: readonly Placed[]): number[] {
  const lengths = new Map<number, number>();
  for (const { slots } of placed)
    for (const s of slots)
      lengths.set(
        Math.floor((s - 1) / 1000),
        Math.max(lengths.get(Math.floor((s - 1) / 1000)) ?? 0, ((s - 1) % 1000) + 1),
      );
  const starts = new Map<number, number>();
  let start = 0;
  for (const b of [...lengths.keys()].sort((x, y) => x - y)) {
    starts.set(b, start);
    start += lengths.get(b)!;
  }
  for (const p of placed) p.slots = p.slots.map((s) => starts.get(Math.floor((s - 1) / 1000))! + ((s - 1) % 1000) + 1);
  return [...starts.values()].slice(1, 16);
}

/** What a channel is there for: its first function that does something. */
const attributeOf = (p: Placed): string =>
  p.functions.find((f) => f.fn.attribute !== NOTHING)?.fn.attribute ?? "Reserved";

/** Parts that share an attribute with another are cells, but for what they hang on. */
export function numberCells(placed: readonly Placed[]): void {
  const byAttribute = new Map<string, Placed[]>();
  for (const p of placed) byAttribute.set(attributeOf(p), [...(byAttribute.get(attributeOf(p)) ?? []), p]);
  const cells = new Set<string>();
  for (const own of byAttribute.values()) {
    const keys = new Set(own.map((p) => p.instance.key));
    if (keys.size < 2) continue;
    // What another of them hangs on is no cell.
    const holding = new Set(own.flatMap((o) => o.instance.above));
    for (const p of own) {
      const holds = holding.has(p.instance.key);
      if (!holds && attributeOf(p) !== "Reserved") cells.add(p.instance.key);
    }
  }
  const firsts = new Map<string, number>();
  for (const { instance, slots } of placed)
    firsts.set(instance.key, Math.min(firsts.get(instance.key) ?? Infinity, ...slots));
  const order = [...cells].sort((a, b) => firsts.get(a)! - firsts.get(b)!);
  const number = new Map(order.map((key, k) => [key, k + 1]));
  for (const p of placed) p.cell = number.get(p.instance.key) ?? 0;
}
/** Cells less than this apart lie on each other, metres: then nobody has measured them. */
const APART = 0.005;

/** Where cells are; undefined where they all lie on each other. */
export function placesOfCells(placed: readonly Placed[], cells: number): Mode["places"] {
  const firsts = new Map([...placed].reverse().map((p) => [p.cell, p.instance.at]));
  const places = Array.from({ length: cells }, (_, k) => firsts.get(k + 1)!);
  const [first] = places;
  const far = (value: number) => value < -100 || value > 100;
  if (!first || places.some((at) => at.some(far))) return undefined;
  return places.some((at) => at.some((v, axis) => Math.abs(v - first[axis]!) > APART)) ? places : undefined;
}

/** Where channels follow each other their slots need not be said. */
export function natural(channels: Channel[]): void {
  let next = 1;
  const follows = channels.every(({ slots }) => slots!.every((s) => s === next++));
  if (follows) for (const channel of channels) delete channel.slots;
}
