/** Recording and changing effects, as intents. */
import { z } from "../units/zod";
import { plainShow } from "../palette/intents";
import { EffectRecordSchema, isFrom, isStop, MOST_VOICES, VoiceSchema, type EffectRecord } from "../show/effectSchema";
import { IdSchema, ItemSchema, type Id, type Item, type ParamKey } from "../show/ids";
import { defineIntent, newId, type WorldDraft } from "../show/change/intent";
import { exact, quote, selText, unsaid } from "../show/words/lineText";
import { emptyPlaces } from "../show/places";
import { fail } from "../show/refusal";
import { wholeNumber, type Show } from "../show/schema";
import type { Entry } from "../show/value";
import type { World } from "../show/world";
import { allItems, drives, voicesIn, type HeldVoice } from "./gather";
import { effectUses, effectUsesText, frameOf, recastUsers, withOwnVoice } from "./users";
import { effectText, spreadText, voiceLine, voiceText } from "./words";
import { plural } from "../units/plural";

const effectIn = (world: WorldDraft, id: Id): EffectRecord =>
  world.show.effects[id] ?? fail("that effect does not exist", "Choose one from the shelf");

/** The held entries that would be recorded. */
const recordable = ({ hands: { held, keptOut } }: Pick<World, "hands">): Record<ParamKey, Entry> =>
  Object.fromEntries(Object.entries(held).filter(([key]) => !keptOut[key]));

const plainHeld = (world: WorldDraft): Record<ParamKey, Entry> =>
  JSON.parse(JSON.stringify(recordable(world))) as Record<ParamKey, Entry>;

const numberText = ({ show }: World, id: Id): string => `effect ${show.effects[id]?.number ?? "?"}`;

/** Voices put into those of an effect: one that drives the same takes the other's place and key. */
function mergedVoices(
  old: EffectRecord["voices"],
  made: readonly HeldVoice[],
  cast: readonly Item[] | null,
): EffectRecord["voices"] {
  const voices = [...old];
  const taken = new Set<number>();
  for (const { voice, items } of made) {
    const own = cast && items.length > 0 && items.length < cast.length ? { items } : {};
    const shares = (of: EffectRecord["voices"][number]) => !of.items || items.some((item) => of.items!.includes(item));
    const at = voices.findIndex((v) => !taken.has(v.key) && drives(v.voice) === drives(voice) && shares(v));
    const { items: _, ...was } = voices[at] ?? { key: nextKey(voices) };
    const now = { ...was, voice, ...own };
    taken.add(now.key);
    if (at >= 0) voices[at] = now;
    else voices.push(now);
  }
  return voices;
}

/** An open effect runs on whatever is selected: two voices of one attribute would meet on one fixture. */
function refuseTwice(made: readonly HeldVoice[]): void {
  const twice = made.find(({ voice }, k) => made.findIndex((v) => drives(v.voice) === drives(voice)) < k);
  if (twice)
    fail(
      `an open effect cannot have two voices of ${drives(twice.voice)}: a fixture would need both`,
      "Record it cast, so that each keeps its fixtures, or as two effects",
    );
}

const nextKey = (voices: EffectRecord["voices"]): number => voices.reduce((most, v) => Math.max(most, v.key), 0) + 1;

/** Does an edit of an effect and lets its users follow: what is new in it begins there, what is gone ends. */
function editing(world: WorldDraft, id: Id, edit: (effect: EffectRecord) => void): void {
  const before = plainShow(world);
  const held = JSON.parse(JSON.stringify(world.hands.held)) as Record<ParamKey, Entry>;
  edit(effectIn(world, id));
  const after = plainShow(world);
  if (after.effects[id]!.voices.length > MOST_VOICES) fail(`an effect has ${MOST_VOICES} voices at most`);
  if (frameOf(before.effects[id]!) !== frameOf(after.effects[id]!)) recastUsers(world, before, after, held, id);
}

const heldVoices = (world: WorldDraft): HeldVoice[] => {
  const voices = voicesIn(plainShow(world), plainHeld(world));
  return voices.length > 0
    ? voices
    : fail(
        "no effect is held, so there is nothing to record",
        "Start one first, such as: dimmer wave sine low 0 high 100",
      );
};

