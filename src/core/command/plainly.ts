/** What is typed by those who do not know the language yet: the lines of ours that it could mean. */
import { FILTER_COLOURS } from "../colour/filterList";

/** Longer lines are typed by nobody who does not know the language. */
const MOST_LETTERS = 120;
/** Rewritings looked at for one line. */
const MOST_TRIED = 24;
/** A line is rewritten so often in a row at most: `1 pan 20 tilt 10` takes two. */
const MOST_STEPS = 3;

/** Plain words for colours, as lines have them after `colour`. */
const COLOURS: Record<string, string> = {
  red: "at #ff0000",
  green: "at #00ff00",
  blue: "at #0000ff",
  cyan: "at #00ffff",
  magenta: "at #ff00ff",
  yellow: "at #ffff00",
  amber: "at #ffbf00",
  orange: "at #ff8000",
  pink: "at #ff80c0",
  purple: "at #8000ff",
  violet: "at #8000ff",
  lavender: "at #b080ff",
  turquoise: "at #00e0c0",
  white: "at 5600K",
  "warm white": "at 3200K",
  "cold white": "at 6500K",
  "cool white": "at 6500K",
};
const FILTERS = new Map(FILTER_COLOURS.map(({ name }) => [name.toLowerCase(), `filter "${name}"`]));
const colourNamed = (name: string): string | undefined => COLOURS[name] ?? FILTERS.get(name);

type Rewriting = (line: string) => string[];

/** `1 thru 6 red`, `at red`, `colour at deep water`: the last words are a colour. */
const colours: Rewriting = (line) => {
  const [, before = "", name = ""] = /^(.*?)\s*\b(?:(?:colou?r|at)\s+)*([a-z]+(?: [a-z]+){0,2})$/i.exec(line) ?? [];
  const found = colourNamed(name.toLowerCase());
  return found ? [`${before} colour ${found}`.trim()] : [];
};

/** `full`, `1 thru 6 out`. */
const levels: Rewriting = (line) => {
  const [, before = "", level] = /^(.*?)\s*\b(full|out)$/i.exec(line) ?? [];
  return level && !/\bat$/i.test(before) ? [`${before} at ${level}`.trim()] : [];
};

/** `pan 20`, `1 pan -20 tilt 10`: each word before a number in its turn. */
const values: Rewriting = (line) =>
  [...line.matchAll(/\b([a-z]\w{2,})\s+(?=[-+]?\d)/gi)].map(
    ({ index, 0: all, 1: word }) => `${line.slice(0, index)}${word} at ${line.slice(index + all.length)}`,
  );

/** `set cue 1 21 thru 36 at 20`: a level is one of intensity. */
const inCue: Rewriting = (line) =>
  /^set (list \d+ )?cue \S+ /i.test(line) ? [line.replace(/\s+at\s+/i, " intensity at ")] : [];

/** `go 4`, `record 4 fade 3`, `update 4`, `cue 4`: numbers are of cues, of a go of lists too. */
const cues: Rewriting = (line) => {
  const [, verb = "", rest = ""] = /^(go|rec|record|update|block|unblock|take)\s+(\d.*)$/i.exec(line) ?? [];
  const [, number] = /^cue\s+(\d\S*)$/i.exec(line) ?? [];
  if (number) return [`go cue ${number}`, `take cue ${number}`];
  if (!verb) return [];
  return [`${verb} cue ${rest}`, ...(/^go$/i.test(verb) ? [`go list ${rest}`] : [])];
};

/** `group Rail at 50`, `patch 6 petrel spot`: names in quotes, the longest first. */
const names: Rewriting = (line) => {
  const [, before = "", after = ""] =
    /^(.*?\b(?:group|palette|effect|view|macro|patch \d+)\s+)((?!thru\b)[a-z][^"]*)$/i.exec(line) ?? [];
  const words = after.split(/\s+/).filter(Boolean);
  return words
    .slice(0, 4)
    .map((_, k, { length }) => length - k)
    .map((n) => `${before}"${words.slice(0, n).join(" ")}" ${words.slice(n).join(" ")}`.trim());
};

/** `patch 1 thru 6 petrel-spot at 2.1`: which numbers, and an address with a point. */
const patches: Rewriting = (line) => {
  if (!/^patch\b/i.test(line)) return [];
  const addressed = line.replace(/\bat\s+(\d+)[./](\d+)\b/i, "at $1:$2");
  const [, from, to, type, rest = ""] =
    /^patch\s+(\d+)\s*(?:thru|\.\.|-)\s*(\d+)\s+("[^"]*"|\S+)(.*)$/i.exec(line) ?? [];
  const count = Number(to) - Number(from) + 1;
  return [
    ...(addressed === line ? [] : [addressed]),
    ...(from && count > 0 ? [`patch ${count} ${type} as ${from}${rest}`] : []),
  ];
};

const REWRITINGS: readonly Rewriting[] = [colours, levels, cues, values, inCue, names, patches];

/**
 * The lines a text could mean that is none itself: the nearest to what was typed, in their order. None for a line that
 * can be done as it stands; a bare number means no level, as it is a fixture.
 * @param possible whether a line can be done in the present show. @param reads whether it is a line at all: where none
 * can be done, the nearest that read, so that they tell why not.
 */
export function meanings(
  text: string,
  possible: (line: string) => boolean,
  reads: (line: string) => boolean,
): readonly string[] {
  const line = text.trim().replace(/\s+/g, " ");
  if (line === "" || line.length > MOST_LETTERS || reads(line)) return [];
  const seen = new Set([line]);
  let now = [line];
  let nearest: readonly string[] = [];
  for (let step = 0; step < MOST_STEPS && now.length > 0; step++) {
    const made = now.flatMap((from) => REWRITINGS.flatMap((rewrite) => rewrite(from)));
    now = [...new Set(made)].filter((next) => !seen.has(next)).slice(0, Math.max(0, MOST_TRIED - seen.size));
    now.forEach((next) => seen.add(next));
    const reading = now.filter(reads);
    const found = reading.filter(possible);
    if (found.length > 0) return found;
    if (nearest.length === 0) nearest = reading;
  }
  return nearest;
}
