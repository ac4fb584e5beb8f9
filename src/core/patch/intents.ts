/** Adding, removing and numbering fixtures, as intents. */
import { current, isDraft } from "immer";
import { z } from "../units/zod";
import { modeOf, parametersOf as specsOf } from "../fixture/parameters";
import { footprint, wantsVirtualDimmer, type FixtureType } from "../fixture/type";
import { defineIntent, newId, type WorldDraft } from "../show/change/intent";
import { FixtureIdSchema, splitItem } from "../show/ids";
import { fail } from "../show/refusal";
import { AddressSchema, FixtureSchema, wholeNumber, type Fixture, type Show } from "../show/schema";
import { plainly } from "../show/change/plainly";
import { fixtureNumbered } from "../show/world";
import { frozen } from "../units/frozen";
import type { World } from "../show/world";
import { quote, selText } from "../show/words/lineText";
import { changeLines } from "./changeLines";
import { itemsText } from "../show/words/itemsText";
import { addressText, autoAddresses, occupancyOf, occupy, runFrom, sizeOf } from "../show/address";
import { clashesIn } from "./clash";
import { firstPlaces } from "./firstPlaces";
import { addressConflict, planPatch } from "./plan";
import { remapFixture } from "./remap";
import { plural } from "../units/plural";

export const fixtureIds = z.array(FixtureIdSchema).min(1).max(20_000);

export const patch = defineIntent({
  kind: "patch",
  fields: {
    count: z.number().int().min(1).max(5000),
    type: z.string(),
    mode: z.string().optional(),
    from: wholeNumber.optional(),
    at: z.union([AddressSchema.extend({ slot: z.number().int() }), z.literal("auto"), z.literal("unpatched")]),
    name: z.string().max(200).optional(),
  },
  apply(world, request) {
    const before = plainly(world.show) as Show;
    const plan = planPatch(before, request);
    if ("problem" in plan) return fail(plan.problem, plan.cure);
    const bad = plan.rows.find((row) => row.conflict);
    if (bad)
      fail(
        `fixture ${bad.number} cannot go there: ${bad.conflict}`,
        request.at === "auto" ? "Choose a free number with: as N" : "Choose another address, or: at auto",
      );
    world.show.types[plan.type.id] ??= plan.type as never;
    const places = firstPlaces(before, plan.rows.length);
    const made: Record<string, Fixture> = {};
    for (const [k, row] of plan.rows.entries()) {
      const id = newId(world, "f");
      const base = request.name ?? plan.type.model;
      const name = plan.rows.length > 1 ? `${base} ${k + 1}` : base;
      made[id] = {
        id,
        number: row.number,
        name,
        type: plan.type.id,
        mode: plan.mode.name,
        addresses: row.address ? [row.address] : [],
        virtualDimmer: plan.virtualDimmer,
        place: places[k]!,
        turn: { x: 0, y: 0, z: 0 },
        invertPan: false,
        invertTilt: false,
        swap: false,
        scale: 100,
        correct: { pan: 0, tilt: 0 },
        note: "",
      };
    }
    // Frozen, they are taken as they are: nothing in them is a draft.
    world.show.fixtures = frozen({ ...before.fixtures, ...made }) as never;
  },
  says(world, request) {
    const plan = planPatch(world.show, request);
    if ("problem" in plan) return plan.problem;
    const [first, last] = [plan.rows[0]!, plan.rows.at(-1)!];
    const where = first.address
      ? ` at ${addressText(first.address)}${plan.rows.length > 1 ? ` to ${addressText(last.address!)}` : ""}`
      : ", unpatched";
    return `patches ${plan.rows.length} × ${plan.type.model} (${plan.mode.name}) as ${first.number}${plan.rows.length > 1 ? ` to ${last.number}` : ""}${where}`;
  },
  lines: (_, { count, type, mode, from, at, name }) => [
    [
      `patch ${count} ${quote(type)}`,
      mode !== undefined && `mode ${quote(mode)}`,
      from !== undefined && `as ${from}`,
      at === "unpatched" ? at : `at ${at === "auto" ? at : addressText(at)}`,
      name !== undefined && `name ${quote(name)}`,
    ]
      .filter(Boolean)
      .join(" "),
  ],
});

