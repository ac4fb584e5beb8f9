/** The states of a GDTF function: its channel sets, slots of wheels, and functions that are one state as a whole. */
import type { ChannelFunction, Step } from "../../fixture/type";
import { colourOf, dmxValue, hexOfColour } from "./values";
import { all, num, text, type Element } from "./xml";

/** What a type says beside its modes. */
export interface Lookups {
  attributes: ReadonlyMap<string, Element>;
  wheels: ReadonlyMap<string, Element>;
  emitters: ReadonlyMap<string, Element>;
  filters: ReadonlyMap<string, Element>;
  /** The pictures there are, by name. */
  pictures: ReadonlySet<string>;
}

/** Of a function: more are read than are kept, as those without a name do not count. */
const MOST_SETS = 2048;
/** What the name of a function of a shutter says of it. */
export const saidBy = (attribute: string, name: string): number | undefined =>
  /^Shutter\d+$/.test(attribute) ? shutterCalled(name) : undefined;

/** A function that is one state: it sends the function's own default, where the file gives one. */
export function wholeState(
  { dmxFrom, dmxTo }: ChannelFunction,
  name: string,
  value: number,
  own: number | undefined,
): Step {
  const sends = own !== undefined && own >= dmxFrom && own <= dmxTo ? { sends: own } : {};
  return { value, name: name.slice(0, 80), dmxFrom, dmxTo, ...sends };
}

/** Stepped functions go from their least to their greatest value. */
export function ends(fn: ChannelFunction): void {
  const values = fn.steps!.map((s) => s.value);
  fn.from = Math.min(...values);
  fn.to = Math.max(...values);
  fn.steps!.sort((a, b) => a.value - b.value);
}

export function stepsOf(
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
export function filterOf(name: string, { filters }: Lookups): ReturnType<typeof colourOf> {
  const found = name === "" ? undefined : filters.get(name);
  return found && colourOf(text(found, "Color"));
}
