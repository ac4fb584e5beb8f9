/** Fixtures that become another type, with all that is stored of them (SEMANTICS 1: values are in real units). */
import { libraryType } from "../fixture/library/library";
import { modeOf } from "../fixture/parameters";
import { footprint, wantsVirtualDimmer, type FixtureType, type Mode } from "../fixture/type";
import { resolveEntry } from "../program/resolve";
import { whyNot } from "../patch/clash";
import { addressText, autoAddresses, inTheWay, fits, occupancyOf, occupy } from "../show/address";
import type { Hands } from "../show/hands";
import { splitKey, type Id, type ParamKey } from "../show/ids";
import { modelOf, specOf } from "../show/model";
import type { Palette } from "../show/paletteSchema";
import { own } from "../show/own";
import { fail } from "../show/refusal";
import type { Address, CueList, Show } from "../show/schema";
import { isLink, type Entry } from "../show/value";
import { cuesOf } from "../show/world";
import { inForceAt, trackingOf } from "../cue/tracking";
import { converted } from "./convert";
import { type Fate, type Standing, type Swapping } from "./way";
import { sideOf, type Side } from "./sides";

export interface SwapRequest {
  fixtures: readonly Id[];
  type: string;
  mode?: string | undefined;
  /** Keep: where it fits at its address it stays, else it gets the first free run. */
  at: "keep" | "auto" | "unpatched" | Address;
}

/** What becomes of one attribute in all that is stored. */
export interface FateRow {
  attribute: string;
  kind: Fate["kind"];
  /** In so many entries. */
  entries: number;
  how: string[];
  /** The farthest off a colour is, in u'v'. */
  off: number;
}

export interface Swapped {
  show: Show;
  hands: Hands;
  rows: FateRow[];
  /** Fixtures that had to go to another address. */
  moved: { number: number; from: string; to: string }[];
  type: FixtureType;
  mode: Mode;
}

/** A type of the show, else of the library; ends with `fail` where there is none. */
export function typeNamed(show: Pick<Show, "types">, id: string): FixtureType {
  const wanted = id.toLowerCase();
  return (
    own(show.types, wanted) ??
    libraryType(wanted) ??
    fail(`there is no fixture type ${id}`, "Choose one of the library, or bring one in: import gdtf")
  );
}

/** The mode of a type by name, its first where none is named; ends with `fail` where it has none of that name. */
export const modeNamed = (type: FixtureType, name: string | undefined): Mode =>
  name === undefined
    ? type.modes[0]!
    : (modeOf(type, name) ??
      fail(
        `${type.model} has no mode ${name}`,
        `Its modes are ${type.modes.map((m) => `${m.name} (${footprint(m)} channels)`).join(", ")}`,
      ));

