/** The addresses a show answers to and speaks of over Open Sound Control. */
import { listNumbered, listsByNumber, macrosByNumber } from "../show/world";
import type { Show } from "../show/schema";
import type { Does } from "./mapping";

/** Each address with what it does, as people read it. */
export const OSC_ADDRESSES = [
  ["/list/N/level 0..1", "the level of list N"],
  ["/list/N/go, /back, /pause, /release, /tap 1", "what the buttons of its lane do"],
  ["/list/N/flash 1 or 0", "flash while it is held"],
  ["/grand 0..1", "the grand master"],
  ["/macro/N 1", "runs macro N"],
] as const;

/** What an address does; undefined for one the show does not answer to. */
export function doesAt(show: Show, address: string): Does | undefined {
  if (address === "/grand") return { does: "grand" };
  const macro = /^\/macro\/(\d{1,6})$/.exec(address);
  if (macro) {
    const found = macrosByNumber(show).find((m) => m.number === Number(macro[1]));
    return found && { does: "macro", macro: found.id };
  }
  const of = /^\/list\/(\d{1,6})\/(level|go|back|pause|release|tap|flash)$/.exec(address);
  const list = of && listNumbered(show, Number(of[1]));
  return of && list ? { does: of[2] as "go", list: list.id } : undefined;
}

interface Stands {
  runs: Readonly<Record<string, { cue: string | null; level: number }>>;
  grand: number;
}

/** What has changed since, as messages: levels, current cues, the grand master. */
export function oscOf(show: Show, now: Stands, before: Stands): { address: string; value: number }[] {
  const found: { address: string; value: number }[] = [];
  if (now.grand !== before.grand) found.push({ address: "/grand", value: now.grand / 100 });
  for (const list of listsByNumber(show)) {
    const [is, was] = [now.runs[list.id], before.runs[list.id]];
    if (!is) continue;
    if (is.level !== was?.level) found.push({ address: `/list/${list.number}/level`, value: is.level / 100 });
    if (is.cue !== was?.cue)
      found.push({ address: `/list/${list.number}/cue`, value: (is.cue && list.cues[is.cue]?.number) || 0 });
  }
  return found;
}