/** Records the voices that are held (or those given) as an effect. */
export const recordEffect = defineIntent({
  kind: "recordEffect",
  fields: {
    number: wholeNumber,
    name: z.string().max(200).optional(),
    /** Keeps the fixtures it is held on, or takes the selection. */
    cast: z.boolean().optional(),
    voices: z.array(VoiceSchema).min(1).max(MOST_VOICES).optional(),
    items: z.array(ItemSchema).max(20_000).optional(),
    overwrite: z.boolean().optional(),
  },
  apply(world, { number, name, cast, voices: given, items: on, overwrite }) {
    const held = given ? given.map((voice) => ({ voice, items: [] })) : heldVoices(world);
    const items: Item[] = on ?? allItems(held);
    const old = Object.values(world.show.effects).find((e) => e.number === number);
    const keeps = (cast ?? old?.cast != null) ? items : null;
    if (!keeps) refuseTwice(held);
    if (old) {
      editing(world, old.id, (effect) => {
        effect.voices = mergedVoices(overwrite ? [] : effect.voices, held, keeps);
        if (name !== undefined) effect.name = name;
        effect.cast = keeps;
      });
      return;
    }
    const id = newId(world, "e");
    world.show.effects[id] = {
      id,
      number,
      name: name ?? "",
      rate: 100,
      cast: keeps,
      voices: mergedVoices([], held, keeps),
    };
    if (held.length > MOST_VOICES) fail(`an effect has ${MOST_VOICES} voices at most`);
  },
  says(world, { number, name, cast, voices, overwrite }) {
    const held = voices ?? voicesIn(world.show, recordable(world)).map((v) => v.voice);
    const old = Object.values(world.show.effects).find((e) => e.number === number);
    const what = held.map((voice) => voiceText(world.show, voice)).join("; ") || "nothing";
    const where = `effect ${number}${name ? ` "${name}"` : ""}`;
    return `${old ? (overwrite ? "overwrites" : "merges into") : "records"} ${where}${cast === undefined ? "" : cast ? ", cast on its fixtures" : ", open to any selection"}: ${what}`;
  },
  lines: (_, { number, name, cast, voices, overwrite }) =>
    voices
      ? [unsaid("records an effect from voices of the gallery")]
      : [
          [
            `record effect ${number}`,
            name !== undefined && quote(name),
            cast === undefined ? "" : cast ? "cast" : "open",
            overwrite && "overwrite",
          ]
            .filter(Boolean)
            .join(" "),
        ],
});

/** Writes the voices that are held into an effect; what is held follows it from then on. */
export const updateEffect = defineIntent({
  kind: "updateEffect",
  fields: { effect: IdSchema },
  apply(world, { effect: id }) {
    const voices = heldVoices(world);
    editing(world, id, (effect) => {
      effect.voices = mergedVoices(effect.voices, voices, effect.cast);
    });
    const now = plainShow(world).effects[id]!;
    for (const [key, entry] of Object.entries(plainHeld(world))) {
      const plays = entry.effect;
      if (!plays || isStop(plays) || isFrom(plays)) continue;
      const voice = now.voices.find((v) => JSON.stringify(v.voice) === JSON.stringify(plays.plays));
      if (voice)
        world.hands.held[key] = { ...entry, effect: { from: id, voice: voice.key, at: plays.at, of: plays.of } };
    }
  },
  says: (world, { effect }) => {
    const uses = effectUsesText(effectUses(world, effect));
    return `writes ${plural(voicesIn(world.show, recordable(world)).length, "held voice")} into ${effectText(world, effect)}${uses ? `; it is used ${uses}` : ""}`;
  },
  lines: (world, { effect }) => [`update ${numberText(world, effect)}`],
});

/** Settings of an effect as a whole. */
export const setEffect = defineIntent({
  kind: "setEffect",
  fields: {
    effect: IdSchema,
    name: z.string().max(200).optional(),
    number: wholeNumber.optional(),
    colour: EffectRecordSchema.shape.colour.nullable(),
    rate: EffectRecordSchema.shape.rate.optional(),
    /** The items it keeps; null opens it. */
    cast: z.array(ItemSchema).max(20_000).nullable().optional(),
  },
  apply(world, { effect: id, name, number, colour, rate, cast }) {
    const effect = effectIn(world, id);
    if (name !== undefined) effect.name = name;
    if (number !== undefined) effect.number = number;
    if (colour === null) delete effect.colour;
    else if (colour !== undefined) effect.colour = colour;
    if (rate !== undefined) effect.rate = rate;
    if (cast !== undefined) {
      const lane = Object.values(world.show.lists).find((l) => l.effect === id);
      if (cast === null && lane)
        fail(`list ${lane.number} plays it, and needs its fixtures`, "Take it off that lane first");
      effect.cast = cast;
    }
  },
  says: (world, { effect, name, number, colour, rate, cast }) =>
    `${effectText(world, effect)}: ${[
      name !== undefined && `name "${name}"`,
      number !== undefined && `number ${number}`,
      colour !== undefined && (colour === null ? "no colour" : `colour ${colour}`),
      rate !== undefined && `runs at ${rate} %`,
      cast !== undefined && (cast === null ? "open to any selection" : `cast on ${plural(cast.length, "fixture")}`),
    ]
      .filter(Boolean)
      .join(", ")}`,
  lines: (world, { effect, name, number, colour, rate, cast }) =>
    [
      name !== undefined && `name ${quote(name)}`,
      number !== undefined && `number ${number}`,
      colour !== undefined && `colour ${colour ?? "off"}`,
      rate !== undefined && `rate ${exact(rate)}`,
      cast !== undefined && (cast === null ? "open" : `cast ${selText(world.show, cast)}`),
    ].flatMap((text) => (text === false ? [] : [`set ${numberText(world, effect)} ${text}`])),
});

