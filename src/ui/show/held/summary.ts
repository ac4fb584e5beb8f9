/** What the programmer shows of the selection: each attribute, its values on stage and where they come from. */
import { attributeInfo, attributesKnown, FAMILIES, type Family } from "@/core/fixture/attribute";
import { targetsByAttribute, type Target } from "@/core/show/model";
import { rangeOf } from "@/core/fixture/parameters";
import type { Step } from "@/core/fixture/type";
import { splitItem, type Item, type ParamIndex } from "@/core/show/ids";
import type { Entry } from "@/core/show/value";
import type { World } from "@/core/show/world";
import { atOnce } from "@/core/units/steps";
import { plain } from "@/core/units/units";
import { SOURCE_PROGRAMMER, type Half } from "@/engine/frame";
import { functionsOf } from "@/engine/layout";
import type { StageView } from "@/engine/view";
import { attributesIn } from "./heldIn";
import { attributesMarkedIn, effectMark, entriesAt, paletteIn, paletteMark } from "./standing";
import type { Form } from "@/ui/base/parts/ValueRow";

export interface AttributeRow {
  attribute: string;
  label: string;
  low: number;
  high: number;
  min: number;
  max: number;
  text: string;
  form: Form;
  source: string;
  time?: string;
  /** The palette all of it comes from. */
  palette?: string;
  /** Of how many of the selected it is, where not of all: "16 of 28". */
  only?: string;
  /** Slots or states, where it has them. */
  steps?: readonly Step[];
}

export interface FamilyRows {
  family: Family;
  /** The palette all of it that is in use comes from. */
  palette?: string;
  source: string;
  rows: AttributeRow[];
}

/** Targets that not all of the selected have: of how many they are. */
const partly = new WeakMap<readonly Target[], string>();

/** Which of the selected items targets are of. */
const owners = new WeakMap<readonly Target[], { items: readonly Item[]; of: readonly number[] }>();

let last: { show: World["show"]; items: readonly Item[]; found: Map<string, Target[]> } | undefined;

/** The attributes the selected items have, each with its targets. Asked again and again for the same thousands. */
export const attributesOf = (world: World, items: readonly Item[]): Map<string, Target[]> =>
  atOnce(attributesInSteps(world, items));

function* attributesInSteps({ show }: World, items: readonly Item[]): Generator<void, Map<string, Target[]>> {
  if (last?.items === items && last.show.fixtures === show.fixtures && last.show.types === show.types)
    return last.found;
  const found = new Map<string, Target[]>();
  const all = yield* targetsByAttribute(show, items);
  for (const { name } of attributesKnown()) {
    const of = all.get(name);
    if (!of || name === "Control1") continue;
    found.set(name, of.targets);
    owners.set(of.targets, { items, of: of.of });
    const having = new Set(of.of).size;
    if (having < items.length) partly.set(of.targets, `${having} of ${items.length}`);
  }
  last = { show, items, found };
  return found;
}

/** What a summary needs of the selection besides the frame, worked out in steps of some milliseconds and kept. */
export function* prepareSummary(world: World, view: StageView): Generator<void, void> {
  for (const [attribute, targets] of yield* attributesInSteps(world, world.hands.selection)) {
    placesOf(targets, attribute, view);
    yield;
    heldOf(world, attribute, targets);
    yield;
  }
}

export function valueText(low: number, high: number, attribute: string, target: Target): string {
  const { unit } = attributeInfo(attribute);
  const step = target.fn.steps?.find((s) => s.value === low);
  if (low === high && step) return step.name;
  const places = unit === "Hz" || unit === "rpm" || unit === "%" || unit === "°" ? 1 : 2;
  const one = (v: number) => (unit === "%" || unit === "°" ? v.toFixed(places) : plain(v, places));
  const suffix = unit === "slot" || unit === "state" || unit === "" ? "" : unit === "°" ? "°" : ` ${unit}`;
  return low === high ? `${one(low)}${suffix}` : `${plain(low, 0)} … ${plain(high, 0)}${suffix}`;
}

