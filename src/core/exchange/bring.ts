/** Bringing what is ticked over from another show: what it depends on comes along, fixtures are mapped, clashes are settled. */
import { namedBy, namedByRecord, linksOf, withLinks } from "../show/links";
import { hasStops, isFrom, isStop, type Effect, type Voice } from "../show/effectSchema";
import { splitItem, splitKey, type Id, type Item, type ParamKey } from "../show/ids";
import { modelOf } from "../show/model";
import type { Palette } from "../show/paletteSchema";
import type { Cue, CueList, Show } from "../show/schema";
import { isLink, type Entry, type Value } from "../show/value";
import { cuesOf, fixturesByNumber } from "../show/world";
import { inForceAt, trackingOf } from "../cue/tracking";
import { converted } from "../rig/convert";
import { unmarked, type Standing, type Swapping } from "../rig/way";
import { numberAt, ofOtherType, standingIn } from "../rig/swap";

export const BRINGABLE = ["wave", "palette", "effect", "group", "macro", "view", "list", "page"] as const;
export type Bringable = (typeof BRINGABLE)[number];
const COLLECTION = {
  wave: "waves",
  palette: "palettes",
  effect: "effects",
  group: "groups",
  macro: "macros",
  view: "views",
  list: "lists",
  page: "pages",
} as const;

export interface BringRequest {
  /** The other show. */
  show: Show;
  picks: Partial<Record<Bringable, Id[]>>;
  /** Single cues, into a list of this show by number. */
  cues?: { list: Id; cues: Id[]; into: number } | undefined;
  /** Fixtures of the other show to those of this one; who is not named stays behind. */
  fixtures: Readonly<Record<Id, Id>>;
  /** Where a number is taken by something else: beside it, under the next free number; or in its place. */
  clash: "beside" | "replace";
}

export interface BroughtRow {
  what: Bringable | "cue";
  name: string;
  number: number;
  /** Its number here. */
  as: number;
  how: "new" | "same" | "beside" | "replaces";
  /** It was not ticked, but something ticked needs it. */
  along: boolean;
  /** Stored values of fixtures that are not mapped. */
  left: number;
}

export interface Brought {
  show: Show;
  rows: BroughtRow[];
}

/** Fixtures of the same number in both shows. */
export const mappedByNumber = (from: Show, to: Show): Record<Id, Id> => {
  const mine = new Map(Object.values(to.fixtures).map((f) => [f.number, f.id]));
  return Object.fromEntries(
    Object.values(from.fixtures).flatMap((f) => (mine.has(f.number) ? [[f.id, mine.get(f.number)!]] : [])),
  );
};

/** The first of a type to the first of that type, and so on, by number. */
export function mappedByType(from: Show, to: Show): Record<Id, Id> {
  const free = new Map<string, Id[]>();
  for (const f of fixturesByNumber(to)) free.set(f.type, [...(free.get(f.type) ?? []), f.id]);
  return Object.fromEntries(
    fixturesByNumber(from).flatMap((f) => {
      const next = free.get(f.type)?.shift();
      return next ? [[f.id, next]] : [];
    }),
  );
}

/** What a show would be with what is brought over. Nothing that was not ticked, and that nothing ticked needs, changes. */
export function brought(now: Show, request: BringRequest): Brought {
  const bringing = new Bringing(now, request);
  for (const what of BRINGABLE) for (const id of request.picks[what] ?? []) bringing.bring(what, id, false);
  if (request.cues) bringing.bringCues(request.cues);
  return { show: bringing.show, rows: bringing.rows };
}

interface Numbered {
  id: Id;
  number: number;
}

class Bringing {
  readonly show: Show;
  readonly rows: BroughtRow[] = [];
  private readonly ids = new Map<Id, Id>();
  private readonly swaps = new Map<Id, Swapping>();
  private readonly from: Show;

  constructor(
    private readonly now: Show,
    private readonly request: BringRequest,
  ) {
    this.from = request.show;
    this.show = {
      ...now,
      waves: { ...now.waves },
      palettes: { ...now.palettes },
      effects: { ...now.effects },
      groups: { ...now.groups },
      macros: { ...now.macros },
      views: { ...now.views },
      lists: { ...now.lists },
      pages: { ...now.pages },
    };
    for (const [theirs, mine] of Object.entries(request.fixtures)) {
      const [a, b] = [this.from.fixtures[theirs], now.fixtures[mine]];
      if (!a || !b) continue;
      this.swaps.set(theirs, {
        fixture: theirs,
        from: modelOf(this.from, a),
        to: modelOf(now, b),
        typeOf: (id) => this.from.types[id],
        note: () => undefined,
      });
    }
  }

