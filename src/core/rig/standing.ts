/** What parameters stand at where fixtures become another type. */
import { resolveEntry } from "../program/resolve";
import type { ParamKey } from "../show/ids";
import { specOf } from "../show/model";
import type { Show } from "../show/schema";
import type { Entry } from "../show/value";
import type { Standing } from "./way";

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
