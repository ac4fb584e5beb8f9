/** What the programmer shows of the selection: each attribute, its values on stage and where they come from. */
import { attributeInfo, attributesKnown, FAMILIES, type Family } from "@/core/fixture/attribute";
import { targetsOf, type Target } from "@/core/show/model";
import { rangeOf } from "@/core/fixture/parameters";
import type { Step } from "@/core/fixture/type";
import type { Item } from "@/core/show/ids";
import type { Entry } from "@/core/show/value";
import type { World } from "@/core/show/world";
import { plain } from "@/core/units/units";
import { SOURCE_PROGRAMMER, type Half } from "@/engine/frame";
import type { StageView } from "@/engine/view";
import { attributesIn } from "../palettes/heldIn";
import { attributesMarkedIn, effectMark, entriesAt, paletteIn, paletteMark } from "../palettes/standing";
import type { Form } from "../parts/ValueRow";

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

let last: { show: World["show"]; items: readonly Item[]; found: Map<string, Target[]> } | undefined;

/** The attributes the selected items have, each with its targets. Asked again and again for the same thousands. */
export function attributesOf({ show }: World, items: readonly Item[]): Map<string, Target[]> {
  if (last?.items === items && last.show.fixtures === show.fixtures && last.show.types === show.types)
    return last.found;
  const found = new Map<string, Target[]>();
  const names = new Set(
    items
      .flatMap((i) => show.fixtures[i.split(".")[0]!]?.type ?? [])
      .flatMap((type) =>
        show.types[type]!.modes.flatMap((m) => m.channels.flatMap((c) => c.functions.map((f) => f.attribute))),
      ),
  );
  names.add("Dimmer");
  for (const { name } of attributesKnown()) {
    if (!names.has(name) || name === "Control1") continue;
    const targets = items.flatMap((i) => targetsOf(show, i, name));
    if (targets.length > 0) found.set(name, targets);
  }
  last = { show, items, found };
  return found;
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

const params = new WeakMap<readonly Target[], { index: StageView["index"]; of: Int32Array }>();

/** The place of each target in the frame, -1 where it has none: looked up once for thousands. */
function paramsOf(targets: readonly Target[], { index }: StageView): Int32Array {
  const known = params.get(targets);
  if (known?.index === index) return known.of;
  const of = Int32Array.from(targets, (t) => index.get(t.key) ?? -1);
  params.set(targets, { index, of });
  return of;
}

/** Whether what is told of two entries, the palette or the effect, is the same: neither has one, or they are one object. */
const isSameMark = (a: Entry | undefined, b: Entry | undefined): boolean =>
  a === b || (!a?.effect && !b?.effect && typeof a?.value !== "object" && typeof b?.value !== "object");

function rowOf(
  world: World,
  attribute: string,
  targets: readonly Target[],
  half: Half,
  view: StageView,
): AttributeRow | undefined {
  let [low, high] = [Infinity, -Infinity];
  let held = 0;
  let unused = false;
  const times = new Set<string>();
  const sources = new Set<string>();
  const palettes = new Set<string>();
  // Thousands come from one source, with one value: it is put in words once.
  let last: [source: number, cue: number, entries: ReturnType<typeof entriesAt>] | undefined;
  let told: Entry | undefined | null = null;
  const params = paramsOf(targets, view);
  const anyHeld = attributesIn(world.hands.held).has(attribute);
  for (let k = 0; k < targets.length; k++) {
    const p = params[k]!;
    if (p < 0) continue;
    const { key, spec } = targets[k]!;
    const active = view.layout.attributes[p]![half.fn[p]!];
    const entry = anyHeld ? world.hands.held[key] : undefined;
    const here = active === attribute;
    const raw = here ? half.raw[p]! : attribute === spec.head ? NaN : 0;
    if (raw < low) low = raw;
    if (raw > high) high = raw;
    if (entry?.attribute === attribute) {
      held += 1;
      if (entry.time)
        times.add(
          [
            entry.time.delay !== undefined && `delay ${plain(entry.time.delay)}`,
            entry.time.fade !== undefined && `fade ${plain(entry.time.fade)}`,
          ]
            .filter(Boolean)
            .join(" "),
        );
    }
    if (!here) {
      unused = true;
      continue;
    }
    const [source, cue] = [half.source[p]!, half.cue[p]!];
    if (last?.[0] !== source || last[1] !== cue) {
      const entries = entriesAt(world, source, cue);
      last = [source, cue, entries && attributesMarkedIn(entries).has(attribute) ? entries : undefined];
      sources.add(sourceText(world, source, cue));
      told = null;
    }
    const from = last[2]?.[key];
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
  return {
    attribute,
    label: attributeInfo(attribute).label,
    low,
    high,
    min,
    max,
    text: valueText(low, high, attribute, target),
    form: held > 0 ? "held" : source === "default" || source === "not in use" ? "default" : "list",
    source: held > 0 ? (held === targets.length ? "held" : `held for ${held} of ${targets.length}`) : source,
    ...(palettes.size === 1 && !palettes.has("") ? { palette: [...palettes][0]! } : {}),
    ...(target.fn.steps ? { steps: target.fn.steps } : {}),
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
    const own = rows.filter((r) => attributeInfo(r.attribute).family === family);
    if (own.length === 0) return [];
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