const fixtureOf = (world: WorldDraft, id: string): Fixture =>
  world.show.fixtures[id] ?? fail("that fixture is no longer patched");

export const address = defineIntent({
  kind: "address",
  fields: { fixtures: fixtureIds, at: z.union([AddressSchema.extend({ slot: z.number().int() }), z.literal("auto")]) },
  apply(world, { fixtures, at }) {
    const show = world.show as Show;
    const sizes = fixtures.map((id) => sizeOf(show, fixtureOf(world, id)));
    const taken = occupancyOf(show, new Set(fixtures));
    const run = at === "auto" ? autoAddresses(taken, sizes, fixtures) : runFrom(at, sizes);
    run.forEach((to, i) => {
      if (at !== "auto") {
        const conflict = addressConflict(show, taken, to, sizes[i]!);
        if (conflict)
          fail(
            `fixture ${fixtureOf(world, fixtures[i]!).number} cannot go there: ${conflict}`,
            "Choose another address, or: address auto",
          );
        occupy(taken, to, sizes[i]!, fixtures[i]!);
      }
      world.show.fixtures[fixtures[i]!]!.addresses = [to];
    });
  },
  says: (world, { fixtures, at }) =>
    `addresses ${itemsText(world, fixtures)} ${at === "auto" ? "at the first free run" : `from ${addressText(at)}`}`,
  lines: ({ show }, { fixtures, at }) => [`${selText(show, fixtures)} address ${at === "auto" ? at : addressText(at)}`],
});

export const unpatch = defineIntent({
  kind: "unpatch",
  fields: { fixtures: fixtureIds },
  apply(world, { fixtures }) {
    for (const id of fixtures) fixtureOf(world, id).addresses = [];
  },
  says: (world, { fixtures }) => `takes the addresses from ${itemsText(world, fixtures)}`,
  lines: ({ show }, { fixtures }) => [`${selText(show, fixtures)} unpatch`],
});

export const renumber = defineIntent({
  kind: "renumber",
  fields: { fixtures: fixtureIds, from: wholeNumber },
  apply(world, { fixtures, from }) {
    const moved = new Set(fixtures);
    fixtures.forEach((_, i) => {
      const other = fixtureNumbered(world.show, from + i);
      if (other && !moved.has(other.id))
        fail(`number ${from + i} is taken by ${other.name}`, "Choose a start with enough free numbers behind it");
    });
    fixtures.forEach((id, i) => (fixtureOf(world, id).number = from + i));
  },
  says: (world, { fixtures, from }) => `renumbers ${itemsText(world, fixtures)} from ${from}`,
  lines: ({ show }, { fixtures, from }) => [`${selText(show, fixtures)} renumber ${from}`],
});

const settable = FixtureSchema.omit({ id: true, type: true }).partial();
export type FixtureChange = z.infer<typeof settable>;

/** Sets what a table of the patch shows; each fixture its own, all or none. */
export const setFixtures = defineIntent({
  kind: "setFixtures",
  fields: { changes: z.record(FixtureIdSchema, settable), says: z.string() },
  apply(world, { changes }) {
    for (const [id, change] of Object.entries(changes)) {
      const fixture = fixtureOf(world, id);
      Object.assign(fixture, change);
      if (change.mode !== undefined) setMode(world, fixture, change.mode, change.virtualDimmer);
    }
    if (!Object.values(changes).some((c) => c.number !== undefined || c.addresses || c.mode !== undefined)) return;
    const clash = clashesIn(world.show.types, Object.values(world.show.fixtures), (id) => !(id in changes))[0];
    if (clash)
      fail(
        `fixture ${fixtureOf(world, clash.fixture).number} cannot be changed so: ${clash.text}`,
        clash.field === "number" ? "Choose a free number" : "Choose another address, or: address auto",
      );
  },
  says: (_, { says }) => says,
  lines: ({ show }, { changes }) => changeLines(show, changes),
});