/** Works a swap out, on plain records: what the show would be, and what becomes of everything. Steps tell the share done. */
export function* swapping(show: Show, hands: Hands, request: SwapRequest): Generator<number, Swapped> {
  const type = typeNamed(show, request.type);
  const mode = modeNamed(type, request.mode);
  const virtual = wantsVirtualDimmer(mode);
  const fates = new Map<string, FateRow>();
  const note = (fate: Fate) => {
    const name = `${fate.attribute} ${fate.kind}`;
    let row = fates.get(name);
    if (!row) fates.set(name, (row = { attribute: fate.attribute, kind: fate.kind, entries: 0, how: [], off: 0 }));
    row.entries += 1;
    row.off = Math.max(row.off, fate.off ?? 0);
    if (fate.how && row.how.length < 12 && !row.how.includes(fate.how)) row.how.push(fate.how);
  };
  const typeOf = (id: string) => own(show.types, id) ?? libraryType(id);
  const types = own(show.types, type.id) ? show.types : { ...show.types, [type.id]: type };
  const to = sideOf(type, mode, virtual);
  const colours = new Map<Side["specs"], NonNullable<Swapping["colours"]>>();
  const swaps = request.fixtures.map((id): Swapping => {
    const fixture = show.fixtures[id] ?? fail("that fixture is no longer patched");
    const from: Side = modelOf(show, fixture);
    let known = colours.get(from.specs);
    if (!known) colours.set(from.specs, (known = new Map()));
    return { fixture: id, from, to, typeOf, note, colours: known };
  });
  const { fixtures, moved } = readdressed({ ...show, types }, request, type, mode, virtual);
  const after: Show = { ...show, types, fixtures };
  after.palettes = swappedPalettes(show, after, swaps);
  yield 0.1;
  const lists: Show["lists"] = {};
  const all = Object.values(show.lists);
  for (const [k, list] of all.entries()) {
    const work = swappingList(show, list, swaps);
    for (let step = work.next(); ; step = work.next()) {
      if (step.done) {
        lists[list.id] = step.value;
        break;
      }
      yield 0.1 + (0.9 * (k + step.value)) / all.length;
    }
  }
  after.lists = lists;
  const held = swaps.reduce((entries, swap) => converted(entries, swap, standingIn(show, entries)), hands.held);
  const parked = swaps.reduce((entries, swap) => converted(entries, swap, standingIn(show, entries)), hands.parked);
  const order = { lost: 0, near: 1, same: 2 };
  return {
    show: after,
    hands: held === hands.held && parked === hands.parked ? hands : { ...hands, held, parked },
    rows: [...fates.values()].sort(
      (a, b) => order[a.kind] - order[b.kind] || a.attribute.localeCompare(b.attribute, "en"),
    ),
    moved,
    type,
    mode,
  };
}

/** The same in one go. */
export function swapped(show: Show, hands: Hands, request: SwapRequest): Swapped {
  const work = swapping(show, hands, request);
  for (;;) {
    const { done, value } = work.next();
    if (done) return value;
  }
}

/** What stands in a record by itself: its own entries, resolved. */
export const standingIn =
  (show: Show, entries: Readonly<Record<ParamKey, Entry>>): Standing =>
  (key) =>
    numberAt(show, key, entries[key]);

/** An entry as a number and the attribute it is of; undefined where it says nothing. */
export function numberAt(show: Show, key: ParamKey, entry: Entry | undefined) {
  const spec = specOf(show, key);
  if (!entry || !spec) return undefined;
  const found = resolveEntry(show, key, spec, entry);
  return found && { attribute: spec.functions[found.fn]!.attribute, value: found.value };
}

const CUES_A_STEP = 10;

/** Steps tell the share of its cues. */
function* swappingList(show: Show, list: CueList, swaps: readonly Swapping[]): Generator<number, CueList> {
  const tracking = trackingOf(list, show);
  const bySwap = new Map(swaps.map((s) => [s.fixture, s]));
  let changed: CueList["cues"] | undefined;
  const cues = cuesOf(list);
  for (const [at, cue] of cues.entries()) {
    if (at % CUES_A_STEP === CUES_A_STEP - 1) yield at / cues.length;
    const touched = new Set<Id>();
    for (const key in cue.entries) {
      const id = key.slice(0, key.indexOf("."));
      if (bySwap.has(id)) touched.add(id);
    }
    if (touched.size === 0) continue;
    const standing: Standing = (key) => numberAt(show, key, inForceAt(tracking, key, at)?.entry);
    const made = convertedMany(
      cue.entries,
      [...touched].map((id) => bySwap.get(id)!),
      standing,
    );
    changed ??= { ...list.cues };
    changed[cue.id] = { ...cue, entries: made };
  }
  return changed ? { ...list, cues: changed } : list;
}

