/** Bringing fixtures in from a table: one step, all that could be read. */
import { current } from "immer";
import { z } from "../units/zod";
import { modelOf } from "../show/model";
import { libraryType } from "../fixture/library/library";
import { clashesIn } from "../patch/clash";
import { firstPlaces } from "../patch/firstPlaces";
import { remapFixture } from "../patch/remap";
import { FixtureTypeSchema, TypeIdSchema, type FixtureType } from "../fixture/type";
import { swapped } from "../rig/swap";
import type { Hands } from "../show/hands";
import { grouped } from "../units/grouped";
import { defineIntent, newId, type WorldDraft } from "../show/change/intent";
import { FixtureIdSchema } from "../show/ids";
import { unsaid } from "../show/words/lineText";
import { fail } from "../show/refusal";
import { FixtureSchema, ScenicSchema, type Fixture, type Show } from "../show/schema";
import { plural } from "../units/plural";

const row = FixtureSchema.omit({ id: true })
  .partial()
  .required({ number: true, type: true, mode: true, addresses: true });

export const importFixtures = defineIntent({
  kind: "importFixtures",
  fields: {
    rows: z.array(z.object({ updates: FixtureIdSchema.nullable(), fixture: row })).max(20_000),
    /** Types that come along. */
    types: z.record(TypeIdSchema, FixtureTypeSchema).optional(),
    /** Trusses and set pieces that come along. */
    pieces: z
      .array(ScenicSchema.omit({ id: true }))
      .max(1000)
      .optional(),
  },
  apply(world, { rows, types = {}, pieces = [] }) {
    // On plain records: thousands of rows are slow through a draft.
    const show: Show = { ...current<Show>(world.show) };
    const before = show.fixtures;
    show.types = { ...show.types };
    show.fixtures = { ...show.fixtures };
    const read = rows as {
      updates: string | null;
      fixture: Partial<Fixture> & Pick<Fixture, "number" | "type" | "mode" | "addresses">;
    }[];
    if (read.length === 0 && pieces.length === 0 && Object.keys(types).length === 0)
      fail("no row of the table could be brought in", "See the reasons beside the rows");
    for (const type of Object.values<FixtureType>(types)) show.types[type.id] ??= type;
    for (const piece of pieces) {
      const id = newId(world, "s");
      world.show.scenery[id] = { ...piece, id };
    }
    swapFirst(world, show, read);
    const places = firstPlaces(show, read.filter((r) => r.updates === null && !r.fixture.place).length);
    const touched = new Set<string>();
    for (const { updates, fixture } of read) {
      const type =
        show.types[fixture.type] ?? libraryType(fixture.type) ?? fail(`there is no fixture type ${fixture.type}`);
      const old =
        updates === null
          ? undefined
          : (show.fixtures[updates] ?? fail(`fixture ${fixture.number} is no longer patched`));
      const id = old?.id ?? newId(world, "f");
      touched.add(id);
      show.types[type.id] ??= type;
      show.fixtures[id] = {
        ...(old ?? {
          name: type.model,
          virtualDimmer: false,
          place: { x: 0, y: 0, z: 0 },
          turn: { x: 0, y: 0, z: 0 },
          invertPan: false,
          invertTilt: false,
          swap: false,
          scale: 100,
          correct: { pan: 0, tilt: 0 },
          note: "",
          ...(fixture.place ? {} : { place: places.shift()! }),
        }),
        ...fixture,
        id,
      };
    }
    const clash = clashesIn(show.types, Object.values(show.fixtures), (id) => !touched.has(id))[0];
    world.show.types = show.types;
    world.show.fixtures = show.fixtures;
    if (clash)
      fail(
        `fixture ${show.fixtures[clash.fixture]!.number} cannot come in: ${clash.text}`,
        "Read the table again: the patch has changed meanwhile",
      );
    for (const { updates } of read) {
      if (updates === null) continue;
      const [old, now] = [before[updates]!, show.fixtures[updates]!];
      if (old.type === now.type && old.mode !== now.mode)
        remapFixture(world.show, world.hands, updates, modelOf(show, now).specs);
    }
  },
  says(_, { rows, types = {}, pieces = [] }) {
    const changed = rows.filter((r) => r.updates !== null).length;
    return [
      rows.length - changed && `brings in ${rows.length - changed} fixtures`,
      changed && `changes ${changed}`,
      Object.keys(types).length > 0 && `with ${plural(Object.keys(types).length, "type")}`,
      pieces.length > 0 && `and ${pieces.length} set pieces`,
    ]
      .filter(Boolean)
      .join("; ");
  },
  lines: (_, { rows }) => [unsaid(`brings in ${rows.length} fixtures from a table`)],
});

/** Fixtures that become another type keep what is stored of them: what a swap of types does, before the rest is set. */
function swapFirst(
  world: WorldDraft,
  show: Show,
  rows: readonly { updates: string | null; fixture: Pick<Fixture, "type" | "mode"> }[],
): void {
  const swaps = grouped(
    rows.filter(
      ({ updates, fixture }) => updates !== null && (show.fixtures[updates]?.type ?? fixture.type) !== fixture.type,
    ),
    ({ fixture }) => `${fixture.type} ${fixture.mode}`,
  );
  let hands = current<Hands>(world.hands);
  for (const own of swaps.values()) {
    const { type, mode } = own[0]!.fixture;
    const made = swapped(show, hands, { fixtures: own.map((r) => r.updates!), type, mode, at: "unpatched" });
    Object.assign(show, {
      types: { ...made.show.types },
      fixtures: { ...made.show.fixtures },
      lists: made.show.lists,
      palettes: made.show.palettes,
    });
    hands = made.hands;
  }
  if (swaps.size === 0) return;
  Object.assign(world.show, { lists: show.lists, palettes: show.palettes });
  Object.assign(world.hands, { held: hands.held, parked: hands.parked });
}
