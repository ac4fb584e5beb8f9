/** What the cells of a sheet show, kept as long as it stays: only what differs is drawn again. */
import { useRef, type ReactNode } from "react";
import type { SheetColumn } from "./view";

/** What a cell shows. `data` are marks for its look. */
export interface Look {
  content: ReactNode;
  title?: string | undefined;
  data?: Record<`data-${string}`, string | number | boolean | undefined>;
}

/** So many cells stand together: where one of them changes, the others of its row are left alone by the bunch. */
export const BUNCH = 6;

/** Which columns are drawn where there are many: those that lead, then some in sight, with the room of those before. */
export interface Strip {
  lead: number;
  first: number;
  last: number;
  gap: number;
}

/** Some columns side by side, from the one at this place. */
export interface Bunch<C> {
  from: number;
  columns: readonly C[];
}

interface Cut<C> {
  pieces: Map<string, Bunch<C>>;
  last?: { strip: Strip | null; bunches: readonly Bunch<C>[] };
}
const cuts = new WeakMap<readonly unknown[], Cut<unknown>>();

/** Where bunches begin and end: those that lead by themselves, the others at fixed places, so that scrolling moves none. */
function bounds(count: number, strip: Strip | null): [from: number, to: number][] {
  const made: [number, number][] = [];
  if (strip && strip.lead > 0) made.push([0, strip.lead]);
  const end = strip ? Math.min(count, strip.last + 1) : count;
  for (let from = strip?.first ?? 0; from < end;) {
    const to = Math.min(end, (Math.floor(from / BUNCH) + 1) * BUNCH);
    made.push([from, to]);
    from = to;
  }
  return made;
}

/** The columns of a row in bunches, of many only those in sight. The same bunch is the same object. */
export function bunchesOf<C>(columns: readonly C[], strip: Strip | null): readonly Bunch<C>[] {
  let cut = cuts.get(columns) as Cut<C> | undefined;
  if (!cut) cuts.set(columns, (cut = { pieces: new Map() }));
  if (cut.last?.strip === strip) return cut.last.bunches;
  const { pieces } = cut;
  const bunches = bounds(columns.length, strip).map(([from, to]) => {
    const name = `${from}-${to}`;
    const known = pieces.get(name) ?? { from, columns: columns.slice(from, to) };
    pieces.set(name, known);
    return known;
  });
  cut.last = { strip, bunches };
  return bunches;
}

/** Marks for a look are the same few for all cells of a sheet. */
function isSameData(a: Look["data"] = {}, b: Look["data"] = {}): boolean {
  for (const name in a) if (a[name as keyof typeof a] !== b[name as keyof typeof b]) return false;
  for (const name in b) if (!(name in a)) return false;
  return true;
}

const isSameLook = (a: Look, b: Look): boolean =>
  a.content === b.content && a.title === b.title && isSameData(a.data, b.data);

/** Looks, those of before wherever they say the same; all of before where nothing differs. */
export function sameLooks(before: readonly Look[] | undefined, made: readonly Look[]): readonly Look[] {
  if (!before) return made;
  const looks = made.map((look, k) => (before[k] && isSameLook(before[k], look) ? before[k] : look));
  return looks.length === before.length && looks.every((look, k) => look === before[k]) ? before : looks;
}

interface Kept<R, C> {
  row: R;
  look: (row: R, column: C) => Look;
  bunches: readonly Bunch<C>[];
  of: ReadonlyMap<Bunch<C>, { looks: readonly Look[]; version: number }>;
  looks: readonly (readonly Look[])[];
}

/** What the cells of a column are drawn from, beside their row and what `look` is made of. */
export type About<C> = (column: C) => readonly unknown[];

/** More rows than are ever in sight. */
const MOST_KEPT = 400;

/** Keeps what rows show: a cell is asked again where its row, `look` or what its bunch is drawn from is another. */
export class KeptLooks<R extends { id: string }, C extends SheetColumn> {
  private rows = new Map<string, Kept<R, C>>();
  private versions = new Map<Bunch<C>, { parts: readonly unknown[]; version: number; asked: number }>();
  private asked = 0;
  private look: (row: R, column: C) => Look = () => ({ content: null });
  private about: About<C> | undefined;

  /** What is asked from here on. */
  ask(look: (row: R, column: C) => Look, about: About<C> | undefined): void {
    [this.look, this.about] = [look, about];
    this.asked += 1;
  }

  private versionOf(bunch: Bunch<C>): number {
    if (!this.about) return 0;
    const known = this.versions.get(bunch);
    if (known?.asked === this.asked) return known.version;
    const parts = bunch.columns.flatMap(this.about);
    const same = known?.parts.length === parts.length && parts.every((part, k) => part === known.parts[k]);
    const version = same ? known.version : this.asked;
    if (this.versions.size > MOST_KEPT) this.versions.clear();
    this.versions.set(bunch, { parts, version, asked: this.asked });
    return version;
  }

  /** What a row shows, bunch by bunch. */
  of(row: R, bunches: readonly Bunch<C>[]): readonly (readonly Look[])[] {
    const { look } = this;
    const kept = this.rows.get(row.id);
    const stays = kept?.row === row && kept.look === look;
    const made = bunches.map((bunch) => {
      const before = kept?.of.get(bunch);
      const version = this.versionOf(bunch);
      if (stays && before?.version === version) return before;
      const looks = bunch.columns.map((column) => look(row, column));
      return { looks: sameLooks(before?.looks, looks), version };
    });
    const same = kept?.bunches === bunches && made.every((b, k) => b.looks === kept.looks[k]);
    const looks = same ? kept.looks : made.map((b) => b.looks);
    if (this.rows.size > MOST_KEPT) this.rows.clear();
    this.rows.set(row.id, { row, look, bunches, of: new Map(bunches.map((b, k) => [b, made[k]!])), looks });
    return looks;
  }
}

/** What rows show in a sheet that is being drawn. */
export function useLooks<R extends { id: string }, C extends SheetColumn>(
  look: (row: R, column: C) => Look,
  about: About<C> | undefined,
): KeptLooks<R, C> {
  const kept = useRef<KeptLooks<R, C>>(null);
  kept.current ??= new KeptLooks();
  kept.current.ask(look, about);
  return kept.current;
}
