/** Syntax lines for readers: the handbook in docs/ and in the app. */

/** Slots as readers see them: <sel> is SEL, <count:int> is N. */
const SHOWN: Record<string, string> = {
  sel: "SEL",
  attr: "ATTR",
  what: "WHAT",
  int: "N",
  whole: "N",
  number: "N",
  seconds: "SECONDS",
  times: "S [to S ...]",
  percent: "PERCENT",
  cue: "N",
  values: "V [to V ...]",
  text: '"NAME"',
  address: "U:S",
  colour: "#rrggbb",
  settings: "SETTING ...",
  numbers: "V ...",
  bytes: "BYTE ...",
  items: "N ...",
  line: "LINE",
  frames: "H:M:S",
  frameRate: "24|25|29.97|30",
  texts: '"LINE" ...',
  type: "TYPE",
  mode: "MODE",
  family: "FAMILY",
};

/** A syntax line as it is read: slots by their meaning, choices without their brackets. */
export const shownSyntax = (syntax: string): string =>
  syntax
    .replace(
      /<([^<>:]+)(?::([^<>]+))?>/g,
      (_, name: string, kind?: string) => SHOWN[kind ?? name] ?? name.toUpperCase(),
    )
    .replace(/\(([^()]*)\)/g, "$1");
