/** Fixtures that become another type, with all that is stored of them (SEMANTICS 1: values are in real units). */
import { libraryType } from "../fixture/library/library";
import { modeOf } from "../fixture/parameters";
import { footprint, wantsVirtualDimmer, type FixtureType, type Mode } from "../fixture/type";
import type { Hands } from "../show/hands";
import type { Id } from "../show/ids";
import { modelOf } from "../show/model";
import { own } from "../show/hasOwn";
import { fail } from "../show/refusal";
import type { CueList, Show } from "../show/schema";
import { cuesOf } from "../show/world";
import { inForceAt, trackingOf } from "../cue/tracking";
import { converted, convertedMany } from "./convert";
import { readdressed, type AddressWish, type Moved } from "./readdress";
import { numberAt, standingIn } from "./standing";
import { swappedPalettes } from "./swapPalettes";
import { type Fate, type Standing, type Swapping } from "./way";
import { sideOf, type Side } from "./sides";

export interface SwapRequest {
  fixtures: readonly Id[];
  type: string;
  mode?: string | undefined;
  at: AddressWish;
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
  moved: Moved[];
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

/** What was worked out last of a show: the table beforehand, its words and the edit ask for the same. */
const lastOf = new WeakMap<Show, { hands: Hands; asked: string; made: Swapped }>();
const askedText = ({ fixtures, type, mode, at }: SwapRequest): string => JSON.stringify([fixtures, type, mode, at]);

/** Works a swap out, on plain records: what the show would be, and what becomes of everything. Steps tell the share done. */
export function* swapping(show: Show, hands: Hands, request: SwapRequest): Generator<number, Swapped> {
  const asked = askedText(request);
  const last = lastOf.get(show);
  if (last?.hands === hands && last.asked === asked) return last.made;
  const made = yield* workingOut(show, hands, request);
  lastOf.set(show, { hands, asked, made });
  return made;
}

function* workingOut(show: Show, hands: Hands, request: SwapRequest): Generator<number, Swapped> {
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
