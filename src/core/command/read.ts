/** Reading a line: from text to what it asks for, or to why not and what could follow. */
import { attempt, fail, isRefusal, refuse, type Refusal } from "../show/refusal";
import type { Args, SlotValues } from "./args";
import type { Command, Reading } from "./command";
import type { ReadContext } from "./context";
import { DECK } from "./commands/deck";
import { EFFECTS } from "./commands/effects";
import { GROUPS } from "./commands/groups";
import { HOLDING, settingsSlot } from "./commands/hold";
import { CUES } from "./commands/cues";
import { CUE_VALUES } from "./commands/cueValues";
import { KEEPING } from "./commands/keep";
import { LISTS } from "./commands/lists";
import { PALETTES } from "./commands/palettes";
import { PLACES } from "./commands/places";
import { PLAYING } from "./commands/play";
import { RIG } from "./commands/rig";
import { SCRIPTS } from "./commands/script";
import { SELECTING } from "./commands/select";
import { WIRE } from "./commands/wire";
import {
  compileSyntax,
  expect,
  match,
  mayBegin,
  type Expectation,
  type MatchState,
  type SlotParser,
  type Slots,
} from "./grammar";
import { lex } from "./lexer";
import { SLOTS } from "./slots";

const numbers: SlotParser<number[]> = (state, pos) => {
  const read: number[] = [];
  for (let here = pos; state.tokens[here]?.kind === "number"; here++)
    read.push(Number(state.tokens[here]!.text.replace(/[%°]$/, "")));
  expect(state, pos, { text: "numbers", isWord: false });
  return read.length > 0 ? [{ pos: pos + read.length, value: read }] : [];
};

/** Fixture and cell numbers, as they are written. */
const items: SlotParser<string[]> = (state, pos) =>
  numbers(state, pos).map(({ pos: end }) => ({ pos: end, value: state.tokens.slice(pos, end).map((t) => t.text) }));

/** The rest of the line, as it is written. */
const line: SlotParser<string> = ({ tokens, source }, pos) =>
  tokens[pos] ? [{ pos: tokens.length, value: source.slice(tokens[pos].at, tokens.at(-1)!.end) }] : [];

const ALL_SLOTS: Slots = {
  ...SLOTS,
  settings: settingsSlot,
  numbers,
  bytes: numbers,
  items,
  line,
};

export const COMMANDS: readonly Command[] = [
  ...SELECTING,
  ...EFFECTS,
  ...HOLDING,
  ...RIG,
  ...PLACES,
  ...WIRE,
  ...GROUPS,
  ...PALETTES,
  ...KEEPING,
  ...CUES,
  ...CUE_VALUES,
  ...LISTS,
  ...DECK,
  ...PLAYING,
];
export const SCRIPT_COMMANDS: readonly Command[] = SCRIPTS;

export interface ReadOptions {
  /** Whether beginnings of words count (the Ask bar); scripts spell words out. */
  abbreviate?: boolean;
  /** Whether script lines are known too. */
  script?: boolean;
}

interface Parsed {
  command: Command;
  args: Args;
}

function stateOf(text: string, context: ReadContext, options: ReadOptions, collects: boolean): MatchState {
  return {
    source: text,
    tokens: lex(text),
    abbreviate: options.abbreviate ?? false,
    world: context.world,
    expected: collects ? new Map() : undefined,
    beyond: new Map(),
  };
}

/** The first command that reads the whole line. Short forms ask every command; the reading that shortens the fewest words counts. */
function parse(state: MatchState, options: ReadOptions): Parsed | undefined {
  let best: (Parsed & { short: number }) | undefined;
  for (const command of options.script ? [...SCRIPTS, ...COMMANDS] : COMMANDS) {
    const node = compileSyntax(command.syntax);
    if (!mayBegin(node, state, 0)) continue;
    for (const found of match(node, state, 0, ALL_SLOTS)) {
      if (found.pos !== state.tokens.length) continue;
      if (!best || found.short < best.short) best = { command, args: found.value, short: found.short };
      if (!options.abbreviate) return best;
    }
  }
  return best;
}

const quoted = (items: readonly string[], most = 6): string =>
  items.slice(0, most).join(", ") + (items.length > most ? " ..." : "");

function whereItStops(text: string, state: MatchState): Refusal {
  const last = Math.max(...state.expected!.keys(), 0);
  const token = state.tokens[last];
  const could = (state.expected!.get(last) ?? []).map((e) => e.text);
  const after = last > 0 ? ` after "${text.slice(0, state.tokens[last - 1]!.end)}"` : "";
  const beyond = state.beyond.get(last);
  if (token && beyond) return refuse(`"${text.slice(token.at, token.end)}" is out of range${after}: ${beyond}`);
  const cure = could.length ? `Expected: ${quoted(could)}` : undefined;
  if (token) return refuse(`"${text.slice(token.at, token.end)}" is not understood${after}`, cure);
  return refuse(`not finished after "${text.trim()}"`, cure);
}

/** A shortened word that begins several words at its place. */
function ambiguity(state: MatchState): Refusal | undefined {
  for (const [pos, expected] of state.expected!) {
    const token = state.tokens[pos];
    if (token?.kind !== "word") continue;
    const typed = token.text.toLowerCase();
    const words = [...new Set(expected.filter((e) => e.isWord && e.text.startsWith(typed)).map((e) => e.text))];
    if (words.length > 1 && !words.includes(typed))
      return refuse(`"${token.text}" could be ${quoted(words)}`, "Type a letter more");
  }
  return undefined;
}