/** Puts a voice in place of another, or adds one. */
export const setVoice = defineIntent({
  kind: "setVoice",
  fields: { effect: IdSchema, /** Its key; none adds a voice. */ key: wholeNumber.optional(), voice: VoiceSchema },
  apply(world, { effect: id, key, voice }) {
    editing(world, id, (effect) => {
      const at = key === undefined ? -1 : effect.voices.findIndex((v) => v.key === key);
      if (key !== undefined && at < 0) fail("that voice is gone");
      if (at >= 0) effect.voices[at] = { ...effect.voices[at]!, voice };
      else effect.voices.push({ key: nextKey(effect.voices), voice });
    });
  },
  says(world, { effect, key, voice }) {
    const place = world.show.effects[effect]?.voices.findIndex((v) => v.key === key) ?? -1;
    const uses = effectUsesText(effectUses(world, effect));
    return `${effectText(world, effect)}, ${place < 0 ? "a new voice" : `voice ${place + 1}`}: ${voiceText(world.show, voice)}${uses ? `; it is used ${uses}` : ""}`;
  },
  lines(world, { effect, key, voice }) {
    const place = world.show.effects[effect]?.voices.findIndex((v) => v.key === key) ?? -1;
    const line = voiceLine(world.show, voice);
    const where = `set ${numberText(world, effect)} voice ${place < 0 ? "new" : place + 1}`;
    if (line === undefined || (voice.spread.by === "steps" && voice.spread.steps))
      return [unsaid(`${where} is set to a voice no line can say`)];
    return [`${where} ${line}`, `${where} spread ${spreadText(voice.spread)}`.trim()].slice(0, place < 0 ? 1 : 2);
  },
});

/** Silences voices of an effect wherever it runs, and lets all others be heard. */
export const muteVoices = defineIntent({
  kind: "muteVoices",
  fields: { effect: IdSchema, keys: z.array(wholeNumber).max(MOST_VOICES) },
  apply(world, { effect: id, keys }) {
    for (const voice of effectIn(world, id).voices)
      if (keys.includes(voice.key)) voice.muted = true;
      else delete voice.muted;
  },
  says: (world, { effect, keys }) =>
    `${effectText(world, effect)}: ${keys.length === 0 ? "all voices are heard" : `${plural(keys.length, "voice is silent", "voices are silent")}`}`,
  lines: (world, { effect, keys }) => {
    const places = (world.show.effects[effect]?.voices ?? []).flatMap((v, k) => (keys.includes(v.key) ? [k + 1] : []));
    return [`set ${numberText(world, effect)} mute ${places.length > 0 ? places.join(" ") : "off"}`];
  },
});

/** Takes a voice out of an effect; what ran it ends. */
export const dropVoice = defineIntent({
  kind: "dropVoice",
  fields: { effect: IdSchema, key: wholeNumber },
  apply(world, { effect: id, key }) {
    editing(world, id, (effect) => {
      effect.voices = effect.voices.filter((v) => v.key !== key);
      if (effect.voices.length === 0) fail("an effect has one voice at least", "Delete the effect instead");
    });
  },
  says: (world, { effect, key }) => {
    const place = world.show.effects[effect]?.voices.findIndex((v) => v.key === key) ?? -1;
    return `takes voice ${place + 1} out of ${effectText(world, effect)}`;
  },
  lines: (world, { effect, key }) => [
    `set ${numberText(world, effect)} voice ${(world.show.effects[effect]?.voices.findIndex((v) => v.key === key) ?? -1) + 1} off`,
  ],
});

/** Deletes an effect; whoever used it keeps its voices as their own. */
export const deleteEffect = defineIntent({
  kind: "deleteEffect",
  fields: { effect: IdSchema },
  apply(world, { effect: id }) {
    effectIn(world, id);
    const show: Show = plainShow(world);
    const effect = show.effects[id]!;
    const put = (plain: Readonly<Record<ParamKey, Entry>>, draft: Record<ParamKey, Entry>) => {
      for (const [key, entry] of Object.entries(plain)) {
        const made = withOwnVoice(entry, effect);
        if (made === undefined) delete draft[key];
        else if (made !== entry) draft[key] = made;
      }
    };
    for (const { list, cue } of effectUses({ ...(world as unknown as World), show }, id).cues)
      put(cue.entries, world.show.lists[list.id]!.cues[cue.id]!.entries);
    put(JSON.parse(JSON.stringify(world.hands.held)) as Record<ParamKey, Entry>, world.hands.held);
    for (const list of Object.values(world.show.lists)) if (list.effect === id) delete list.effect;
    delete world.show.effects[id];
    emptyPlaces(world, "effect", id);
  },
  says(world, { effect }) {
    const { lanes, ...uses } = effectUses(world, effect);
    const used = effectUsesText({ ...uses, lanes: [] });
    return `deletes ${effectText(world, effect)}${used ? `; it is used ${used}: its voices stay there` : lanes.length > 0 ? "" : ", which nothing uses"}${lanes.length > 0 ? `; lane ${lanes.map((l) => l.number).join(", ")} plays nothing then` : ""}`;
  },
  lines: (world, { effect }) => [`delete ${numberText(world, effect)}`],
});
