/** What a cell of the values sheet says: the value on stage, where it comes from, or its own timing. */
import { targetsOf } from "@/core/show/model";
import type { World } from "@/core/show/world";
import { plain } from "@/core/units/units";
import type { Half } from "@/engine/frame";
import { functionsOf } from "@/engine/layout";
import type { StageView } from "@/engine/view";
import { sourceText, valueText } from "@/ui/show/held/summary";
import { effectMarkAt, paletteAt, paletteMark } from "@/ui/show/held/standing";

export const LAYERS = ["value", "source", "timing"] as const;
export type Layer = (typeof LAYERS)[number];

export interface Cell {
  text: string;
  form: "held" | "out" | "list" | "default" | "none";
}

const NONE: Cell = { text: "", form: "none" };

/** A cell now. A celled attribute is told by its lowest and highest. */
export function cellOf(
  world: World,
  half: Half,
  view: StageView,
  id: string,
  attribute: string,
  layer: Layer,
  names = false,
): Cell {
  const targets = targetsOf(world.show, id, attribute);
  const first = targets[0];
  if (!first) return NONE;
  const { held, keptOut } = world.hands;
  let [low, high] = [Infinity, -Infinity];
  let entry: (typeof held)[string] | undefined;
  let source = "";
  let listed = false;
  let palette: string | undefined;
  let effect: string | undefined;
  for (const { key } of targets) {
    const p = view.index.get(key);
    if (p === undefined || functionsOf(view.layout)[p]![half.fn[p]!] !== attribute) continue;
    low = Math.min(low, half.raw[p]!);
    high = Math.max(high, half.raw[p]!);
    entry ??= held[key];
    source ||= sourceText(world, half.source[p]!, half.cue[p]!);
    listed ||= half.source[p]! >= 0;
    effect ??= effectMarkAt(world, key, half.source[p]!, half.cue[p]!);
    if (names && palette === undefined) {
      const found = paletteAt(world, key, half.source[p]!, half.cue[p]!);
      palette = found ? paletteMark(found) : "";
    }
  }
  const form = entry ? (keptOut[first.key] ? "out" : "held") : listed ? "list" : "default";
  if (low === Infinity) return { text: "–", form: "default" };
  if (layer === "source") return { text: source, form };
  if (layer === "timing") {
    const { delay, fade } = entry?.time ?? {};
    const parts = [delay !== undefined && `+${plain(delay)}`, fade !== undefined && `${plain(fade)} s`];
    return { text: parts.filter(Boolean).join(" "), form };
  }
  if (effect) return { text: names ? effect : `∿ ${valueText(low, high, attribute, first)}`, form };
  return { text: palette || valueText(low, high, attribute, first), form };
}

/** The value of an attribute on stage, in its unit: the first of a celled one. Undefined where it is not in use. */
export function numberOf(world: World, half: Half, view: StageView, id: string, attribute: string): number | undefined {
  for (const { key } of targetsOf(world.show, id, attribute)) {
    const p = view.index.get(key);
    if (p !== undefined && functionsOf(view.layout)[p]![half.fn[p]!] === attribute) return half.raw[p]!;
  }
  return undefined;
}