  /** Brings one thing with all it needs; its id here. Undefined where the other show has none such. */
  bring(what: Bringable, id: Id, along: boolean): Id | undefined {
    const known = this.ids.get(id);
    if (known !== undefined) {
      const row = this.rows.find((r) => r.what === what && this.show[COLLECTION[what]][known]?.number === r.as);
      if (row && !along) row.along = false;
      return known;
    }
    const theirs = this.from[COLLECTION[what]][id];
    if (!theirs) return undefined;
    for (const [kind, needed] of this.needs(what, id)) this.bring(kind, needed, true);
    const taken = Object.values(this.show[COLLECTION[what]]).find((r) => r.number === theirs.number);
    // The list of a new show, in which nothing is recorded yet, is in nobody's way.
    const empty = what === "list" && taken !== undefined && Object.keys(this.show.lists[taken.id]!.cues).length === 0;
    const mine = taken;
    const counted = { left: 0 };
    const made = this.here(what, id, mine, counted);
    const same = mine && sameBut(mine, made);
    const place = !mine || same || empty ? undefined : this.request.clash;
    const number = place === "beside" ? this.freeNumber(what, theirs.number) : theirs.number;
    const own = mine && place !== "beside" ? mine.id : this.newId(id[0]!);
    this.ids.set(id, own);
    if (!same) (this.show[COLLECTION[what]] as Record<Id, unknown>)[own] = { ...made, id: own, number };
    this.rows.push({
      what,
      name: theirs.name,
      number: theirs.number,
      as: number,
      how: same ? "same" : place === "replace" ? "replaces" : place === "beside" ? "beside" : "new",
      along,
      left: counted.left,
    });
    return own;
  }

  bringCues({ list: listId, cues, into }: NonNullable<BringRequest["cues"]>): void {
    const list = this.from.lists[listId];
    if (!list) return;
    const there = Object.values(this.show.lists).find((l) => l.number === into);
    const target: CueList = there ?? { ...list, id: this.newId("l"), number: into, cues: {} };
    const made = { ...target.cues };
    const named = new Map<Id, Id>();
    for (const cue of cuesOf(list).filter((c) => cues.includes(c.id))) {
      for (const id of Object.values(cue.entries).flatMap(linksOf)) this.bring(kindOf(this.from, id), id, true);
      const counted = { left: 0 };
      const entries = this.cueEntries(list, cue, counted);
      const clash = Object.values(made).find((c) => Math.abs(c.number - cue.number) < 0.0005);
      const replace = clash && this.request.clash === "replace";
      const id = replace ? clash.id : this.newId("c");
      named.set(cue.id, id);
      const number = clash && !replace ? freePoint(made, cue.number) : cue.number;
      made[id] = { ...this.bareCue(cue, named), id, number, entries };
      this.rows.push({
        what: "cue",
        name: cue.name,
        number: cue.number,
        as: number,
        how: !clash ? "new" : replace ? "replaces" : "beside",
        along: false,
        left: counted.left,
      });
    }
    this.show.lists[target.id] = { ...target, cues: made };
  }

  private needs(what: Bringable, id: Id): [Bringable, Id][] {
    const { from } = this;
    const named = (ids: readonly Id[]) => ids.map((i): [Bringable, Id] => [kindOf(from, i), i]);
    switch (what) {
      case "palette":
        return named(namedBy(from.palettes[id]!));
      case "effect":
        return named(namedByRecord(from.effects[id]!));
      case "list": {
        const list = from.lists[id]!;
        const entries = Object.values(list.cues).flatMap((c) => Object.values(c.entries).flatMap(linksOf));
        return named([...new Set([...entries, ...(list.effect ? [list.effect] : [])])]);
      }
      case "page":
        return Object.values(from.pages[id]!.places).map((p): [Bringable, Id] => [p.what, p.id]);
      case "macro":
        return from.macros[id]!.lines.flatMap((line): [Bringable, Id][] => {
          const number = /^\s*macro (\d+)/.exec(line)?.[1];
          const other = Object.values(from.macros).find((m) => m.number === Number(number));
          return other && other.id !== id ? [["macro", other.id]] : [];
        });
      default:
        return [];
    }
  }

