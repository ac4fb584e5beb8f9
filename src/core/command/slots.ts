/** The slots of the grammar: how each kind of thing is read. */
import { MOST_PLACES } from "../show/deckSchema";
import { framesOfText, type FrameRate } from "../timecode/frames";
import { attributeInfo, ATTRIBUTES, FAMILY_WORDS, FAMILIES, type Family } from "../fixture/attribute";
import { LIBRARY } from "../fixture/library/library";
import { COLDEST, HOTTEST } from "../colour/chromaticity";
import { parseAddress } from "../show/address";
import { HIGHEST, within } from "./bounds";
import { EFFECT_SLOTS } from "./effectSlots";
import { own } from "../show/hasOwn";
import { grouped } from "../units/grouped";
import { expect, type MatchState, type SlotParser, type Slots } from "./grammar";
import { palette, paletteRef } from "./paletteSlots";
import { unitBehind } from "./measured";
import { bounded, DECIMAL, number, one, SIGNED, WHOLE } from "./primitives";
import { selSlot } from "./selSlot";
import type { Amount, Amounts, What } from "./what";

const named = (state: MatchState, pos: number): string | undefined => {
  const token = state.tokens[pos]!;
  return token.kind === "word" || token.kind === "text" ? token.text.toLowerCase() : undefined;
};

type AttributeName = readonly [words: readonly string[], name: string];

/** Attribute names as they are typed: GDTF names, and plain words of one or two parts. */
const attributeNames = ATTRIBUTES.flatMap((info): AttributeName[] => [
  [[info.name.toLowerCase()], info.name],
  ...(info.word ? [[info.word.split(" "), info.name] as const] : []),
]).sort((a, b) => b[0].length - a[0].length);
/** Asked of every word of every line: by the letter they begin with. */
const namesByLetter = grouped(attributeNames, ([words]) => words[0]!.charAt(0));
const NO_NAMES: readonly AttributeName[] = [];

/** Words of the language that no pretty name of a maker's takes away. */
const TAKEN = new Set(
  "as at by to in on off thru with over each every cells full out home locate align fade delay curve up down wave stops stop effect palette colour color kelvin filter relative size low high hard release clear name note type any only whole mirror bunch repeat group universe cue list none own follow sine rampup rampdown triangle square random bpm across width start direction place turn aim hang same"
    .split(" ")
    .concat(
      attributeNames.map(([words]) => words[0]!),
      Object.keys(FAMILY_WORDS),
    ),
);
const isWord = (text: string): boolean => /^[a-z_][\w-]*$/.test(text);
const ofTypes = new WeakMap<object, Map<string, AttributeName[]>>();

/** The attributes that the types of a show bring beside those: by GDTF name, and by pretty name where that can be typed. */
function namesOf({ types }: MatchState["world"]["show"]): Map<string, AttributeName[]> {
  const known = ofTypes.get(types);
  if (known) return known;
  const table = new Set(ATTRIBUTES.map((info) => info.name));
  const found = new Map<string, string | undefined>();
  for (const { modes } of Object.values(types))
    for (const { attribute, info } of modes.flatMap((m) => m.channels.flatMap((c) => c.functions)))
      if (!table.has(attribute)) found.set(attribute, info?.label ?? attributeInfo(attribute).label);
  const names = [...found].flatMap(([name, label]): AttributeName[] => {
    const words = label?.toLowerCase().split(" ") ?? [];
    const own: AttributeName[] = isWord(name.toLowerCase()) ? [[[name.toLowerCase()], name]] : [];
    return words.every(isWord) && words.length > 0 && !TAKEN.has(words[0]!) ? [...own, [words, name]] : own;
  });
  const made = grouped(
    names.sort((a, b) => b[0].length - a[0].length),
    ([words]) => words[0]!.charAt(0),
  );
  ofTypes.set(types, made);
  return made;
}