export interface Read extends Reading {
  command: Command;
}

/**
 * Reads one line in the present world.
 * @returns what it asks for, undefined for an empty line or a comment, or the refusal with what could follow.
 */
export function readLine(text: string, context: ReadContext, options: ReadOptions = {}): Read | Refusal | undefined {
  return attempt(() => {
    // Short forms have to know what else they could mean.
    const state = stateOf(text, context, options, options.abbreviate ?? false);
    if (state.tokens.length === 0) return undefined;
    const parsed = parse(state, options);
    const unclear = options.abbreviate ? ambiguity(state) : undefined;
    if (unclear) fail(unclear.what, unclear.cure);
    if (!parsed) {
      // Only a line that is none is read once more, to tell where it stops.
      const again = stateOf(text, context, options, true);
      parse(again, options);
      const stop = whereItStops(text, again);
      fail(stop.what, stop.cure);
    }
    return { ...parsed.command.read(parsed.args, context), command: parsed.command };
  });
}

/** Whether a text is a line of the language, whatever becomes of it in the present show; words may be shortened. */
export function isLine(text: string, context: ReadContext): boolean {
  const parsed = attempt(() => parse(stateOf(text, context, { abbreviate: true }, false), { abbreviate: true }));
  return parsed !== undefined && !isRefusal(parsed);
}

/**
 * Reads a text that is typed into a field, as one kind of slot: "20 to 80" as values, "1 1 2" as steps.
 * @returns what it means, or the refusal with what it should be.
 */
export function readAs<K extends keyof SlotValues>(
  kind: K,
  text: string,
  context: ReadContext,
): SlotValues[K] | Refusal {
  return attempt(() => {
    const state = stateOf(text, context, { abbreviate: true }, true);
    const parser = ALL_SLOTS[kind]!;
    const found = parser(state, 0).find((f) => f.pos === state.tokens.length);
    if (found && state.tokens.length > 0) return found.value;
    const stop = whereItStops(text, state);
    return fail(stop.what, stop.cure);
  });
}

/** What a line stops at: the word being typed at its end, and what could stand there. */
function endOf(text: string, context: ReadContext): { typed: string; expected: Expectation[] } | undefined {
  const tokens = attempt(() => lex(text));
  if (isRefusal(tokens)) return undefined;
  const last = tokens.at(-1);
  const typing = last !== undefined && last.end === text.length && last.kind !== "text" ? last : undefined;
  const state: MatchState = {
    source: text,
    tokens: typing ? tokens.slice(0, -1) : tokens,
    abbreviate: true,
    world: context.world,
    expected: new Map(),
    beyond: new Map(),
  };
  for (const command of COMMANDS)
    for (const found of match(compileSyntax(command.syntax), state, 0, ALL_SLOTS)) void found;
  return { typed: typing?.text.toLowerCase() ?? "", expected: state.expected!.get(state.tokens.length) ?? [] };
}

/**
 * What could follow in a line that is refused as it stands but may still become one: the words that begin
 * as its last one does, or what has to come next. Undefined where it can become none.
 */
export function couldFollow(text: string, context: ReadContext): string | undefined {
  if ((text.match(/"/g)?.length ?? 0) % 2 === 1) return 'the name, closed with "';
  const end = endOf(text, context);
  if (!end) return undefined;
  const all = end.expected.flatMap((e) => [...(e.isWord || end.typed === "" ? [e.text] : []), ...(e.offers ?? [])]);
  const growing = [...new Set(all)].filter(
    (word) => word.toLowerCase().startsWith(end.typed) && word.toLowerCase() !== end.typed,
  );
  if (growing.length > 0) return quoted(growing);
  // A whole word, with something still to come.
  const next = end.typed === "" ? undefined : endOf(`${text} `, context);
  return next && next.expected.length > 0 && stopsEarly(text, context)
    ? quoted([...new Set(next.expected.map((e) => e.text))])
    : undefined;
}

/** Whether a line is right as far as it goes and only stops too early. */
function stopsEarly(text: string, context: ReadContext): boolean {
  const state = stateOf(text, context, { abbreviate: true }, true);
  if (parse(state, { abbreviate: true })) return false;
  return Math.max(...state.expected!.keys(), 0) >= state.tokens.length;
}

export interface Completion {
  /** What would be put in place of the last, unfinished word. */
  text: string;
  /** The line with it. */
  line: string;
  isWord: boolean;
}

/** What could follow at the end of a line being typed: words and things of the show that begin as typed, then what a slot wants. */
export function complete(text: string, context: ReadContext): Completion[] {
  const end = endOf(text, context);
  if (!end) return [];
  const { typed, expected } = end;
  const stem =
    typed !== ""
      ? text.slice(0, text.length - typed.length)
      : text.length > 0 && !text.endsWith(" ")
        ? `${text} `
        : text;
  const seen = new Set<string>();
  const out: Completion[] = [];
  const add = (offer: string, isWord: boolean) => {
    if (seen.has(offer) || !offer.toLowerCase().startsWith(typed) || offer.toLowerCase() === typed) return;
    seen.add(offer);
    out.push({ text: offer, line: isWord ? `${stem}${offer} ` : stem, isWord });
  };
  for (const e of expected) {
    if (e.isWord) add(e.text, true);
    for (const offer of e.offers ?? []) add(offer, true);
    if (!e.isWord && typed === "") add(e.text, false);
  }
  return out;
}