/** Where targets are in the frame, and when they are what is looked at. */
interface Places {
  /** -1 where there is none. */
  param: Int32Array;
  /** The function of the channel that is the attribute, -1 where several are. */
  fn: Int16Array;
}

const places = new WeakMap<readonly Target[], { index: StageView["index"]; of: Places }>();

let firsts: { items: readonly Item[]; index: ParamIndex; at: Int32Array } | undefined;

/** Where the parameters of each item's fixture begin; -1 where the frame has none. */
function firstsOf(items: readonly Item[], index: ParamIndex): Int32Array {
  if (firsts?.items === items && firsts.index === index) return firsts.at;
  const at = Int32Array.from(items, (i) => index.of!(splitItem(i).fixture)?.first ?? -1);
  firsts = { items, index, at };
  return at;
}

/** Looked up once for thousands. */
function placesOf(targets: readonly Target[], attribute: string, { index, layout }: StageView): Places {
  const known = places.get(targets);
  if (known?.index === index) return known.of;
  const owner = index.of && owners.get(targets);
  const starts = owner && firstsOf(owner.items, index);
  const param = Int32Array.from(targets, ({ key, spec }, k) => {
    if (!starts) return index.get(key) ?? -1;
    const first = starts[owner.of[k]!]!;
    return first < 0 ? -1 : first + spec.place;
  });
  const functions = functionsOf(layout);
  const own = new Map<readonly string[], number>();
  const fn = Int16Array.from(param, (p) => {
    const names = p < 0 ? NONE : functions[p]!;
    let at = own.get(names);
    if (at === undefined) {
      at = names.indexOf(attribute);
      if (at !== names.lastIndexOf(attribute)) at = -1;
      own.set(names, at);
    }
    return at;
  });
  places.set(targets, { index, of: { param, fn } });
  return { param, fn };
}
const NONE: readonly string[] = [];

/** Whether what is told of two entries, the palette or the effect, is the same: neither has one, or they are one object. */
const isSameMark = (a: Entry | undefined, b: Entry | undefined): boolean =>
  a === b || (!a?.effect && !b?.effect && typeof a?.value !== "object" && typeof b?.value !== "object");

interface HeldOf {
  count: number;
  /** Own times, in words. */
  times: ReadonlySet<string>;
}
const NOT_HELD: HeldOf = { count: 0, times: new Set() };
const heldKnown = new WeakMap<World["hands"]["held"], WeakMap<readonly Target[], HeldOf>>();

/** How many of targets hold the attribute; gone through once for each version of what is held. */
function heldOf({ hands: { held } }: World, attribute: string, targets: readonly Target[]): HeldOf {
  if (!attributesIn(held).has(attribute)) return NOT_HELD;
  let known = heldKnown.get(held);
  if (!known) heldKnown.set(held, (known = new WeakMap()));
  const found = known.get(targets);
  if (found) return found;
  const times = new Set<string>();
  let count = 0;
  for (const { key } of targets) {
    const entry = held[key];
    if (entry?.attribute !== attribute) continue;
    count += 1;
    const { delay, fade } = entry.time ?? {};
    if (entry.time)
      times.add(
        [delay !== undefined && `delay ${plain(delay)}`, fade !== undefined && `fade ${plain(fade)}`]
          .filter(Boolean)
          .join(" "),
      );
  }
  const made = { count, times };
  known.set(targets, made);
  return made;
}

