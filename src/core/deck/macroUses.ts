/** What runs a macro: cues, pads and other macros. */
import type { Macro } from "../show/deckSchema";
import { linesNaming } from "../show/words/linesNaming";
import type { Show } from "../show/schema";
import { cuesOf, listsByNumber, pagesByNumber } from "../show/world";
import { plain } from "../units/units";
import { macroRunBy } from "./macro";

const MOST = 6;
const some = (names: readonly string[]): string =>
  names.slice(0, MOST).join(", ") + (names.length > MOST ? ` and ${names.length - MOST} more` : "");

/** "cue 3, pad 4 of page 1, macro 7"; null where nothing runs it. */
export function macroUses(show: Show, macro: Pick<Macro, "id" | "number">): string | null {
  const cues = listsByNumber(show).flatMap((list) =>
    cuesOf(list)
      .filter((cue) => cue.runs !== undefined && macroRunBy(cue.runs) === macro.number)
      .map((cue) => `cue ${plain(cue.number, 3)}${list.number === 1 ? "" : ` of list ${list.number}`}`),
  );
  const pads = pagesByNumber(show).flatMap((page) =>
    Object.entries(page.places)
      .filter(([, placed]) => placed.what === "macro" && placed.id === macro.id)
      .map(([place]) => `pad ${place} of page ${page.number}`),
  );
  const macros = linesNaming(show, "macro", macro.number)
    .macros.filter((n) => n !== macro.number)
    .map((n) => `macro ${n}`);
  const all = [...cues, ...pads, ...macros];
  return all.length > 0 ? some(all) : null;
}