  /** A record in the terms of this show, under the id it had. */
  private here(what: Bringable, id: Id, mine: { id: Id } | undefined, counted: { left: number }): Numbered {
    const { from } = this;
    switch (what) {
      case "palette":
        return this.palette(from.palettes[id]!, counted);
      case "effect": {
        const effect = from.effects[id]!;
        return {
          ...effect,
          cast: effect.cast && this.items(effect.cast),
          voices: effect.voices.map((v) => ({ ...v, voice: this.voice(v.voice) })),
        } as Numbered;
      }
      case "group": {
        const { arrangement, steps, ...group } = from.groups[id]!;
        const kept = <T>(of: Readonly<Record<Item, T>>) =>
          Object.fromEntries(Object.entries(of).flatMap(([i, v]) => this.items([i]).map((own) => [own, v])));
        const members = this.items(group.members);
        counted.left += group.members.length - members.length;
        return {
          ...group,
          members,
          ...(arrangement ? { arrangement: kept(arrangement) } : {}),
          ...(steps ? { steps: kept(steps) } : {}),
        } as Numbered;
      }
      case "list":
        return this.list(from.lists[id]!, mine ? this.show.lists[mine.id] : undefined, counted);
      case "page": {
        const page = from.pages[id]!;
        const places = Object.entries(page.places).flatMap(([place, p]) => {
          const own = this.ids.get(p.id);
          return own ? [[place, { ...p, id: own }]] : [];
        });
        return { ...page, places: Object.fromEntries(places) } as Numbered;
      }
      default:
        return from[COLLECTION[what]][id]!;
    }
  }

  private list(list: CueList, mine: CueList | undefined, counted: { left: number }): CueList {
    const replaced = new Map(this.request.clash === "replace" && mine ? cuesOf(mine).map((c) => [c.number, c.id]) : []);
    const named = new Map(cuesOf(list).map((c) => [c.id, replaced.get(c.number) ?? this.newId("c")]));
    const cues = Object.fromEntries(
      cuesOf(list).map((cue) => {
        const id = named.get(cue.id)!;
        return [id, { ...this.bareCue(cue, named), id, entries: this.cueEntries(list, cue, counted) }];
      }),
    );
    const { effect, ...rest } = list;
    const plays = effect && this.ids.get(effect);
    return { ...rest, ...(plays ? { effect: plays } : {}), cues };
  }

  private bareCue(cue: Cue, named: ReadonlyMap<Id, Id>): Cue {
    const { signed: _, then, meant, blackMovesOf, reach, ...rest } = cue;
    const own = (id: Id) => this.request.fixtures[id];
    const leads = then && named.get(then);
    const to = reach && "cue" in reach ? named.get(reach.cue) : undefined;
    return {
      ...rest,
      reach: reach && "cue" in reach ? (to ? { cue: to } : null) : reach,
      ...(leads ? { then: leads } : {}),
      ...(meant ? { meant: meant.flatMap((id) => own(id) ?? []) } : {}),
      ...(blackMovesOf
        ? {
            blackMovesOf: Object.fromEntries(
              Object.entries(blackMovesOf).flatMap(([id, v]) => (own(id) ? [[own(id)!, v]] : [])),
            ),
          }
        : {}),
    };
  }

  private cueEntries(list: CueList, cue: Cue, counted: { left: number }): Record<ParamKey, Entry> {
    const tracking = trackingOf(list, this.from);
    const at = cuesOf(list).findIndex((c) => c.id === cue.id);
    return this.entries(cue.entries, (key) => numberAt(this.from, key, inForceAt(tracking, key, at)?.entry), counted);
  }

  private palette(palette: Palette, counted: { left: number }): Palette {
    const own = this.entries(palette.own, standingIn(this.from, palette.own), counted) as Palette["own"];
    const types: Palette["types"] = {};
    for (const [type, of] of Object.entries(palette.types)) {
      const reference = of.reference === null ? null : (this.request.fixtures[of.reference] ?? null);
      const values = Object.fromEntries(
        Object.entries(of.values).map(([place, e]) => [place, { ...e, value: this.value(e.value) }]),
      );
      types[type] = { reference: reference && this.now.fixtures[reference]?.type === type ? reference : null, values };
    }
    // Fixtures mapped to another type follow as they would after a swap.
    for (const swap of this.swaps.values()) {
      const [a, b] = [swap.from.type.id, swap.to.type.id];
      if (a === b || !palette.types[a] || types[b]) continue;
      const made = ofOtherType(this.from, palette.types[a], swap);
      if (Object.keys(made.values).length === 0) continue;
      types[b] = {
        reference: this.request.fixtures[swap.fixture]!,
        values: Object.fromEntries(
          Object.entries(made.values).map(([place, e]) => [place, { ...e, value: this.value(e.value) }]),
        ),
      };
    }
    const values = Object.fromEntries(
      Object.entries(palette.any.values).map(([name, value]) => [name, this.value(value)]),
    );
    return { ...palette, own, types, any: { ...palette.any, values } };
  }