function rowOf(
  world: World,
  attribute: string,
  targets: readonly Target[],
  half: Half,
  view: StageView,
): AttributeRow | undefined {
  let low = Infinity;
  let high = -Infinity;
  let unused = false;
  const sources = new Set<string>();
  const palettes = new Set<string>();
  // Thousands come from one source, with one value: it is put in words once.
  let lastSource = NaN;
  let lastCue = NaN;
  let entries: ReturnType<typeof entriesAt>;
  let told: Entry | undefined | null = null;
  const { param, fn } = placesOf(targets, attribute, view);
  for (let k = 0; k < targets.length; k++) {
    const p = param[k]!;
    if (p < 0) continue;
    const now = half.fn[p]!;
    const here = fn[k]! >= 0 ? fn[k] === now : functionsOf(view.layout)[p]![now] === attribute;
    if (!here) {
      if (attribute !== targets[k]!.spec.head) {
        if (low > 0) low = 0;
        if (high < 0) high = 0;
      }
      unused = true;
      continue;
    }
    const raw = half.raw[p]!;
    if (raw < low) low = raw;
    if (raw > high) high = raw;
    const source = half.source[p]!;
    const cue = half.cue[p]!;
    const isLast = source === lastSource && cue === lastCue;
    if (isLast && entries === undefined) continue;
    if (!isLast) {
      [lastSource, lastCue, told] = [source, cue, null];
      const there = entriesAt(world, source, cue);
      entries = there && attributesMarkedIn(there).has(attribute) ? there : undefined;
      sources.add(sourceText(world, source, cue));
    }
    const from = entries?.[targets[k]!.key];
    if (told !== null && isSameMark(told, from)) continue;
    told = from;
    const palette = paletteIn(world.show, from);
    palettes.add(effectMark(world.show, from?.effect) ?? (palette ? paletteMark(palette) : ""));
  }
  if (unused) {
    palettes.add("");
    sources.add("not in use");
  }
  if (low === Infinity) [low, high] = [0, 0];
  const target = targets[0]!;
  const [min, max] = rangeOf(target.fn);
  const source = sources.size === 1 ? [...sources][0]! : "several sources";
  const { count, times } = heldOf(world, attribute, targets);
  return {
    attribute,
    label: attributeInfo(attribute).label,
    low,
    high,
    min,
    max,
    text: valueText(low, high, attribute, target),
    form: count > 0 ? "held" : source === "default" || source === "not in use" ? "default" : "list",
    source: count > 0 ? (count === targets.length ? "held" : `held for ${count} of ${targets.length}`) : source,
    ...(palettes.size === 1 && !palettes.has("") ? { palette: [...palettes][0]! } : {}),
    ...(target.fn.steps ? { steps: target.fn.steps } : {}),
    ...(partly.has(targets) ? { only: partly.get(targets)! } : {}),
    ...(times.size ? { time: times.size === 1 ? `${[...times][0]!} s` : "several" } : {}),
  };
}

/** "cue 12", with the list where it is not the armed one. */
export function sourceText({ show, hands }: World, source: number, cue: number): string {
  if (source === SOURCE_PROGRAMMER) return "held";
  if (source < 0) return "default";
  for (const list of Object.values(show.lists)) {
    const found = list.cues[`c${cue}`];
    if (found) return `cue ${found.number}${list.id === hands.armed ? "" : ` of ${list.name}`}`;
  }
  return "a list";
}

function ofOnePalette(rows: readonly AttributeRow[]): { palette?: string } {
  const used = rows.filter((r) => r.form !== "default");
  const names = new Set(used.map((r) => r.palette));
  const [name] = names;
  return names.size === 1 && name ? { palette: name } : {};
}

export function summarise(world: World, half: Half, view: StageView): FamilyRows[] {
  const rows = [...attributesOf(world, world.hands.selection)].flatMap(
    ([attribute, targets]) => rowOf(world, attribute, targets, half, view) ?? [],
  );
  return FAMILIES.flatMap((family) => {
    const all = rows.filter((r) => attributeInfo(r.attribute).family === family);
    if (all.length === 0) return [];
    // What all of the selected share comes first.
    const own = [...all.filter((r) => !r.only), ...all.filter((r) => r.only)];
    const sources = new Set(own.filter((r) => r.source !== "not in use").map((r) => r.source));
    return [
      {
        family,
        rows: own,
        ...ofOnePalette(own),
        source: own.some((r) => r.form === "held") ? "held" : sources.size === 1 ? [...sources][0]! : "several sources",
      },
    ];
  });
}