function setMode(world: WorldDraft, fixture: Fixture, name: string, virtual: boolean | undefined): void {
  const type = world.show.types[fixture.type] as FixtureType;
  const mode =
    modeOf(type, name) ??
    fail(
      `${type.model} has no mode ${name}`,
      `Its modes are ${type.modes.map((m) => `${m.name} (${footprint(m)} channels)`).join(", ")}`,
    );
  fixture.mode = mode.name;
  fixture.virtualDimmer = virtual ?? wantsVirtualDimmer(mode);
  remapFixture(
    world.show,
    world.hands,
    fixture.id,
    specsOf(isDraft(mode) ? current(mode) : mode, fixture.virtualDimmer),
  );
}

/** What a removal takes along: groups and cues that name these fixtures. */
export function usesOf({ show }: World, fixtures: readonly string[]): { groups: number; cues: number } {
  const gone = new Set(fixtures);
  const has = (value: string) => gone.has(value.split(".")[0]!);
  return {
    groups: Object.values(show.groups).filter((g) => g.members.some(has)).length,
    cues: Object.values(show.lists)
      .flatMap((l) => Object.values(l.cues))
      .filter((c) => Object.keys(c.entries).some(has)).length,
  };
}

export const remove = defineIntent({
  kind: "remove",
  fields: { fixtures: fixtureIds },
  apply(world, { fixtures }) {
    const gone = new Set(fixtures);
    const has = (value: string) => gone.has(splitItem(value).fixture);
    for (const id of fixtures) {
      fixtureOf(world, id);
      delete world.show.fixtures[id];
    }
    for (const group of Object.values(world.show.groups)) {
      if (group.members.some(has)) group.members = group.members.filter((m) => !has(m));
      for (const own of [group.arrangement, group.steps])
        for (const item of Object.keys(own ?? {})) if (has(item)) delete own![item];
    }
    for (const effect of Object.values(world.show.effects)) {
      if (effect.cast?.some(has)) effect.cast = effect.cast.filter((i) => !has(i));
      for (const voice of effect.voices) if (voice.items?.some(has)) voice.items = voice.items.filter((i) => !has(i));
    }
    for (const list of Object.values(world.show.lists)) {
      for (const cue of Object.values(list.cues)) {
        for (const key of Object.keys(cue.entries)) if (has(key)) delete cue.entries[key];
        if (cue.meant?.some(has)) cue.meant = cue.meant.filter((id) => !has(id));
        for (const id of Object.keys(cue.blackMovesOf ?? {})) if (has(id)) delete cue.blackMovesOf![id];
      }
    }
    for (const palette of Object.values(world.show.palettes)) {
      for (const key of Object.keys(palette.own)) if (has(key)) delete palette.own[key];
      for (const of of Object.values(palette.types)) if (of.reference && has(of.reference)) of.reference = null;
    }
    for (const values of [world.hands.held, world.hands.keptOut, world.hands.cameFrom])
      for (const key of Object.keys(values)) if (has(key)) delete values[key];
    world.hands.selection = world.hands.selection.filter((i) => !has(i));
    world.hands.last = world.hands.last.filter((i) => !has(i));
    world.hands.stepping = null;
  },
  says(world, { fixtures }) {
    const { groups, cues } = usesOf(world, fixtures);
    const along = [groups && plural(groups, "group"), cues && plural(cues, "cue")].filter(Boolean);
    return `removes ${itemsText(world, fixtures)}${along.length ? `, from ${along.join(" and ")} too` : ""}`;
  },
  lines: ({ show }, { fixtures }) => [`remove ${selText(show, fixtures)}`],
});
