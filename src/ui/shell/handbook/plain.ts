/** What can be typed on the first day: plain lines, each with the line it is taken for. */
export interface PlainLine {
  typed: string;
  means: string;
  about: string;
}

export const PLAIN: readonly PlainLine[] = [
  {
    typed: "patch 101 thru 106 petrel-spot",
    means: "patch 6 petrel-spot as 101",
    about: "six fixtures of a type, numbered 101 to 106, at the next free addresses",
  },
  { typed: "1 thru 6 full", means: "1 thru 6 at full", about: "selects fixtures 1 to 6 and holds them at full" },
  { typed: "1 thru 6 red", means: "1 thru 6 colour at #ff0000", about: "a colour by its name, or by that of a filter" },
  { typed: "1 pan 20", means: "1 pan at 20", about: "an attribute and its value" },
  { typed: "record 9", means: "record cue 9", about: "keeps what is held as cue 9" },
  {
    typed: "set cue 9 1 thru 6 at 20",
    means: "set cue 9 1 thru 6 intensity at 20",
    about: "a level in the cue itself, nothing held",
  },
];