/** Entries of many fixtures: each on its own few, then together, so that thousands are not copied for each. */
function convertedMany(
  entries: Readonly<Record<ParamKey, Entry>>,
  swaps: readonly Swapping[],
  standing: Standing,
): Record<ParamKey, Entry> {
  const apart = new Map<Id, Record<ParamKey, Entry>>(swaps.map((s) => [s.fixture, {}]));
  const made: Record<ParamKey, Entry> = {};
  for (const key in entries) {
    const mine = apart.get(key.slice(0, key.indexOf(".")));
    (mine ?? made)[key] = entries[key]!;
  }
  for (const swap of swaps) Object.assign(made, converted(apart.get(swap.fixture)!, swap, standing));
  return made;
}

function swappedPalettes(show: Show, after: Show, swaps: readonly Swapping[]): Show["palettes"] {
  const to = swaps[0]?.to;
  if (!to) return show.palettes;
  const made: Show["palettes"] = {};
  for (const palette of Object.values(show.palettes)) made[palette.id] = swappedPalette(show, after, palette, swaps);
  return made;
}

function swappedPalette(show: Show, after: Show, palette: Palette, swaps: readonly Swapping[]): Palette {
  let result = palette;
  const excepted = new Set<Id>();
  for (const key in palette.own) excepted.add(key.slice(0, key.indexOf(".")));
  const mine = excepted.size === 0 ? [] : swaps.filter((s) => excepted.has(s.fixture));
  if (mine.length > 0) {
    const standing: Standing = (key) =>
      numberAt(show, key, { attribute: splitKey(key).head, value: { palette: palette.id } });
    result = {
      ...result,
      own: convertedMany(palette.own, mine, standing) as Palette["own"],
    };
  }
  const types = swappedTypes(show, after, palette, swaps);
  return types === palette.types ? result : { ...result, types };
}

type OfType = Palette["types"][string];

/** What a palette says of a type, in the terms of another. */
export function ofOtherType(show: Show, of: OfType, swap: Swapping): OfType {
  const prefix = `${swap.fixture}.`;
  const entries = Object.fromEntries(
    Object.entries(of.values).map(([place, entry]) => [prefix + place, entry as Entry]),
  );
  const quiet: Swapping = { ...swap, note: () => undefined };
  const standing: Standing = (key) => {
    const entry = entries[key];
    return entry && typeof entry.value === "object" && isLink(entry.value)
      ? numberAt(show, key, entry)
      : entry && typeof entry.value === "number"
        ? { attribute: entry.attribute, value: entry.value }
        : undefined;
  };
  const made = converted(entries, quiet, standing);
  // What the other type cannot do stays with the one it is of.
  const kept = Object.entries(made).filter(([, { of }]) => of === undefined);
  const values = Object.fromEntries(
    kept.map(([key, { of: _of, was: _was, ...entry }]) => [key.slice(prefix.length), entry]),
  );
  return { reference: swap.fixture, values: values as OfType["values"] };
}

function swappedTypes(show: Show, after: Show, palette: Palette, swaps: readonly Swapping[]): Palette["types"] {
  const types = { ...palette.types };
  let changed = false;
  const to = swaps[0]!.to.type.id;
  const remain = (type: string) => Object.values(after.fixtures).some((f) => f.type === type);
  for (const [from, first] of new Map(swaps.map((s) => [s.from.type.id, s])).entries()) {
    const values = palette.types[from];
    if (!values || from === to) continue;
    const swap = swaps.find((s) => s.fixture === values.reference && s.from.type.id === from) ?? first;
    const made = ofOtherType(show, values, swap);
    const there = types[to];
    const back: Swapping = { ...swap, from: swap.to, to: swap.from, colours: new Map() };
    // What the type has already holds, unless it was only what this would have been made from, and has been edited since.
    if (there) {
      const nobody = !Object.values(show.fixtures).some((f) => f.type === to);
      const derived = ofOtherType(show, there, back);
      const edited = nobody && Object.keys(made.values).length > 0 && !alike(derived.values, values.values);
      if (edited) types[to] = { ...made, reference: there.reference };
      if (edited) changed = true;
      // Nobody of the type is left, and what it said can be made again.
      if (!remain(from) && alike(derived.values, values.values)) {
        delete types[from];
        changed = true;
      }
    } else if (Object.keys(made.values).length > 0) {
      types[to] = made;
      changed = true;
    }
  }
  return changed ? types : palette.types;
}

