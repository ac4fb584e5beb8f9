/** SEL: a selection in the command language. */
import type { Sel, SelTerm } from "../select/expression";
import { fixturesByNumber, groupsByNumber } from "../show/world";
import { HIGHEST, within } from "./bounds";
import { expect, wordAt, type Match, type MatchState, type SlotParser } from "./grammar";

const WHOLE = /^\d+$/;
const CELL = /^(\d+)\.(\d+)$/;

function numberAt(state: MatchState, pos: number, pattern: RegExp): RegExpExecArray | null {
  const token = state.tokens[pos];
  const found = token?.kind === "number" ? pattern.exec(token.text) : null;
  return found && within(state, pos, Number(found[1] ?? found[0]), "a number", 0, HIGHEST) ? found : null;
}

function term(state: MatchState, pos: number): Match<SelTerm> | undefined {
  if (state.expected)
    expect(state, pos, {
      text: "a fixture number",
      isWord: false,
      offers: fixturesByNumber(state.world.show)
        .slice(0, 3)
        .map((f) => String(f.number)),
    });
  const cell = numberAt(state, pos, CELL);
  if (cell) {
    const [fixture, from] = [Number(cell[1]), Number(cell[2])];
    const end = wordAt(state, pos + 1, "thru") ? numberAt(state, pos + 2, CELL) : null;
    if (end && Number(end[1]) === fixture)
      return { pos: pos + 3, value: { kind: "cells", fixture, from, to: Number(end[2]) } };
    return { pos: pos + 1, value: { kind: "cell", fixture, cell: from } };
  }
  const whole = numberAt(state, pos, WHOLE);
  if (whole) {
    const from = Number(whole[0]);
    if (wordAt(state, pos + 1, "thru")) {
      expect(state, pos + 2, { text: "a fixture number", isWord: false });
      const end = numberAt(state, pos + 2, WHOLE);
      return end ? { pos: pos + 3, value: { kind: "range", from, to: Number(end[0]) } } : undefined;
    }
    return { pos: pos + 1, value: { kind: "fixture", number: from } };
  }
  if (wordAt(state, pos, "in") && wordAt(state, pos + 1, "universe")) {
    expect(state, pos + 2, { text: "a universe", isWord: false });
    const number = numberAt(state, pos + 2, WHOLE);
    return number ? { pos: pos + 3, value: { kind: "universe", number: Number(number[0]) } } : undefined;
  }
  if (wordAt(state, pos, "with") && wordAt(state, pos + 1, "palette")) {
    expect(state, pos + 2, { text: "a palette number", isWord: false });
    const number = numberAt(state, pos + 2, WHOLE);
    return number ? { pos: pos + 3, value: { kind: "palette", number: Number(number[0]) } } : undefined;
  }
  if (wordAt(state, pos, "same") && wordAt(state, pos + 1, "colour"))
    return { pos: pos + 2, value: { kind: "sameColour" } };
  for (const kind of ["all", "lit", "last", "alike", "unpatched", "unused"] as const)
    if (wordAt(state, pos, kind)) return { pos: pos + 1, value: { kind } };
  if (wordAt(state, pos, "group")) return group(state, pos + 1);
  return undefined;
}

function group(state: MatchState, pos: number): Match<SelTerm> | undefined {
  if (state.expected)
    expect(state, pos, {
      text: "a group number or name",
      isWord: false,
      offers: groupsByNumber(state.world.show).map((g) => String(g.number)),
    });
  const token = state.tokens[pos];
  if (token?.kind === "text") return { pos: pos + 1, value: { kind: "groupNamed", name: token.text } };
  const from = numberAt(state, pos, WHOLE);
  if (!from) return undefined;
  if (!wordAt(state, pos + 1, "thru")) return { pos: pos + 1, value: { kind: "group", number: Number(from[0]) } };
  const to = numberAt(state, pos + 2, WHOLE);
  return to ? { pos: pos + 3, value: { kind: "groups", from: Number(from[0]), to: Number(to[0]) } } : undefined;
}

/** Reads a SEL as far as it goes. */
export const selSlot: SlotParser<Sel> = (state, pos) => {
  const first = term(state, pos);
  if (!first) return [];
  const sel: Sel = { terms: [{ sign: "+", term: first.value }], cells: false, every: 1 };
  let here = first.pos;
  for (;;) {
    const sign = wordAt(state, here, "+") ? "+" : wordAt(state, here, "-") ? "-" : undefined;
    if (!sign) break;
    const next = term(state, here + 1);
    if (!next) return [];
    sel.terms.push({ sign, term: next.value });
    here = next.pos;
  }
  if (wordAt(state, here, "cells")) {
    sel.cells = true;
    here += 1;
  }
  if (wordAt(state, here, "every")) {
    const every = numberAt(state, here + 1, WHOLE);
    expect(state, here + 1, { text: "how many", isWord: false });
    if (!every || Number(every[0]) < 1) return [];
    sel.every = Number(every[0]);
    here += 2;
  }
  return [{ pos: here, value: sel }];
};
