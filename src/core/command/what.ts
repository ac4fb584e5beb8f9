/** What a line can mean by WHAT and by a value. */
import { attributeInfo, type Family } from "../fixture/attribute";

/** What WHAT means: one attribute, or families. */
export type What = { attribute: string } | { families: readonly Family[] };

/** A value as it is typed: a number in the unit of its attribute, or an end of its range. */
export type Amount = number | "full" | "out";

/** Amounts of a line, a spread where there are several, with the unit that was typed behind them. */
export type Amounts = readonly Amount[] & { readonly unit?: string };

/** WHAT in words. */
export const whatText = (what: What): string =>
  ("attribute" in what
    ? attributeInfo(what.attribute).label
    : what.families.length > 2
      ? "everything"
      : what.families.join(", ")
  ).toLowerCase();