  private entries(
    entries: Readonly<Record<ParamKey, Entry>>,
    standing: Standing,
    counted: { left: number },
  ): Record<ParamKey, Entry> {
    const made: Record<ParamKey, Entry> = {};
    const byFixture = new Map<Id, Record<ParamKey, Entry>>();
    for (const key in entries) {
      const { fixture } = splitKey(key);
      const own = byFixture.get(fixture) ?? {};
      own[key] = entries[key]!;
      byFixture.set(fixture, own);
    }
    for (const [theirs, own] of byFixture) {
      const mine = this.request.fixtures[theirs];
      const swap = this.swaps.get(theirs);
      if (!mine || !swap) {
        counted.left += Object.keys(own).length;
        continue;
      }
      const other = JSON.stringify(swap.from.specs) !== JSON.stringify(swap.to.specs);
      for (const [key, entry] of Object.entries(other ? converted(own, swap, standing) : own)) {
        if (other && entry.of !== undefined) continue;
        const plain = other ? unmarked(entry) : entry;
        const { value, effect, ...rest } = plain;
        made[`${mine}${key.slice(theirs.length)}`] = {
          ...rest,
          ...(value === undefined ? {} : { value: this.value(value) }),
          ...(effect === undefined ? {} : { effect: this.effect(effect) }),
        };
      }
    }
    return made;
  }

  private items(items: readonly Item[]): Item[] {
    return items.flatMap((i) => {
      const { fixture } = splitItem(i);
      const own = this.request.fixtures[fixture];
      return own ? [own + i.slice(fixture.length)] : [];
    });
  }

  private value<V extends Value>(value: V): V {
    return typeof value === "object" && isLink(value)
      ? { ...value, palette: this.ids.get(value.palette) ?? value.palette }
      : value;
  }

  private voice(voice: Voice): Voice {
    const linked = withLinks(voice, (palette) => ({ palette: this.ids.get(palette) ?? palette }));
    if (hasStops(linked) || typeof linked.wave !== "object" || !("own" in linked.wave)) return linked;
    return { ...linked, wave: { ...linked.wave, own: this.ids.get(linked.wave.own) ?? linked.wave.own } };
  }

  private effect(effect: Effect): Effect {
    if (isStop(effect)) return effect;
    return isFrom(effect)
      ? { ...effect, from: this.ids.get(effect.from) ?? effect.from }
      : { ...effect, plays: this.voice(effect.plays) };
  }

  private newId(letter: string): Id {
    return `${letter}${this.show.nextId++}`;
  }

  private freeNumber(what: Bringable, wanted: number): number {
    const taken = new Set(Object.values(this.show[COLLECTION[what]]).map((r) => r.number));
    let number = wanted;
    while (taken.has(number)) number += 1;
    return number;
  }
}

const kindOf = (show: Show, id: Id): Bringable =>
  show.palettes[id] ? "palette" : show.effects[id] ? "effect" : "wave";

/** Whether two records say the same, whatever their ids; of lists and groups the ids within count for nothing either. */
function sameBut(a: object, b: object): boolean {
  const bare = (record: object) => {
    const { id: _, cues, ...rest } = record as { id: Id; cues?: CueList["cues"] };
    const own = Object.values(cues ?? {}).sort((x, y) => x.number - y.number);
    const place = new Map(own.map((c, k) => [c.id, `cue ${k}`]));
    const cue = ({ id: _id, then, reach, signed: _s, ...c }: Cue) => ({
      ...c,
      then: then && place.get(then),
      reach: reach && "cue" in reach ? place.get(reach.cue) : reach,
    });
    return canonicalOf({ ...rest, ...(cues ? { cues: own.map(cue) } : {}) });
  };
  return bare(a) === bare(b);
}

const canonicalOf = (value: unknown): string =>
  JSON.stringify(value, (_, v: unknown) =>
    v && typeof v === "object" && !Array.isArray(v)
      ? Object.fromEntries(Object.entries(v).sort(([x], [y]) => (x < y ? -1 : 1)))
      : v,
  );

/** The first free number behind a cue, in tenths, hundredths, thousandths. */
function freePoint(cues: CueList["cues"], wanted: number): number {
  const taken = new Set(Object.values(cues).map((c) => Math.round(c.number * 1000)));
  for (const step of [100, 10, 1])
    for (let k = 1; k < 10; k++) {
      const at = Math.round(wanted * 1000) + k * step;
      if (!taken.has(at)) return at / 1000;
    }
  return Math.ceil(Math.max(...taken) / 1000) + 1;
}
