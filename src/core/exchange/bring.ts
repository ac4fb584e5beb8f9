/** Bringing what is ticked over from another show: what it depends on comes along, fixtures are mapped, clashes are settled. */
import { namedBy, namedByRecord, linksOf } from "../show/checking/links";
import type { Id, Item } from "../show/ids";
import type { Cue, CueList, Show } from "../show/schema";
import { cuesOf, fixturesByNumber } from "../show/world";
import { mapped } from "../units/mapped";
import { Terms } from "./bringTerms";
import { calledBy, lineOver, nameFixtures } from "./linesOver";
import { sameBut } from "./same";

export const BRINGABLE = ["wave", "palette", "effect", "group", "macro", "view", "list", "page"] as const;
export type Bringable = (typeof BRINGABLE)[number];
/** Where a show keeps them. */
export const COLLECTION = {
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
  /** Lines kept as they are though what they name is called otherwise here. */
  asIs: number;
  /** Its id here, and the id of what has its number here. */
  id: Id;
  mine: Id | undefined;
  /** The list a cue is in. */
  list?: Id;
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
  bringing.settleLines();
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
  /** What is being brought: macros may call each other in a ring. */
  private readonly underWay = new Set<Id>();
  /** What came over, and is not here already: lists, macros, cues. */
  private readonly fresh = new Set<Id>();
  private readonly from: Show;
  private readonly terms: Terms;

  constructor(
    private readonly now: Show,
    private readonly request: BringRequest,
  ) {
    this.from = request.show;
    this.terms = new Terms(now, request, this.ids);
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
    if (!theirs || this.underWay.has(id)) return undefined;
    this.underWay.add(id);
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
    if (!same) {
      (this.show[COLLECTION[what]] as Record<Id, unknown>)[own] = { ...made, id: own, number };
      this.fresh.add(own);
    }
    this.rows.push({
      what,
      name: theirs.name,
      number: theirs.number,
      as: number,
      how: same ? "same" : place === "replace" ? "replaces" : place === "beside" ? "beside" : "new",
      along,
      left: counted.left,
      asIs: 0,
      id: own,
      mine: empty ? undefined : mine?.id,
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
      for (const [kind, id] of this.called(cue.runs ? [cue.runs] : [])) this.bring(kind, id, true);
      const counted = { left: 0 };
      const entries = this.terms.cueEntries(list, cue, counted);
      const clash = Object.values(made).find((c) => Math.abs(c.number - cue.number) < 0.0005);
      const replace = clash && this.request.clash === "replace";
      const id = replace ? clash.id : this.newId("c");
      named.set(cue.id, id);
      const number = clash && !replace ? freePoint(made, cue.number) : cue.number;
      made[id] = { ...this.terms.bareCue(cue, named), id, number, entries };
      this.rows.push({
        what: "cue",
        name: cue.name,
        number: cue.number,
        as: number,
        how: !clash ? "new" : replace ? "replaces" : "beside",
        along: false,
        left: counted.left,
        asIs: 0,
        id,
        mine: clash?.id,
        list: target.id,
      });
      this.fresh.add(id);
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
        const cues = Object.values(list.cues);
        const entries = cues.flatMap((c) => Object.values(c.entries).flatMap(linksOf));
        return [
          ...named([...new Set([...entries, ...(list.effect ? [list.effect] : [])])]),
          ...this.called(cues.flatMap((c) => c.runs ?? [])),
        ];
      }
      case "page":
        return Object.values(from.pages[id]!.places).map((p): [Bringable, Id] => [p.what, p.id]);
      case "macro":
        return this.called(from.macros[id]!.lines);
      default:
        return [];
    }
  }

  /** What lines call comes along, but for what plays by itself: lists, pages and views are brought by being ticked. */
  private called(lines: readonly string[]): [Bringable, Id][] {
    return calledBy(this.from, lines).filter(([what]) => !["list", "page", "view"].includes(what));
  }

  /** Lines of macros, and those that cues run, call what came over by the numbers it has here. */
  settleLines(): void {
    const numbers = new Map(this.rows.map((row) => [`${row.what} ${row.number}`, row.as]));
    const moved = Object.entries(this.request.fixtures).some(
      ([theirs, own]) => this.from.fixtures[theirs]?.number !== this.now.fixtures[own]?.number,
    );
    const { macros, lists } = this.show;
    for (const row of this.rows) {
      const over = (line: string): string => {
        const made = lineOver(line, (what, n) => numbers.get(`${what} ${n}`) ?? n);
        if (made === undefined || (moved && nameFixtures([line]))) row.asIs += 1;
        return made ?? line;
      };
      const cueOver = (cue: Cue): Cue => (cue.runs ? { ...cue, runs: over(cue.runs) } : cue);
      if (!this.fresh.has(row.id)) continue;
      const [macro, list] = [macros[row.id], lists[row.list ?? row.id]];
      if (row.what === "macro" && macro) macros[row.id] = { ...macro, lines: macro.lines.map(over) };
      else if (row.what === "list" && list) lists[list.id] = { ...list, cues: mapped(list.cues, cueOver) };
      else if (row.what === "cue" && list)
        lists[list.id] = { ...list, cues: { ...list.cues, [row.id]: cueOver(list.cues[row.id]!) } };
    }
  }

  /** A record in the terms of this show, under the id it had. */
  private here(what: Bringable, id: Id, mine: { id: Id } | undefined, counted: { left: number }): Numbered {
    const { from } = this;
    switch (what) {
      case "palette":
        return this.terms.palette(from.palettes[id]!, counted);
      case "effect": {
        const effect = from.effects[id]!;
        return {
          ...effect,
          cast: effect.cast && this.terms.items(effect.cast),
          voices: effect.voices.map((v) => ({
            ...v,
            ...(v.items ? { items: this.terms.items(v.items) } : {}),
            voice: this.terms.voice(v.voice),
          })),
        } as Numbered;
      }
      case "group": {
        const { arrangement, steps, ...group } = from.groups[id]!;
        const kept = <T>(of: Readonly<Record<Item, T>>) =>
          Object.fromEntries(Object.entries(of).flatMap(([i, v]) => this.terms.items([i]).map((own) => [own, v])));
        const members = this.terms.items(group.members);
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
        return [id, { ...this.terms.bareCue(cue, named), id, entries: this.terms.cueEntries(list, cue, counted) }];
      }),
    );
    const { effect, ...rest } = list;
    const plays = effect && this.ids.get(effect);
    return { ...rest, ...(plays ? { effect: plays } : {}), cues };
  }

  private newId(letter: string): Id {
    return `${letter}${this.show.nextId++}`;
  }

  private freeNumber(what: Bringable, wanted: number): number {
    // Nor one that something else which was ticked comes with: what is taken moves that one alone.
    const ticked = (this.request.picks[what] ?? []).flatMap((id) => this.from[COLLECTION[what]][id]?.number ?? []);
    const here = Object.values(this.show[COLLECTION[what]]).map((r) => r.number);
    const taken = new Set([...here, ...ticked]);
    let number = wanted;
    while (taken.has(number)) number += 1;
    return number;
  }
}

const kindOf = (show: Show, id: Id): Bringable =>
  show.palettes[id] ? "palette" : show.effects[id] ? "effect" : "wave";

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
