/** What an MVR file would change: fixture by fixture, before it is done. */
import { wantsVirtualDimmer, type FixtureType } from "../../fixture/type";
import { modeOf } from "../../fixture/parameters";
import { addressText, occupancyOf, occupy, spanOf, vacate } from "../../show/address";
import type { Id } from "../../show/ids";
import type { Fixture, Show } from "../../show/schema";
import { whyNot } from "../../patch/clash";
import { plain } from "../../units/units";
import type { MvrFixture, MvrRead } from "./read";
import { uuidOf } from "./write";

export interface MvrChange {
  what: string;
  from: string;
  to: string;
}

export interface MvrRow {
  read: MvrFixture;
  /** The fixture it is, by its id in files or its number; null for a new one. */
  updates: Id | null;
  by: "uuid" | "number" | null;
  fixture: Partial<Fixture> & Pick<Fixture, "number" | "type" | "mode" | "addresses">;
  changes: MvrChange[];
  /** Why it cannot come in as it is, and what is done instead; undefined where nothing is in the way. */
  problem?: string;
}

export interface MvrPlan {
  rows: MvrRow[];
  types: Record<string, FixtureType>;
  /** Fixtures that the file has and that were not asked for. */
  left: number;
}

/** @param how add: only fixtures the show lacks; update: those it has too. */
export function planMvr(show: Show, read: MvrRead, how: "add" | "update"): MvrPlan {
  const mine = Object.values(show.fixtures);
  const byUuid = new Map(mine.map((f) => [uuidOf(show, f).toUpperCase(), f]));
  const byNumber = new Map(mine.map((f) => [f.number, f]));
  const taken = new Set(mine.map((f) => f.number));
  const matched = read.fixtures.map((f) => {
    const found = byUuid.get(f.uuid);
    // An id that was only worked out counts for a fixture of the same type: shows that began alike give the same ones.
    const same = found && (found.uuid !== undefined || found.type === f.type.id) ? found : undefined;
    return same
      ? ([same, "uuid"] as const)
      : f.number !== undefined && byNumber.has(f.number)
        ? ([byNumber.get(f.number)!, "number"] as const)
        : null;
  });
  const updated = new Set(how === "update" ? matched.flatMap((m) => (m ? [m[0].id] : [])) : []);
  const occupancy = occupancyOf(show, updated);
  const types: Record<string, FixtureType> = {};
  const rows: MvrRow[] = [];
  const used = new Set<Id>();
  let left = 0;
  let next = 1;
  const freeNumber = () => {
    while (taken.has(next)) next += 1;
    return next;
  };
  read.fixtures.forEach((f, k) => {
    const match = matched[k];
    if (match && (how === "add" || used.has(match[0].id))) return void (left += 1);
    const old = match?.[0];
    if (old) used.add(old.id);
    types[f.type.id] = f.type;
    const mode = modeOf(f.type, f.mode)!;
    const owner = old?.id ?? `new${k}`;
    const problems: string[] = [];
    let addresses = f.addresses.filter((address) => {
      const { size } = spanOf(mode, f.addresses, address);
      const wrong =
        size === 0
          ? `${addressText(address)} is of a DMX break that ${f.type.model} in mode ${f.mode} lacks`
          : whyNot(occupancy, address, size, (id) => show.fixtures[id]?.number);
      if (wrong) problems.push(`${wrong}: it comes in without that address`);
      else occupy(occupancy, address, size, owner);
      return !wrong;
    });
    // With the address of a break gone the others would carry more than they were asked to.
    if (addresses.length < f.addresses.length && mode.breaks && f.addresses.some((a) => a.part)) {
      for (const address of addresses) vacate(occupancy, address, owner);
      addresses = [];
    }
    let number = f.number ?? old?.number ?? freeNumber();
    if (number !== old?.number && taken.has(number)) {
      const free = old?.number ?? freeNumber();
      problems.push(`number ${number} is taken: it is ${free}`);
      number = free;
    }
    taken.add(number);
    const fixture = {
      number,
      name: f.name,
      type: f.type.id,
      mode: f.mode,
      ...(old && old.type === f.type.id && old.mode === f.mode
        ? {}
        : { virtualDimmer: wantsVirtualDimmer(modeOf(f.type, f.mode)!) }),
      addresses,
      place: f.place,
      turn: f.turn,
      ...(f.uuid ? { uuid: f.uuid } : {}),
      ...(f.position ? { position: f.position } : {}),
      // What somebody wrote here stays.
      ...(f.note && !old?.note ? { note: f.note } : {}),
    };
    rows.push({
      read: f,
      updates: old?.id ?? null,
      by: match?.[1] ?? null,
      fixture,
      changes: old ? changesOf(show, old, fixture) : [],
      ...(problems.length > 0 ? { problem: problems.join("; ") } : {}),
    });
  });
  return { rows, types, left };
}

/** The pieces of a file that the show does not have yet, by what they are called and where they stand. */
export const piecesNew = (show: Show, pieces: MvrRead["pieces"]): MvrRead["pieces"] => {
  const key = ({ name, shape, from, to }: MvrRead["pieces"][number]) =>
    JSON.stringify([name, shape, ...[from.x, from.y, to.x, to.y].map((v) => v.toFixed(3))]);
  const mine = new Set(Object.values(show.scenery).map(key));
  return pieces.filter((p) => !mine.has(key(p)));
};

const pointText = ({ x, y, z }: Fixture["place"]): string => [x, y, z].map((v) => plain(v, 2)).join(" ");

/** What is otherwise in the file, nearer than a millimetre and a hundredth of a degree counting as the same. */
function changesOf(show: Show, old: Fixture, now: Partial<Fixture>): MvrChange[] {
  const near = (a: Fixture["place"], b: Fixture["place"], by: number) =>
    Math.hypot(a.x - b.x, a.y - b.y, a.z - b.z) < by;
  const texts = (f: Partial<Fixture>) => f.addresses!.map(addressText).join(" + ") || "unpatched";
  const made: (MvrChange | false)[] = [
    old.number !== now.number && { what: "number", from: String(old.number), to: String(now.number) },
    old.name !== now.name && { what: "name", from: old.name, to: now.name! },
    old.type !== now.type && { what: "type", from: show.types[old.type]?.model ?? old.type, to: now.type! },
    old.mode !== now.mode && { what: "mode", from: old.mode, to: now.mode! },
    texts(old) !== texts(now) && { what: "address", from: texts(old), to: texts(now) },
    !near(old.place, now.place!, 0.001) && { what: "place", from: pointText(old.place), to: pointText(now.place!) },
    !near(old.turn, now.turn!, 0.01) && { what: "turn", from: pointText(old.turn), to: pointText(now.turn!) },
    now.position !== undefined &&
      (old.position ?? "") !== now.position && { what: "position", from: old.position ?? "", to: now.position },
  ];
  return made.filter((c): c is MvrChange => c !== false);
}