const attr: SlotParser<string> = (state, pos) => {
  if (state.tokens[pos]?.kind !== "word" && !state.expected) return [];
  const brought = namesOf(state.world.show);
  if (state.expected) {
    for (const info of ATTRIBUTES) expect(state, pos, { text: info.word ?? info.name, isWord: true });
    for (const [words] of [...brought.values()].flat()) expect(state, pos, { text: words.join(" "), isWord: true });
  }
  const letter = state.tokens[pos]?.text.charAt(0).toLowerCase() ?? "";
  const found = [...(namesByLetter.get(letter) ?? NO_NAMES), ...(brought.get(letter) ?? NO_NAMES)].filter(([words]) =>
    words.every((word, i) => {
      const token = state.tokens[pos + i];
      return (
        token?.kind === "word" &&
        (token.text.toLowerCase() === word ||
          (state.abbreviate && i === 0 && token.text.length >= 3 && word.startsWith(token.text.toLowerCase())))
      );
    }),
  );
  const exact = found.filter(([words]) => state.tokens[pos]?.text.toLowerCase() === words[0]);
  const best = exact[0] ?? (new Set(found.map(([, name]) => name)).size === 1 ? found[0] : undefined);
  return best ? [{ pos: pos + best[0].length, value: best[1] }] : [];
};

/** One attribute or more. */
const attrs: SlotParser<string[]> = (state, pos) => {
  const read: string[] = [];
  for (let here = pos; ;) {
    const found = attr(state, here)[0];
    if (!found) return read.length > 0 ? [{ pos: here, value: read }] : [];
    read.push(found.value);
    here = found.pos;
  }
};

const what: SlotParser<What> = (state, pos) => {
  const word = state.tokens[pos]?.text.toLowerCase() ?? "";
  for (const family of [...Object.keys(FAMILY_WORDS), "everything"]) expect(state, pos, { text: family, isWord: true });
  // As WHAT it is the fixture's Dimmer; as a family it takes the cells' too (SEMANTICS 9).
  if (word === "intensity") return [{ pos: pos + 1, value: { attribute: "Dimmer" } }];
  if (word === "everything") return [{ pos: pos + 1, value: { families: FAMILIES } }];
  const family = own(FAMILY_WORDS, word);
  if (family) return [{ pos: pos + 1, value: { families: [family] } }];
  return attr(state, pos).map((m) => ({ pos: m.pos, value: { attribute: m.value } }));
};

const family: SlotParser<Family> = (state, pos) => {
  for (const name of Object.keys(FAMILY_WORDS)) expect(state, pos, { text: name, isWord: true });
  const found = own(FAMILY_WORDS, state.tokens[pos]?.text.toLowerCase() ?? "");
  return found ? [{ pos: pos + 1, value: found }] : [];
};

/** V [to V ...]: numbers, full, out. */
const values: SlotParser<Amounts> = (state, pos) => {
  const read: Amount[] = [];
  const units = new Set<string>();
  const value = (at: number) => {
    expect(state, at, { text: "a value", isWord: false });
    expect(state, at, { text: "full", isWord: true });
    expect(state, at, { text: "out", isWord: true });
    const token = state.tokens[at];
    const text = token?.text.toLowerCase();
    if (text === "full" || text === "out") return text;
    const bare = token?.kind === "number" ? token.text.replace(/[%°Kk]$/, "").trimEnd() : "";
    const found = SIGNED.test(bare) ? Number(bare) : undefined;
    return found !== undefined && within(state, at, found, "a value", -1_000_000, 1_000_000) ? found : undefined;
  };
  let here = pos;
  for (;;) {
    const found = value(here);
    if (found === undefined) return [];
    read.push(found);
    const unit = typeof found === "number" ? unitBehind(state, here) : undefined;
    if (unit) units.add(unit.unit);
    here = unit?.pos ?? here + 1;
    expect(state, here, { text: "to", isWord: true });
    if (state.tokens[here]?.text.toLowerCase() !== "to") {
      const [only] = units;
      if (units.size > 1) return [];
      return [{ pos: here, value: only === undefined ? read : Object.assign(read, { unit: only }) }];
    }
    here += 1;
  }
};

