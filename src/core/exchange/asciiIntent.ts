/** Lighting data brought in from USITT ASCII: fixtures for its channels, groups, and cues of intensities; one step. */
import { current } from "immer";
import { z } from "../units/zod";
import { DEFAULT_FADE } from "../cue/times";
import { keepingLooks, listNumberedOrNew, newCue, snapshot } from "../cue/intents/cueDraft";
import { libraryType } from "../fixture/library/library";
import { inTheWay, occupancyOf, occupy } from "../show/address";
import { firstPlaces } from "../patch/firstPlaces";
import { defineIntent, newId, type WorldDraft } from "../show/change/intent";
import { paramKey, type Id } from "../show/ids";
import { unsaid } from "../show/words/lineText";
import { modelOf } from "../show/model";
import { fail } from "../show/refusal";
import { cueNumber, wholeNumber, type CueList, type Show } from "../show/schema";
import type { Entry } from "../show/value";
import { cuesOf, fixturesByNumber, groupNumbered, sameCueNumber } from "../show/world";

const time = z.number().min(0).max(86_400);
const percent = z.number().min(0).max(100);
const channel = wholeNumber;

const levels = z.array(z.tuple([channel, percent])).max(20_000);
const PartFields = z.object({ up: time.optional(), down: time.optional(), upWait: time, downWait: time, levels });
type Part = z.infer<typeof PartFields>;

const CueFields = PartFields.extend({
  page: wholeNumber,
  number: cueNumber,
  name: z.string().max(200),
  follow: time.optional(),
  link: cueNumber.optional(),
  parts: z.array(PartFields).max(100).optional(),
});

/** The fixture of each channel; channels without one get a plain dimmer. */
function patchChannels(
  world: WorldDraft,
  wanted: ReadonlySet<number>,
  at: ReadonlyMap<number, { dimmer: number; level: number }[]>,
  update: boolean,
): Map<number, Id> {
  const show: Show = current(world.show);
  const byNumber = new Map(fixturesByNumber(show).map((f) => [f.number, f.id]));
  const missing = [...wanted].filter((n) => !byNumber.has(n)).sort((a, b) => a - b);
  // The show may have a dimmer of its own under that name, with other modes.
  const dimmer = show.types.dimmer ?? libraryType("dimmer")!;
  if (missing.length > 0) world.show.types[dimmer.id] ??= dimmer as never;
  const places = firstPlaces(show, missing.length);
  const taken = occupancyOf(show);
  const addresses = (number: number, id: Id) =>
    (at.get(number) ?? []).flatMap(({ dimmer: place }) => {
      const address = { universe: Math.floor((place - 1) / 512) + 1, slot: ((place - 1) % 512) + 1 };
      if (address.universe > 63_999 || inTheWay(taken, address, 1)) return [];
      occupy(taken, address, 1, id);
      return [address];
    });
  missing.forEach((number, k) => {
    const id = newId(world, "f");
    byNumber.set(number, id);
    world.show.fixtures[id] = {
      id,
      number,
      name: `Channel ${number}`,
      type: dimmer.id,
      mode: dimmer.modes[0]!.name,
      addresses: addresses(number, id).slice(0, 16),
      virtualDimmer: false,
      place: places[k]!,
      turn: { x: 0, y: 0, z: 0 },
      invertPan: false,
      invertTilt: false,
      swap: false,
      scale: at.get(number)?.[0]?.level ?? 100,
      correct: { pan: 0, tilt: 0 },
      note: "",
    };
  });
  if (update)
    for (const [number, of] of at) {
      const fixture = world.show.fixtures[byNumber.get(number) ?? ""];
      if (fixture && of[0] && of[0].level !== fixture.scale) fixture.scale = of[0].level;
    }
  return byNumber;
}

/** Submasters stand behind the lists of cues: 101 for the first, or the next number that is free. */
const FIRST_SUB = 100;

function putSub(
  world: WorldDraft,
  show: Show,
  fixtures: ReadonlyMap<number, Id>,
  { number, name, levels }: { number: number; name: string; levels: Part["levels"] },
): void {
  const taken = new Set(Object.values(world.show.lists).map((l) => l.number));
  let free = FIRST_SUB + number;
  while (taken.has(free)) free += 1;
  const list = listNumberedOrNew(world, free);
  const cue = newCue(newId(world, "c"), 1);
  cue.entries = entriesOf(show, fixtures, levels, new Map());
  Object.assign(list, { kind: "submaster", name: name || `Submaster ${number}`, cues: { [cue.id]: cue } });
}

/** The times of a level of its own: of a part, as it goes up or down. */
const timesOf = ({ up, down, upWait, downWait }: Part, rises: boolean): Entry["time"] => ({
  fade: (rises ? (up ?? down) : (down ?? up)) ?? DEFAULT_FADE,
  delay: rises ? upWait : downWait,
});

