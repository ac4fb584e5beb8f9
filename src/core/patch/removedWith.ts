/** What goes, or loses something, when fixtures are removed: by name, to be seen before it is done. */
import { splitItem } from "../show/ids";
import type { Show } from "../show/schema";
import { cuesOf, effectsByNumber, groupsByNumber, listsByNumber, palettesByNumber } from "../show/world";
import { plain } from "../units/units";

export interface GoesAlong {
  /** "3 Rail port loses 2 of 8", or "would be empty". */
  groups: string[];
  /** A line for each list: "1 Main: cues 1, 2, 5". */
  cues: string[];
  /** Those with exceptions of these fixtures. */
  palettes: string[];
  /** Those cast on them. */
  effects: string[];
}

export function goesAlong(show: Show, fixtures: readonly string[]): GoesAlong {
  const gone = new Set(fixtures);
  const has = (value: string) => gone.has(splitItem(value).fixture);
  return {
    groups: groupsByNumber(show).flatMap((g) => {
      const lost = g.members.filter(has).length;
      if (lost === 0) return [];
      const rest = lost === g.members.length ? "would be empty" : `loses ${lost} of ${g.members.length}`;
      return [`${g.number} ${g.name} ${rest}`];
    }),
    cues: listsByNumber(show).flatMap((list) => {
      const own = cuesOf(list).filter((c) => Object.keys(c.entries).some(has));
      if (own.length === 0) return [];
      return [
        `${list.number} ${list.name}: ${own.length === 1 ? "cue" : "cues"} ${own.map((c) => plain(c.number, 3)).join(", ")}`,
      ];
    }),
    palettes: palettesByNumber(show)
      .filter(
        (p) => Object.keys(p.own).some(has) || Object.values(p.types).some((t) => t.reference && has(t.reference)),
      )
      .map((p) => `${p.number} ${p.name}`),
    effects: effectsByNumber(show)
      .filter((e) => e.cast?.some(has) || e.voices.some((v) => v.items?.some(has)))
      .map((e) => `${e.number} ${e.name}`),
  };
}