/** The steps given to items, in their order. */
const steps: SlotParser<number[]> = (state, pos) => {
  const read: number[] = [];
  for (let here = pos; ; here++) {
    expect(state, here, { text: "a step from 1", isWord: false });
    const found = state.tokens[here] && number(/^\d{1,5}$/)(state, here);
    if (!found) return read.length > 0 ? [{ pos: here, value: read }] : [];
    read.push(found);
  }
};

const group = bounded(WHOLE, "a group number", 1, HIGHEST);

/** Families one after another. */
const families: SlotParser<Family[]> = (state, pos) => {
  const read: Family[] = [];
  for (let here = pos; ; here++) {
    const found = family(state, here)[0];
    if (!found) return read.length > 0 ? [{ pos: here, value: read }] : [];
    read.push(found.value);
  }
};

/** Numbers of one kind, one after another. */
const several =
  (each: SlotParser<number>): SlotParser<number[]> =>
  (state, pos) => {
    const read: number[] = [];
    for (let here = pos; ; here++) {
      const found = each(state, here)[0];
      if (!found) return read.length > 0 ? [{ pos: here, value: read }] : [];
      read.push(found.value);
    }
  };

const text = one(
  (state, pos) => (state.tokens[pos]!.kind === "text" ? state.tokens[pos]!.text : undefined),
  "a name in quotes",
);

/** Texts one after another. */
const texts: SlotParser<string[]> = (state, pos) => {
  const read: string[] = [];
  for (let here = pos; ; here++) {
    const found = text(state, here)[0];
    if (!found) return read.length > 0 ? [{ pos: here, value: read }] : [];
    read.push(found.value);
  }
};

const host = one(
  (state, pos) =>
    state.tokens[pos]!.kind === "host" && /^((25[0-5]|2[0-4]\d|1?\d?\d)(\.|$)){4}$/.test(state.tokens[pos]!.text)
      ? state.tokens[pos]!.text
      : undefined,
  "a network address such as 127.0.0.1",
);

/** Things of one kind joined by a word: "#ff8800 to #0088ff". */
const joined =
  <T>(each: SlotParser<T>, by: string): SlotParser<T[]> =>
  (state, pos) => {
    const read: T[] = [];
    for (let here = pos; ;) {
      const found = each(state, here)[0];
      if (!found) return [];
      read.push(found.value);
      expect(state, found.pos, { text: by, isWord: true });
      if (state.tokens[found.pos]?.text.toLowerCase() !== by) return [{ pos: found.pos, value: read }];
      here = found.pos + 1;
    }
  };

const colours = joined(
  one(
    (state, pos) => (state.tokens[pos]!.kind === "colour" ? state.tokens[pos]!.text.toLowerCase() : undefined),
    "a colour such as #2ad1c9",
  ),
  "to",
);

/** 3200K, or 3200 K. */
const kelvinOnce: SlotParser<number> = (state, pos) => {
  expect(state, pos, { text: "a colour temperature such as 3200K", isWord: false });
  const unit = unitBehind(state, pos);
  const bare = state.tokens[pos]?.text.replace(/k$/i, "") ?? "";
  return unit?.unit === "K" && DECIMAL.test(bare) ? [{ pos: unit.pos, value: Number(bare) }] : [];
};
const kelvins = joined<number>(
  (state, pos) =>
    kelvinOnce(state, pos).filter(({ value }) => within(state, pos, value, "a colour temperature", COLDEST, HOTTEST)),
  "to",
);

const seconds = bounded(DECIMAL, "seconds", 0, 86_400);
/** S [to S ...]: times, spread where there are several. */
const times = joined(seconds, "to");

/** Network addresses joined by "and". */
const hosts = joined(host, "and");

/** Numbers of things that need not be here: "1 thru 9 + 12". */
const ranges: SlotParser<[first: number, last: number][]> = (state, pos) => {
  const read: [number, number][] = [];
  const word = (at: number, text: string) => {
    expect(state, at, { text, isWord: true });
    return state.tokens[at]?.text.toLowerCase() === text;
  };
  for (let here = pos; ; here += 1) {
    const first = whole(state, here)[0];
    if (!first) return [];
    const last = word(first.pos, "thru") ? whole(state, first.pos + 1)[0] : undefined;
    read.push([first.value, last?.value ?? first.value]);
    here = (last ?? first).pos;
    if (!word(here, "+")) return [{ pos: here, value: read }];
  }
};
const whole = bounded(WHOLE, "a number", 1, HIGHEST);

