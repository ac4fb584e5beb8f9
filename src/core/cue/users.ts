/** The index from what is pointed at (a fixture's place, a palette) to the parameters of a list that point there. */
import { pointsAt } from "../program/resolve";
import type { ParamKey } from "../show/ids";
import type { Column, Tracking } from "./tracking";

const ofColumn = new WeakMap<Column, ReadonlySet<string>>();
const ofList = new WeakMap<Tracking["columns"], ReadonlyMap<string, readonly ParamKey[]>>();
const NOTHING: ReadonlySet<string> = new Set();

/** What the entries of a column point at; worked out once for each version of it. */
function pointsOf(key: ParamKey, column: Column): ReadonlySet<string> {
  const known = ofColumn.get(column);
  if (known) return known;
  const found = new Set(column.entries.flatMap((entry) => pointsAt(key, entry)));
  const made = found.size > 0 ? found : NOTHING;
  ofColumn.set(column, made);
  return made;
}

function indexOf(tracking: Tracking): ReadonlyMap<string, readonly ParamKey[]> {
  const known = ofList.get(tracking.columns);
  if (known) return known;
  const made = new Map<string, ParamKey[]>();
  for (const [key, column] of tracking.columns)
    for (const name of pointsOf(key, column)) {
      const users = made.get(name);
      if (users) users.push(key);
      else made.set(name, [key]);
    }
  ofList.set(tracking.columns, made);
  return made;
}

/** The parameters of a list that point at any of these. */
export function usersOf(tracking: Tracking, names: Iterable<string>): Set<ParamKey> {
  const index = indexOf(tracking);
  return new Set([...names].flatMap((name) => index.get(name) ?? []));
}
