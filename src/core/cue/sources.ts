/** Where what is held came from: the palettes it took the place of, and the cues it lies over. An update goes there. */
import type { Id, ParamKey } from "../show/ids";
import type { CueList } from "../show/schema";
import { isLink } from "../show/value";
import { cuesOf, type World } from "../show/world";
import { inForceAt, trackingOf } from "./tracking";

export interface HeldSources {
  /** By palette: held parameters that were or lie over its values. */
  palettes: Map<Id, ParamKey[]>;
  /** Cues that store what is held something else for, in lists that run. */
  cues: { list: CueList; cue: Id; keys: ParamKey[] }[];
}

/** @param running the cue each running list stands in, by list. */
export function sourcesOfHeld(world: World, running: Readonly<Record<Id, Id>>): HeldSources {
  const { show, hands } = world;
  const palettes = new Map<Id, ParamKey[]>();
  const cues = new Map<string, HeldSources["cues"][number]>();
  const lists = Object.entries(running).flatMap(([id, cue]) => {
    const list = show.lists[id];
    const place = list ? cuesOf(list).findIndex((c) => c.id === cue) : -1;
    return list && place >= 0 ? [{ list, place, tracking: trackingOf(list, show) }] : [];
  });
  lists.sort((a, b) => Number(b.list.id === hands.armed) - Number(a.list.id === hands.armed));
  for (const [key, { value }] of Object.entries(hands.held)) {
    if (hands.keptOut[key] || value === undefined || (typeof value === "object" && isLink(value))) continue;
    let from: Id | undefined = hands.cameFrom[key];
    for (const { list, place, tracking } of lists) {
      const below = inForceAt(tracking, key, place);
      if (!below) continue;
      const { value: under } = below.entry;
      if (typeof under === "object" && isLink(under)) from ??= under.palette;
      const cue = cuesOf(list)[below.at]!.id;
      const known = cues.get(cue) ?? { list, cue, keys: [] };
      known.keys.push(key);
      cues.set(cue, known);
      break;
    }
    if (from && show.palettes[from]) palettes.set(from, [...(palettes.get(from) ?? []), key]);
  }
  return { palettes, cues: [...cues.values()] };
}
