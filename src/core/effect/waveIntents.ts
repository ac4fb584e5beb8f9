/** Waves of the show's own, as intents. */
import { plainShow } from "../palette/intents";
import { hasStops, OwnWaveSchema, type OwnWave, type Voice } from "../show/effectSchema";
import { IdSchema, type ParamKey } from "../show/ids";
import { defineIntent, newId } from "../show/change/intent";
import { exact, quote } from "../show/words/lineText";
import { fail } from "../show/refusal";
import type { Entry } from "../show/value";
import { wavesByNumber } from "../show/world";
import { effectUses, effectUsesText } from "./users";

const points = OwnWaveSchema.shape.points;
const rising = (given: OwnWave["points"]): boolean => given.every(([x], k) => k === 0 || x > given[k - 1]![0]);

const pointsText = (given: OwnWave["points"]): string => given.map(([x, y]) => `${exact(x)} ${exact(y)}`).join(", ");

/** Records a wave by its name; one of that name is drawn anew, wherever it runs. */
export const recordWave = defineIntent({
  kind: "recordWave",
  fields: {
    name: OwnWaveSchema.shape.name,
    points,
    join: OwnWaveSchema.shape.join,
    second: points.optional(),
    /** Another name for the wave of this id. */
    wave: IdSchema.optional(),
  },
  apply(world, { name, points: given, join, second, wave }) {
    if (!rising(given) || (second && !rising(second)))
      fail(
        "the points of a wave go from left to right, each at a place of its own",
        "Such as: points 0 0, 50 100, 100 0",
      );
    const named = Object.values(world.show.waves).find((w) => w.name.toLowerCase() === name.toLowerCase());
    if (wave !== undefined && named && named.id !== wave)
      fail(`there is a wave "${name}" already`, "Choose another name");
    const old = wave === undefined ? named : world.show.waves[wave];
    const id = old?.id ?? newId(world, "w");
    const number = old?.number ?? (wavesByNumber(plainShow(world)).at(-1)?.number ?? 0) + 1;
    world.show.waves[id] = { id, number, name, points: given, join, ...(second ? { second } : {}) };
  },
  says: (world, { name, points: given, join, second }) => {
    const old = Object.values(world.show.waves).find((w) => w.name.toLowerCase() === name.toLowerCase());
    const uses = old && effectUsesText(effectUses(world, old.id));
    return `${old ? "draws" : "records"} the wave "${name}"${old ? " anew" : ""}: ${given.length} points, ${join}${second ? ", and a second track" : ""}${uses ? `; it runs ${uses}` : ""}`;
  },
  lines: (_, { name, points: given, join, second }) => [
    `record wave ${quote(name)} points ${pointsText(given)} ${join}${second ? ` second ${pointsText(second)}` : ""}`,
  ],
});

/** Deletes a wave; what runs it keeps its points. */
export const deleteWave = defineIntent({
  kind: "deleteWave",
  fields: { wave: IdSchema },
  apply(world, { wave: id }) {
    const show = plainShow(world);
    const wave = show.waves[id] ?? fail("that wave does not exist");
    const drawn = (voice: Voice): Voice =>
      hasStops(voice) || typeof voice.wave === "string" || !("own" in voice.wave) || voice.wave.own !== id
        ? voice
        : {
            ...voice,
            wave: {
              drawn: { points: (voice.wave.track === 2 ? wave.second : undefined) ?? wave.points, join: wave.join },
            },
          };
    const put = (plain: Readonly<Record<ParamKey, Entry>>, draft: Record<ParamKey, Entry>) => {
      for (const [key, entry] of Object.entries(plain))
        if (entry.effect && "plays" in entry.effect) {
          const plays = drawn(entry.effect.plays);
          if (plays !== entry.effect.plays) draft[key] = { ...entry, effect: { ...entry.effect, plays } };
        }
    };
    for (const effect of Object.values(show.effects))
      world.show.effects[effect.id]!.voices = effect.voices.map((v) => ({ ...v, voice: drawn(v.voice) }));
    for (const list of Object.values(show.lists))
      for (const cue of Object.values(list.cues)) put(cue.entries, world.show.lists[list.id]!.cues[cue.id]!.entries);
    put(JSON.parse(JSON.stringify(world.hands.held)) as Record<ParamKey, Entry>, world.hands.held);
    delete world.show.waves[id];
  },
  says(world, { wave }) {
    const uses = effectUsesText(effectUses(world, wave));
    return `deletes the wave "${world.show.waves[wave]?.name ?? "?"}"${uses ? `; it runs ${uses}: its points stay there` : ", which nothing runs"}`;
  },
  lines: ({ show }, { wave }) => [`delete wave ${quote(show.waves[wave]?.name ?? "?")}`],
});
