/** What slots are made of: one token of a kind, and numbers within bounds. */
import { within } from "./bounds";
import { ownUnitBehind } from "./measured";
import { expect, type MatchState, type SlotParser } from "./grammar";

/** A slot of one token. */
export function one<T>(
  kind: (state: MatchState, pos: number) => T | undefined,
  text: string,
  offers?: (state: MatchState) => readonly string[],
): SlotParser<T> {
  return (state, pos) => {
    if (state.expected) expect(state, pos, { text, isWord: false, ...(offers ? { offers: offers(state) } : {}) });
    const value = state.tokens[pos] ? kind(state, pos) : undefined;
    return value === undefined ? [] : [{ pos: pos + 1, value }];
  };
}

/** The number a token is, a unit behind it left out; undefined where it is none of that pattern. */
export const number = (pattern: RegExp) => (state: MatchState, pos: number) => {
  const token = state.tokens[pos]!;
  const bare = token.kind === "number" ? token.text.replace(/[%°]$/, "").trimEnd() : "";
  return pattern.test(bare) ? Number(bare) : undefined;
};

export const WHOLE = /^\d+$/;
export const DECIMAL = /^\d+(\.\d+)?$/;
export const SIGNED = /^[+-]?\d+(\.\d+)?$/;

/** A number that means something: outside of what it can be, it is not read, and the line says so. */
export function bounded(pattern: RegExp, text: string, low: number, high: number): SlotParser<number> {
  const read = one(number(pattern), text);
  return (state, pos) =>
    read(state, pos)
      .filter(({ value }) => within(state, pos, value, text, low, high))
      .flatMap((match) => {
        const unit = ownUnitBehind(state, pos, text);
        return unit && unit.pos > match.pos ? [{ ...match, pos: unit.pos }, match] : [match];
      });
}
