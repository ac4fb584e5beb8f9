/** Control actions of a GDTF mode: its macros, else the states of its lamp and reset channels. */
import { fromDmx } from "../../dmx/decode";
import { ACTIONS, type Action, type Channel, type ChannelFunction } from "../../fixture/type";
import { dmxValue } from "./values";
import { all, num, text, within, type Element } from "./xml";

/** A channel of the file beside the one made of it. */
interface Controlled {
  element: Element;
  geometry: string;
}

/** Macros that are called as our control actions are. */
export function macrosOf(mode: Element, placed: readonly Controlled[], channels: readonly Channel[]): Action[] {
  return within(mode, "FTMacros", "FTMacro").flatMap((macro): Action[] => {
    const does = ACTIONS.find((a) => a === text(macro, "Name").toLowerCase());
    const step = within(macro, "MacroDMX", "MacroDMXStep")[0];
    const value = all(step, "MacroDMXValue")[0];
    const link = text(value, "DMXChannel");
    const k = placed.findIndex(
      (p) => `${p.geometry}_${text(all(p.element, "LogicalChannel")[0], "Attribute")}` === link,
    );
    const dmx = k >= 0 ? dmxValue(text(value, "Value"), channels[k]!.bytes) : undefined;
    const fn = dmx === undefined ? undefined : channels[k]!.functions.find((f) => dmx >= f.dmxFrom && dmx <= f.dmxTo);
    if (!does || !fn) return [];
    return [
      {
        does,
        attribute: fn.attribute,
        value: fromDmx(fn, dmx!),
        seconds: Math.min(600, Math.max(0, num(step, "Duration") ?? 1)),
      },
    ];
  });
}

/** Held this long where nothing says how long, seconds. */
const SAFE_SECONDS = 5;
/** The whole fixture, not a part of it. */
const WHOLE = /^(fixture|global|full|total|master|complete|all)?\s*reset(\s*(fixture|global|full|total|all))?\b/i;
const CALLED: readonly (readonly [does: Action["does"], called: RegExp])[] = [
  ["lamp off", /lamp[^a-z]*off|douse|extinguish/i],
  ["lamp on", /lamp[^a-z]*on\b|ignite|strike/i],
  ["reset", WHOLE],
];

/** "(5 s)", "hold 3s" in the name of a state. */
const secondsIn = (name: string): number | undefined => {
  const found = /(\d{1,3}(?:\.\d)?)\s*s(?:ec(?:onds?)?)?\b/i.exec(name);
  return found ? Number(found[1]) : undefined;
};

/** What a state of a function does, by its attribute and its name; undefined where it is no control action. */
function doneBy({ attribute }: ChannelFunction, name: string): Action["does"] | undefined {
  if (/^FixtureGlobalReset/.test(attribute)) return /^(no|idle|unused|off)\b/i.test(name) ? undefined : "reset";
  if (/^Lamp(Control|PowerMode)/.test(attribute)) {
    if (/off/i.test(name)) return "lamp off";
    if (/\bon\b/i.test(name)) return "lamp on";
  }
  return /^(Control|Function|Lamp|NoFeature|Fixture)/.test(attribute) || /Reset$/.test(attribute)
    ? CALLED.find(([, called]) => called.test(name))?.[0]
    : undefined;
}

const statesOf = ({ steps, ranges }: ChannelFunction): { name: string; value: number }[] => [
  ...(steps ?? []),
  ...(ranges ?? []).flatMap(({ name, from, to }) => (from === to ? [{ name, value: from }] : [])),
];

/** Each action once: as a macro says it, else the first state that does it. */
export function actionsOf(macros: readonly Action[], channels: readonly Channel[]): Action[] {
  const found = new Map(macros.map((action) => [action.does, action]));
  for (const fn of channels.flatMap((c) => c.functions))
    for (const { name, value } of statesOf(fn)) {
      const does = doneBy(fn, name);
      if (does && !found.has(does))
        found.set(does, {
          does,
          attribute: fn.attribute,
          value,
          seconds: Math.min(600, secondsIn(name) ?? SAFE_SECONDS),
        });
    }
  return [...found.values()];
}
