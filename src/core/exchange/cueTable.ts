/** Cues as a table: what a cue sheet on paper and a spreadsheet say of them. */
import { reachText } from "../cue/reach";
import { brokenLooks } from "../cue/signed";
import { splitKey } from "../show/ids";
import type { Cue, CueList, Show } from "../show/schema";
import { cuesOf, listsByNumber } from "../show/world";
import { plain } from "../units/units";
import { writeTable } from "./tableText";
import { plural } from "../units/plural";

export const CUE_TITLES = [
  "List",
  "Cue",
  "Name",
  "Note",
  "Up, s",
  "Up delay, s",
  "Down, s",
  "Down delay, s",
  "Starts",
  "Marks",
  "Stores",
] as const;

/** How a cue starts, in words. */
export const startText = ({ trigger }: Cue): string =>
  trigger.kind === "go"
    ? "go"
    : trigger.kind === "auto"
      ? `${plain(trigger.after)} s after the previous go`
      : `${plain(trigger.after)} s after the previous cue is complete`;

/** What is special about a cue, in words. @param broken whether its signed look differs now. */
export function marksText(list: CueList, cue: Cue, broken: boolean): string {
  const end = reachText(list, cue);
  const { curve, families } = cue.times;
  return [
    cue.fresh && "fresh start",
    cue.assert && "assert",
    end !== null && `reach ${end}`,
    cue.then && `then ${list.cues[cue.then]?.number ?? "?"}`,
    cue.runs && `runs ${cue.runs}`,
    curve && `intensity ${curve}`,
    ...Object.entries(families).map(
      ([family, t]) =>
        `${family.toLowerCase()} ${[t.delay !== undefined && `delay ${plain(t.delay)}`, t.fade !== undefined && `fade ${plain(t.fade)}`].filter(Boolean).join(" ")} s`,
    ),
    cue.signed && (broken ? "signed, changed since" : "signed"),
  ]
    .filter(Boolean)
    .join(", ");
}

/** The rows of a cue sheet, list by list in their order. @param list of one list alone. */
export function cueRows(show: Show, list?: CueList): string[][] {
  const broken = new Set([...brokenLooks(show)].map((b) => b.cue.id));
  return (list ? [list] : listsByNumber(show)).flatMap((owner) =>
    cuesOf(owner).map((cue) => {
      const fixtures = new Set(Object.keys(cue.entries).map((key) => splitKey(key).fixture)).size;
      const values = Object.keys(cue.entries).length;
      const { up, down, delayUp, delayDown } = cue.times;
      return [
        String(owner.number),
        plain(cue.number, 3),
        cue.name,
        cue.note,
        plain(up),
        plain(delayUp),
        plain(down),
        plain(delayDown),
        startText(cue),
        marksText(owner, cue, broken.has(cue.id)),
        values === 0 ? "nothing" : `${plural(values, "value")} of ${plural(fixtures, "fixture")}`,
      ];
    }),
  );
}

/** The cue sheet as CSV. */
export const writeCues = (show: Show, list?: CueList): string => writeTable([[...CUE_TITLES], ...cueRows(show, list)]);