const list = bounded(WHOLE, "a list number", 1, HIGHEST);
/** Two lists and more, joined by "+". */
const lists: SlotParser<number[]> = (state, pos) => joined(list, "+")(state, pos).filter((m) => m.value.length > 1);

export const SLOTS = {
  sel: selSlot,
  attr,
  attrs,
  what,
  family,
  values,
  text,
  count: bounded(WHOLE, "how many at once", 1, 5000),
  fixture: bounded(WHOLE, "a fixture number", 1, HIGHEST),
  group,
  groups: several(group),
  palette,
  palettes: several(palette),
  paletteRef,
  families,
  ...EFFECT_SLOTS,
  list,
  lists,
  ranges,
  universe: bounded(WHOLE, "a universe", 1, 63_999),
  port: bounded(WHOLE, "a number on the wire", 0, 63_999),
  rank: bounded(WHOLE, "a priority of sACN", 0, 200),
  priority: bounded(/^[+-]?\d+$/, "a priority", -100, 100),
  parts: bounded(WHOLE, "a number of parts", 0, 1000),
  seed: bounded(WHOLE, "a seed", 0, 2_147_483_647),
  whole: bounded(WHOLE, "a whole number", 0, 1_000_000),
  plus: bounded(/^\+\d+$/, "+ and how many cues", 0, 20_000),
  number: bounded(SIGNED, "a number", -1_000_000, 1_000_000),
  metres: bounded(SIGNED, "metres", -100_000, 100_000),
  degrees: bounded(SIGNED, "degrees", -100_000, 100_000),
  seconds,
  times,
  percent: bounded(DECIMAL, "percent", 0, 100),
  twice: bounded(DECIMAL, "percent", 0, 200),
  rate: bounded(DECIMAL, "percent", 0, 1000),
  cue: bounded(DECIMAL, "a cue number", 0.001, HIGHEST),
  colours,
  kelvins,
  host,
  hosts,
  steps,
  address: one(
    (state, pos) => (state.tokens[pos]!.kind === "address" ? parseAddress(state.tokens[pos]!.text) : undefined),
    "an address such as 1:101",
  ),
  frames: one(
    (state, pos) =>
      ["time", "address", "number"].includes(state.tokens[pos]!.kind)
        ? framesOfText(state.tokens[pos]!.text, state.world.show.timecode.rate)
        : undefined,
    "a time such as 0:01:02.5",
  ),
  frameRate: one(
    (state, pos): FrameRate | undefined =>
      ({ "24": "24", "25": "25", "29.97": "29.97df", "30": "30" })[state.tokens[pos]!.text] as FrameRate | undefined,
    "24, 25, 29.97 or 30",
  ),
  bpm: bounded(DECIMAL, "beats a minute", 0.1, 6000),
  break: bounded(WHOLE, "a DMX break", 1, 16),
  tempo: bounded(WHOLE, "a tempo", 1, 99),
  place: bounded(WHOLE, "a place of a page", 1, MOST_PLACES),
  macro: bounded(WHOLE, "a macro number", 1, HIGHEST),
  page: bounded(WHOLE, "a page number", 1, HIGHEST),
  view: bounded(WHOLE, "a view number", 1, HIGHEST),
  texts,
  type: one(named, "a fixture type", (state) => [
    ...new Set([...Object.keys(state.world.show.types), ...LIBRARY.map((t) => t.id)]),
  ]),
  mode: one(named, "a mode", (state) => {
    const typed = state.tokens.map((t) => t.text.toLowerCase());
    return LIBRARY.find((t) => typed.includes(t.id))?.modes.map((m) => m.name) ?? [];
  }),
} satisfies Slots;
