/** What a line can mean by WHAT and by a value. */
import type { Family } from "../fixture/attribute";

/** What WHAT means: one attribute, or families. */
export type What = { attribute: string } | { families: readonly Family[] };

/** A value as it is typed: a number in the unit of its attribute, or an end of its range. */
export type Amount = number | "full" | "out";
