/** Where palettes are used: in what is held, in cues, in other palettes. */
import { splitKey, type Id, type ParamKey } from "../show/ids";
import type { CueList, Show } from "../show/schema";
import { linksIn, linksOf, namedBy, namedByRecord } from "../show/checking/links";
import { linesNaming, namingText } from "../show/words/linesNaming";
import { pagesText, pagesWith } from "../show/places";
import { effectsByNumber, type World } from "../show/world";
import { dependingOn } from "./lookup";
import { plural } from "../units/plural";

export interface PaletteUses {
  cues: { list: CueList; cue: Id; number: number; entries: number }[];
  palettes: Id[];
  /** Numbers of the effects that play it. */
  effects: number[];
  /** Numbers of the pages on which a pad takes it. */
  pages: number[];
  /** Lines of macros, and lines that cues run. */
  lines: ReturnType<typeof linesNaming>;
  held: number;
}

/** Who names a palette itself. */
export function usesOf({ show, hands }: World, palette: Id): PaletteUses {
  return {
    cues: Object.values(show.lists).flatMap((list) =>
      Object.values(list.cues)
        .sort((a, b) => a.number - b.number)
        .flatMap((cue) => {
          const entries = linksIn(cue.entries).get(palette) ?? 0;
          return entries > 0 ? [{ list, cue: cue.id, number: cue.number, entries }] : [];
        }),
    ),
    palettes: Object.values(show.palettes).flatMap((p) => (namedBy(p).includes(palette) ? [p.id] : [])),
    effects: effectsByNumber(show).flatMap((e) => (namedByRecord(e).includes(palette) ? [e.number] : [])),
    pages: pagesWith(show, "palette", palette),
    lines: linesNaming(show, "palette", show.palettes[palette]?.number ?? -1),
    held: linksIn(hands.held).get(palette) ?? 0,
  };
}

/** "in 3 cues, in 1 palette, held"; empty where it is not used. */
export function usesText({ cues, palettes, effects, pages, lines, held }: PaletteUses): string {
  return [
    cues.length > 0 && `in ${plural(cues.length, "cue")}`,
    palettes.length > 0 && `in ${plural(palettes.length, "palette")}`,
    effects.length > 0 && `in ${effects.length === 1 ? "effect" : "effects"} ${effects.join(", ")}`,
    pagesText(pages),
    namingText(lines),
    held > 0 && "held",
  ]
    .filter(Boolean)
    .join(", ");
}

/** Fixtures that use a palette in cues and have nothing in it, by palette. */
export function gapsOf(show: Show, says: (palette: Id, key: ParamKey) => boolean): Map<Id, Set<Id>> {
  const found = new Map<Id, Set<Id>>();
  for (const list of Object.values(show.lists))
    for (const cue of Object.values(list.cues)) {
      if (linksIn(cue.entries).size === 0) continue;
      for (const key in cue.entries)
        for (const id of linksOf(cue.entries[key]!))
          if (show.palettes[id] && !says(id, key))
            found.set(id, (found.get(id) ?? new Set<Id>()).add(splitKey(key).fixture));
    }
  return found;
}

/** The chain of palettes that would go round if `from` named these: their ids from `from` back to it; undefined where none does. */
export function roundTrip(palettes: Show["palettes"], from: Id, names: readonly Id[]): Id[] | undefined {
  const round = names.find((id) => id === from || dependingOn(palettes, [from]).has(id));
  if (round === undefined) return undefined;
  const path: Id[] = [from];
  for (let at = round; at !== from;) {
    path.push(at);
    const next = namedBy(palettes[at]!).find((id) => id === from || dependingOn(palettes, [from]).has(id));
    if (next === undefined || path.length > 50) break;
    at = next;
  }
  return [...path, from];
}
