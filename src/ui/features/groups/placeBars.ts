/** The picture of the places of a spread: a bar for each item, or for as many as stand side by side. */
import { closedPlace } from "@/core/select/spread";

export interface PlaceBar {
  /** The least and the highest place of its items, 0..1. */
  low: number;
  high: number;
  steps: ReadonlySet<number>;
}

/** @param step of each item. @param count of steps. @param most bars there is room for. */
export function placeBars(step: readonly number[], count: number, most: number): PlaceBar[] {
  const bars = Math.min(step.length, most);
  return Array.from({ length: bars }, (_, k) => {
    const own = step.slice(Math.round((k * step.length) / bars), Math.round(((k + 1) * step.length) / bars));
    const places = own.map((g) => closedPlace(g, count));
    return { low: Math.min(...places), high: Math.max(...places), steps: new Set(own) };
  });
}
