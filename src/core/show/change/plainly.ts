import { current, isDraft, original } from "immer";

/** A part of a world as it is now, without the draft around it: thousands of records are slow to go through in one. */
export const plainly = <T>(value: T): T => (isDraft(value) ? (current(value as object) as T) : value);

/** A part of a world as it was before the intent that edits it; undefined for one just made. */
export const asItWas = <T extends object>(value: T): T | undefined =>
  isDraft(value) ? (original(value as never) as T | undefined) : undefined;