/** A cue's levels as entries: only what differs from what tracks in; a channel that was lit before and is not listed goes out. */
function entriesOf(
  show: Show,
  fixtures: ReadonlyMap<number, Id>,
  levels: readonly (readonly [number, number])[],
  before: Map<Id, number>,
  parts: readonly Part[] = [],
): Record<string, Entry> {
  const entries: Record<string, Entry> = {};
  const listed = new Map<Id, number>();
  const partOf = new Map<Id, Part>();
  const all = [
    ...levels.map(([number, level]) => [number, level, undefined] as const),
    ...parts.flatMap((part) => part.levels.map(([number, level]) => [number, level, part] as const)),
  ];
  for (const [number, level, part] of all) {
    const id = fixtures.get(number);
    const fixture = id === undefined ? undefined : show.fixtures[id];
    if (!fixture || !modelOf(show, fixture).specs.some((s) => s.cell === 0 && s.head === "Dimmer")) continue;
    listed.set(fixture.id, level);
    if (part) partOf.set(fixture.id, part);
  }
  for (const [id, level] of before) if (level > 0 && !listed.has(id)) listed.set(id, 0);
  for (const [id, level] of listed) {
    const was = before.get(id);
    const part = partOf.get(id);
    if (was !== level)
      entries[paramKey(id, 0, "Dimmer")] = {
        attribute: "Dimmer",
        value: level,
        ...(part ? { time: timesOf(part, level >= (was ?? 0)) } : {}),
      };
    before.set(id, level);
  }
  return entries;
}

export const importAscii = defineIntent({
  kind: "importAscii",
  fields: {
    patch: z.array(z.object({ channel, dimmer: z.number().int().min(1).max(32_767_488), level: percent })).max(50_000),
    groups: z
      .array(z.object({ number: wholeNumber, name: z.string().max(200), channels: z.array(channel).max(20_000) }))
      .max(5000),
    cues: z.array(CueFields).max(20_000),
    subs: z
      .array(z.object({ number: wholeNumber, name: z.string().max(200), levels }))
      .max(5000)
      .optional(),
    /** What is there already is changed; else it is left as it is. */
    update: z.boolean(),
  },
  apply(world, { patch, groups, cues, subs = [], update }) {
    const wanted = new Set([
      ...patch.map((p) => p.channel),
      ...groups.flatMap((g) => g.channels),
      ...[...cues, ...cues.flatMap((c) => c.parts ?? []), ...subs].flatMap((c) => c.levels.map(([n]) => n)),
    ]);
    if (wanted.size === 0 && cues.length === 0) fail("nothing in it can be imported");
    const at = new Map<number, { dimmer: number; level: number }[]>();
    for (const p of patch) at.set(p.channel, [...(at.get(p.channel) ?? []), p]);
    const fixtures = patchChannels(world, wanted, at, update);
    for (const { number, name, channels } of groups) {
      const old = groupNumbered(world.show, number);
      const members = [...new Set(channels)].flatMap((n) => fixtures.get(n) ?? []);
      if ((old && !update) || members.length === 0) continue;
      const id = old?.id ?? newId(world, "g");
      world.show.groups[id] = { ...old, id, number, name: name || old?.name || `Group ${number}`, members };
    }
    const show = snapshot(world.show as Show);
    for (const page of [...new Set(cues.map((c) => c.page))].sort((a, b) => a - b)) {
      const list = listNumberedOrNew(world, page);
      if (list.kind !== "list") fail(`list ${page} is a ${list.kind} and holds no cues`, "Free that number first");
      putCues(
        world,
        show,
        list,
        fixtures,
        cues.filter((c) => c.page === page).sort((a, b) => a.number - b.number),
        update,
      );
    }
    for (const sub of subs) putSub(world, show, fixtures, sub);
  },
  says: (_, { patch, groups, cues, subs = [], update }) =>
    `brings in ${new Set(patch.map((p) => p.channel)).size} channels, ${groups.length} groups, ${cues.length} cues of intensities and ${subs.length} submasters; what is there already ${update ? "is changed" : "stays"}`,
  lines: (_, { cues }) => [unsaid(`brings in ${cues.length} cues from USITT ASCII`)],
});

function putCues(
  world: WorldDraft,
  show: Show,
  list: CueList,
  fixtures: ReadonlyMap<number, Id>,
  cues: readonly z.infer<typeof CueFields>[],
  update: boolean,
): void {
  const before = new Map<Id, number>();
  const was = cuesOf(snapshot(list));
  const own = was.map((c) => c.id);
  const done: { id: Id; cue: z.infer<typeof CueFields> }[] = [];
  const edit = () => {
    for (const cue of cues) {
      const old = was.find((c) => sameCueNumber(c.number, cue.number));
      const entries = entriesOf(show, fixtures, cue.levels, before, cue.parts);
      if (old && !update) continue;
      const id = old?.id ?? newId(world, "c");
      list.cues[id] ??= newCue(id, cue.number);
      const into = list.cues[id];
      Object.assign(into, { entries: update && old ? { ...into.entries, ...entries } : entries });
      if (cue.name) into.name = cue.name;
      Object.assign(into.times, {
        up: cue.up ?? cue.down ?? DEFAULT_FADE,
        down: cue.down ?? cue.up ?? DEFAULT_FADE,
        delayUp: cue.upWait,
        delayDown: cue.downWait,
      });
      done.push({ id, cue });
    }
  };
  // Cues that were there and are not in the text keep their looks.
  if (own.length === 0) edit();
  else
    keepingLooks(
      world,
      list,
      own.filter((id) => cues.some((c) => sameCueNumber(c.number, list.cues[id]!.number))),
      edit,
    );
  const order = cuesOf(snapshot(list));
  for (const { id, cue } of done) {
    const next = order[order.findIndex((c) => c.id === id) + 1];
    if (cue.follow !== undefined && next) list.cues[next.id]!.trigger = { kind: "auto", after: cue.follow };
    const leads = cue.link === undefined ? undefined : order.find((c) => sameCueNumber(c.number, cue.link!));
    if (leads) list.cues[id]!.then = leads.id;
  }
}
