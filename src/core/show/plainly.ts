import { current, isDraft } from "immer";

/** A part of a world as it is now, without the draft around it: thousands of records are slow to go through in one. */
export const plainly = <T>(value: T): T => (isDraft(value) ? (current(value as object) as T) : value);