function alike(a: OfType["values"], b: OfType["values"]): boolean {
  const names = Object.keys(a);
  return (
    names.length === Object.keys(b).length &&
    names.every((name) => {
      const [x, y] = [a[name]!, b[name]];
      if (!y || x.attribute !== y.attribute) return false;
      return typeof x.value === "number" && typeof y.value === "number"
        ? Math.abs(x.value - y.value) <= 0.01
        : JSON.stringify(x.value) === JSON.stringify(y.value);
    })
  );
}

/** The fixtures as they would be patched. */
function readdressed(
  show: Show,
  { fixtures: ids, at }: SwapRequest,
  type: FixtureType,
  mode: Mode,
  virtualDimmer: boolean,
) {
  const size = footprint(mode);
  const taken = occupancyOf(show, new Set(ids));
  const fixtures = { ...show.fixtures };
  const moved: Swapped["moved"] = [];
  const put = (id: Id, addresses: readonly Address[]) => {
    const fixture = show.fixtures[id]!;
    const model = show.types[fixture.type]?.model;
    fixtures[id] = {
      ...fixture,
      type: type.id,
      mode: mode.name,
      virtualDimmer,
      addresses: [...addresses],
      name:
        model && new RegExp(`^${escaped(model)}( \\d+)?$`).test(fixture.name)
          ? type.model + fixture.name.slice(model.length)
          : fixture.name,
    };
    const [old, now] = [fixture.addresses, addresses].map((a) => a.map(addressText).join(" + ") || "unpatched");
    if (old !== now) moved.push({ number: fixture.number, from: old!, to: now! });
  };
  if (at === "unpatched") for (const id of ids) put(id, []);
  else if (typeof at === "object") {
    let next = at;
    for (const id of ids) {
      const wrong = whyNot(taken, next, size, (other) => show.fixtures[other]?.number);
      if (wrong)
        fail(`fixture ${show.fixtures[id]!.number} cannot go there: ${wrong}`, "Choose another address, or: at auto");
      occupy(taken, next, size, id);
      put(id, [next]);
      next =
        next.slot + 2 * size - 1 > 512
          ? { universe: next.universe + 1, slot: 1 }
          : { universe: next.universe, slot: next.slot + size };
    }
  } else if (at === "auto") {
    const own = ids.filter((id) => show.fixtures[id]!.addresses.length > 0);
    const run = autoAddresses(
      taken,
      own.map(() => size),
      own,
    );
    for (const id of ids) put(id, own.includes(id) ? [run[own.indexOf(id)]!] : []);
  } else keepAddresses(show, ids, size, taken, put);
  return { fixtures, moved };
}

/** Where there is room at its address a fixture stays; the others get the first free run, when all that stay have been put. */
function keepAddresses(
  show: Show,
  ids: readonly Id[],
  size: number,
  taken: ReturnType<typeof occupancyOf>,
  put: (id: Id, at: Address[]) => void,
): void {
  const late: Id[] = [];
  for (const id of ids) {
    const stays: Address[] = [];
    for (const address of show.fixtures[id]!.addresses) {
      if (!fits(address, size) || inTheWay(taken, address, size) !== null) continue;
      occupy(taken, address, size, id);
      stays.push(address);
    }
    if (stays.length > 0 || show.fixtures[id]!.addresses.length === 0) put(id, stays);
    else late.push(id);
  }
  const run = autoAddresses(
    taken,
    late.map(() => size),
    late,
  );
  late.forEach((id, k) => put(id, [run[k]!]));
}

const escaped = (text: string): string => text.replace(/[.*+?^${}()|[\]\\]/g, "\\$&");
