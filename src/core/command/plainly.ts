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

/** From the words of a line to lines it could mean. */
type Rewriting = (words: readonly string[]) => string[];

const is = (word: string | undefined, ...of: string[]): boolean =>
  word !== undefined && of.includes(word.toLowerCase());
const isNumber = (word: string | undefined): boolean => word !== undefined && /^[-+]?\d/.test(word);
const joined = (...parts: (string | readonly string[])[]): string => parts.flat().filter(Boolean).join(" ");
const MOST_NAME_WORDS = 4;

/** `1 thru 6 red`, `at red`, `colour at deep water`: the last words are a colour. */
const colours: Rewriting = (words) => {
  for (let n = Math.min(3, words.length); n > 0; n--) {
    const found = colourNamed(words.slice(-n).join(" ").toLowerCase());
    if (!found) continue;
    let before = words.slice(0, -n);
    while (is(before.at(-1), "at", "colour", "color")) before = before.slice(0, -1);
    return [joined(before, "colour", found)];
  }
  return [];
};

/** `full`, `1 thru 6 out`. */
const levels: Rewriting = (words) =>
  is(words.at(-1), "full", "out") && !is(words.at(-2), "at") ? [joined(words.slice(0, -1), "at", words.slice(-1))] : [];

/** `pan 20`, `1 pan -20 tilt 10`: each word before a number in its turn. */
const values: Rewriting = (words) =>
  words.flatMap((word, k) =>
    /^[a-z]\w\w/i.test(word) && isNumber(words[k + 1]) ? [joined(words.slice(0, k + 1), "at", words.slice(k + 1))] : [],
  );

/** `set cue 1 21 thru 36 at 20`: a level is one of intensity. */
const inCue: Rewriting = (words) => {
  const at = words.findIndex((word) => is(word, "at"));
  return is(words[0], "set") && at > 0 ? [joined(words.slice(0, at), "intensity", words.slice(at))] : [];
};

/** `go 4`, `record 4 fade 3`, `update 4`, `cue 4`: numbers are of cues, of a go of lists too. */
const cues: Rewriting = ([verb = "", ...rest]) => {
  if (!isNumber(rest[0])) return [];
  if (is(verb, "cue")) return [joined("go cue", rest), joined("take cue", rest)];
  if (is(verb, "go")) return [joined("go cue", rest), joined("go list", rest)];
  return is(verb, "rec", "record", "update", "block", "unblock", "take") ? [joined(verb, "cue", rest)] : [];
};

/** `group Rail at 50`, `patch 6 petrel spot`: names in quotes, the longest first. */
const names: Rewriting = (words) => {
  const kind = words.findIndex((word) => is(word, "group", "palette", "effect", "view", "macro"));
  const begin = kind >= 0 ? kind + 1 : is(words[0], "patch") ? 2 : words.length;
  const rest = words.slice(begin);
  if (rest.length === 0 || isNumber(rest[0]) || is(rest[0], "thru") || rest.some((w) => w.includes('"'))) return [];
  return rest
    .slice(0, MOST_NAME_WORDS)
    .map((_, k, { length }) => length - k)
    .map((n) => joined(words.slice(0, begin), `"${rest.slice(0, n).join(" ")}"`, rest.slice(n)));
};

/** `patch 1 thru 6 petrel-spot at 2.1`: which numbers, and an address with a point. */
const patches: Rewriting = (words) => {
  if (!is(words[0], "patch")) return [];
  const [, from, thru, to, ...rest] = words;
  const count = Number(to) - Number(from) + 1;
  const named = rest.findIndex((word, k) => word.endsWith('"') && (k > 0 || word.length > 1));
  const type = rest[0]?.startsWith('"') && named >= 0 ? named + 1 : 1;
  const counted = is(thru, "thru", "..") && count > 0 && rest.length > 0;
  const address = words.findIndex((word, k) => is(words[k - 1], "at") && /^\d+[./]\d+$/.test(word));
  return [
    ...(address < 0
      ? []
      : [joined(words.slice(0, address), words[address]!.replace(/[./]/, ":"), words.slice(address + 1))]),
    ...(counted ? [joined("patch", String(count), rest.slice(0, type), "as", from!, rest.slice(type))] : []),
  ];
};

const REWRITINGS: readonly Rewriting[] = [colours, levels, cues, values, inCue, names, patches];

/**
 * The lines a text could mean that is none itself: the nearest to what was typed, in their order. None for a line that
 * can be done as it stands; a bare number means no level, as it is a fixture.
 * @param possible whether a line can be done in the present show. @param reads whether it is one that means something
 * there. @param isLine whether it is one of the language, whatever it is about: where none can be done, the nearest that
 * are, so that they tell why not; a text that is one itself tells its own reason. @param readsWhole whether it is one without a word
 * shortened: a colour's name is more than the beginning of another word (`red`, of redo).
 */
export function meanings(
  text: string,
  possible: (line: string) => boolean,
  reads: (line: string) => boolean,
  isLine: (line: string) => boolean,
  readsWhole: (line: string) => boolean = reads,
): readonly string[] {
  const line = text.trim().replace(/\s+/g, " ");
  if (line === "" || line.length > MOST_LETTERS) return [];
  const isColour = colourNamed(line.toLowerCase()) !== undefined;
  if (isColour ? readsWhole(line) : reads(line)) return [];
  const seen = new Set([line]);
  let now = [line];
  let nearest: readonly string[] = [];
  for (let step = 0; step < MOST_STEPS && now.length > 0; step++) {
    const made = now.flatMap((from) => REWRITINGS.flatMap((rewrite) => rewrite(from.split(" "))));
    now = [...new Set(made)].filter((next) => !seen.has(next)).slice(0, Math.max(0, MOST_TRIED - seen.size));
    now.forEach((next) => seen.add(next));
    const lines = now.filter(isLine);
    const found = lines.filter((next) => reads(next) && possible(next));
    if (found.length > 0) return found;
    if (nearest.length === 0) nearest = lines;
  }
  return isLine(line) ? [] : nearest;
}

/** What a line that is one could mean besides, for who has something selected: a number alone is a level, too. */
export const couldMeanToo = (text: string): string[] => {
  const line = text.trim();
  return /^\d{1,3}$/.test(line) && Number(line) <= 100 ? [`at ${line}`] : [];
};

/** A cue by its numbers. */
export interface CueNumbers {
  list: number;
  cue: number;
}

const TIMES = ["fade", "up", "down", "delay", "updelay", "downdelay"];

/** What a time by itself could mean right after a cue was recorded (`fade 3`): times of that cue, or of what is held. @param recorded is asked only for such a time. */
export function timesAfter(text: string, recorded: () => CueNumbers | null): string[] {
  const words = text.trim().split(" ").filter(Boolean);
  if (words.length !== 2 || !is(words[0], ...TIMES) || !isNumber(words[1])) return [];
  const of = recorded();
  return of ? [joined("set list", String(of.list), "cue", String(of.cue), words), joined(words)] : [];
}
