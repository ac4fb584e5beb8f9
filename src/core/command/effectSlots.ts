/** Effects, waves and what voices are made of, in a line. */
import { CURVES, WAVES, type WaveName } from "../show/effectSchema";
import { BY, type Spread } from "../show/spreadSchema";
import { effectsByNumber, wavesByNumber } from "../show/world";
import { HIGHEST, within } from "./bounds";
import { expect, type Match, type MatchState, type SlotParser } from "./grammar";
import { paletteRef } from "./paletteSlots";
import { bounded, DECIMAL, number, SIGNED, WHOLE } from "./primitives";
import type { EndTyped, StopTyped } from "./voices";

const effect = bounded(WHOLE, "an effect number", 1, HIGHEST);

/** An effect by number or name. */
const effectRef: SlotParser<number | string> = (state, pos) => {
  if (state.expected)
    expect(state, pos, {
      text: "an effect number or name",
      isWord: false,
      offers: effectsByNumber(state.world.show)
        .slice(0, 60)
        .flatMap((e) => [String(e.number), ...(e.name ? [`"${e.name}"`] : [])]),
    });
  const token = state.tokens[pos];
  return token?.kind === "text" ? [{ pos: pos + 1, value: token.text }] : effect(state, pos);
};

const wordAt = (state: MatchState, pos: number): string => {
  const token = state.tokens[pos];
  return token?.kind === "word" ? token.text.toLowerCase() : "";
};

const waveRef: SlotParser<WaveName | { own: string }> = (state, pos) => {
  for (const wave of WAVES) expect(state, pos, { text: wave, isWord: true });
  if (state.expected)
    expect(state, pos, {
      text: "a wave of the show by name",
      isWord: false,
      offers: wavesByNumber(state.world.show).map((w) => `"${w.name}"`),
    });
  const token = state.tokens[pos];
  if (token?.kind === "text") return [{ pos: pos + 1, value: { own: token.text } }];
  const found = WAVES.find((wave) => wave === wordAt(state, pos));
  return found ? [{ pos: pos + 1, value: found }] : [];
};

const palette: SlotParser<EndTyped> = (state, pos) => {
  expect(state, pos, { text: "palette", isWord: true });
  return wordAt(state, pos) === "palette"
    ? paletteRef(state, pos + 1).map(({ pos: end, value }) => ({ pos: end, value: { palette: value } }))
    : [];
};

/** A number, full, out, or a palette. */
const end: SlotParser<EndTyped> = (state, pos) => {
  for (const word of ["full", "out"]) expect(state, pos, { text: word, isWord: true });
  expect(state, pos, { text: "a value", isWord: false });
  const word = wordAt(state, pos);
  if (word === "full" || word === "out") return [{ pos: pos + 1, value: word }];
  const found = state.tokens[pos] ? number(SIGNED)(state, pos) : undefined;
  if (found !== undefined && within(state, pos, found, "a value", -1_000_000, 1_000_000))
    return [{ pos: pos + 1, value: found }];
  return palette(state, pos);
};

const stop: SlotParser<StopTyped["value"]> = (state, pos) => {
  expect(state, pos, { text: "a colour such as #2ad1c9", isWord: false });
  const token = state.tokens[pos];
  return token?.kind === "colour" ? [{ pos: pos + 1, value: { colour: token.text.toLowerCase() } }] : end(state, pos);
};

const share = bounded(DECIMAL, "percent", 0, 100);

/** Stops one after another, each with its hold and its curve. */
const stops: SlotParser<StopTyped[]> = (state, pos) => {
  const read: StopTyped[] = [];
  let here = pos;
  for (;;) {
    const found: Match<StopTyped["value"]> | undefined = stop(state, here)[0];
    if (!found) return read.length >= 2 ? [{ pos: here, value: read }] : [];
    const made: StopTyped = { value: found.value };
    here = found.pos;
    for (let more = true; more;) {
      more = false;
      expect(state, here, { text: "hold", isWord: true });
      for (const curve of CURVES) expect(state, here, { text: curve, isWord: true });
      const word = wordAt(state, here);
      const hold = word === "hold" ? share(state, here + 1)[0] : undefined;
      const curve = CURVES.find((c) => c === word);
      if (hold) [made.hold, here, more] = [hold.value, hold.pos, true];
      else if (curve) [made.curve, here, more] = [curve, here + 1, true];
    }
    read.push(made);
  }
};

const place = bounded(DECIMAL, "percent", 0, 100);

/** X Y, X Y ...: points of a wave, percent each. */
const points: SlotParser<[number, number][]> = (state, pos) => {
  const read: [number, number][] = [];
  for (let here = pos; ; here += 3) {
    const x = place(state, here)[0];
    const y = x && place(state, here + 1)[0];
    if (!x || !y) return [];
    read.push([x.value, y.value]);
    expect(state, here + 2, { text: ",", isWord: true });
    if (state.tokens[here + 2]?.text !== ",") return [{ pos: here + 2, value: read }];
  }
};

const by: SlotParser<Spread["by"]> = (state, pos) => {
  const words = BY.filter((name) => name !== "steps");
  for (const word of words) expect(state, pos, { text: word, isWord: true });
  const found = words.find((name) => name === wordAt(state, pos));
  return found ? [{ pos: pos + 1, value: found }] : [];
};

export const EFFECT_SLOTS = {
  by,
  effect,
  effectRef,
  waveRef,
  end,
  stops,
  points,
  speed: bounded(DECIMAL, "beats a minute", 0, 6000),
};
