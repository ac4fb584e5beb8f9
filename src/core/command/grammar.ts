/**
 * The grammar's machinery. A command's syntax is written as a line:
 *   word            that word (several by |, in brackets where needed)
 *   <name:kind>     a slot, read by the parser of its kind; <kind> is short for <kind:kind>
 *   [ ... ]         may be left out; neighbours that may be left out come in any order
 *   ( a | b )       a choice
 * The same line is parsed against, completed from and printed in docs/commands.md.
 */
import type { World } from "../show/world";
import type { Args, SlotValues } from "./args";
import type { Token } from "./lexer";

export interface Expectation {
  /** A word that could follow, or a slot in words ("a fixture number"). */
  text: string;
  isWord: boolean;
  /** Things of the show that would do, for completion. */
  offers?: readonly string[];
}

export interface MatchState {
  /** The line as it was typed. */
  source: string;
  tokens: readonly Token[];
  /** Whether beginnings of words count. */
  abbreviate: boolean;
  world: World;
  /** What could have stood at each place; undefined while nobody asks: most lines are right. */
  expected: Map<number, Expectation[]> | undefined;
  /** Numbers outside of what they can be, by their place, with what they go from and to. */
  beyond: Map<number, string>;
}

export interface Match<T = Args> {
  pos: number;
  value: T;
}

/** A way a part of a line can be read, with how many of its words are shortened. */
interface WayRead extends Match {
  short: number;
}

/** Reads a slot at a place; the readings in order of preference. */
export type SlotParser<T> = (state: MatchState, pos: number) => Match<T>[];

/** The parsers of the kinds of slots a table of commands uses. */
export type Slots = { readonly [K in keyof SlotValues]?: SlotParser<SlotValues[K]> };

type Node =
  | { t: "word"; word: string }
  | { t: "slot"; name: string; kind: string }
  | { t: "seq"; items: Node[] }
  | { t: "any"; options: Node[] }
  | { t: "alt"; options: Node[] };

/** Notes what could stand at a place, where somebody asks. */
export function expect(state: MatchState, pos: number, expectation: Expectation): void {
  if (!state.expected) return;
  const list = state.expected.get(pos);
  if (!list) state.expected.set(pos, [expectation]);
  else if (!list.some((e) => e.text === expectation.text)) list.push(expectation);
}

/** Whether a word stands at a place; noted as expected either way. */
export function wordAt(state: MatchState, pos: number, word: string): boolean {
  if (state.expected) expect(state, pos, { text: word, isWord: true });
  const token = state.tokens[pos];
  if (!token || (token.kind !== "word" && token.kind !== "sign")) return false;
  const text = token.text.toLowerCase();
  return text === word || (state.abbreviate && token.kind === "word" && word.startsWith(text));
}

const compiled = new Map<string, Node>();

/** The tree of a syntax line. @throws where the line itself is malformed: a mistake in our own tables. */
export function compileSyntax(syntax: string): Node {
  const known = compiled.get(syntax);
  if (known) return known;
  const parts = syntax.match(/<[^<>]+>|[[\]()|]|[^\s[\]()|<>]+/g) ?? [];
  let at = 0;
  const choice = (end: string | undefined): Node => {
    const options: Node[] = [];
    let items: Node[] = [];
    while (at < parts.length && parts[at] !== end) {
      const part = parts[at++]!;
      if (part === "|") {
        options.push({ t: "seq", items });
        items = [];
      } else if (part === "[") {
        const inner = choice("]");
        const last = items.at(-1);
        if (last?.t === "any") last.options.push(inner);
        else items.push({ t: "any", options: [inner] });
      } else if (part === "(") items.push(choice(")"));
      else if (part.startsWith("<")) {
        const [name, kind] = part.slice(1, -1).split(":") as [string, string?];
        items.push({ t: "slot", name, kind: kind ?? name });
      } else items.push({ t: "word", word: part.toLowerCase() });
    }
    if (end !== undefined && parts[at++] !== end) throw new Error(`syntax line without its ${end}: ${syntax}`);
    options.push({ t: "seq", items });
    return options.length === 1 ? options[0]! : { t: "alt", options };
  };
  const node = choice(undefined);
  compiled.set(syntax, node);
  return node;
}

/** The words a node can begin with; undefined where it may begin otherwise. */
export function firstWords(node: Node): ReadonlySet<string> | undefined {
  const known = beginnings.get(node);
  if (known !== undefined) return known ?? undefined;
  const found = beginningsOf(node);
  beginnings.set(node, found ?? null);
  return found;
}
const beginnings = new Map<Node, ReadonlySet<string> | null>();

function beginningsOf(node: Node): ReadonlySet<string> | undefined {
  if (node.t === "word") return new Set([node.word]);
  if (node.t === "seq") return node.items[0] && firstWords(node.items[0]);
  if (node.t !== "alt") return undefined;
  const all = node.options.map(firstWords);
  return all.every((words) => words !== undefined) ? new Set(all.flatMap((words) => [...words])) : undefined;
}

/** Whether a node can begin with a token, judged by its words alone. */
export function mayBegin(node: Node, { tokens, abbreviate, expected }: MatchState, pos: number): boolean {
  const words = expected ? undefined : firstWords(node);
  if (!words) return true;
  const token = tokens[pos];
  if (!token || (token.kind !== "word" && token.kind !== "sign")) return false;
  const text = token.text.toLowerCase();
  if (words.has(text)) return true;
  return abbreviate && [...words].some((word) => word.startsWith(text));
}

/** All ways a node can be read from a place, longest optional parts first. */
export function* match(node: Node, state: MatchState, pos: number, slots: Slots): Generator<WayRead> {
  switch (node.t) {
    case "word":
      if (wordAt(state, pos, node.word)) {
        const short = state.tokens[pos]!.text.length < node.word.length ? 1 : 0;
        yield { pos: pos + 1, value: { [node.word]: true }, short };
      }
      return;
    case "slot": {
      const parser = slots[node.kind as keyof SlotValues];
      if (!parser) throw new Error(`no slot is called ${node.kind}`);
      for (const found of parser(state, pos)) yield { pos: found.pos, value: { [node.name]: found.value }, short: 0 };
      return;
    }
    case "seq":
      yield* sequence(node.items, 0, state, { pos, value: {}, short: 0 }, slots);
      return;
    case "alt":
      for (const option of node.options) yield* match(option, state, pos, slots);
      return;
    case "any":
      yield* anyOrder(node.options, state, { pos, value: {}, short: 0 }, slots);
  }
}

const joined = (so: WayRead, found: WayRead): WayRead => ({
  pos: found.pos,
  value: { ...so.value, ...found.value },
  short: so.short + found.short,
});

function* sequence(items: Node[], index: number, state: MatchState, so: WayRead, slots: Slots): Generator<WayRead> {
  if (index === items.length) {
    yield so;
    return;
  }
  for (const found of match(items[index]!, state, so.pos, slots)) {
    yield* sequence(items, index + 1, state, joined(so, found), slots);
  }
}

function* anyOrder(options: Node[], state: MatchState, so: WayRead, slots: Slots): Generator<WayRead> {
  for (const [i, option] of options.entries()) {
    const rest = options.filter((_, k) => k !== i);
    for (const found of match(option, state, so.pos, slots)) {
      if (found.pos > so.pos) yield* anyOrder(rest, state, joined(so, found), slots);
    }
  }
  yield so;
}
