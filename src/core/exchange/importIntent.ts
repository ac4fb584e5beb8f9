/** Bringing fixtures in from a table: one step, all that could be read. */
import { current } from "immer";
import { z } from "../units/zod";
import { modelOf } from "../show/model";
import { libraryType } from "../fixture/library/library";
import { clashesIn } from "../patch/clash";
import { firstPlaces } from "../patch/firstPlaces";
import { remapFixture } from "../patch/remap";
import { defineIntent, newId } from "../show/intent";
import { FixtureIdSchema } from "../show/ids";
import { unsaid } from "../show/lineText";
import { fail } from "../show/refusal";
import { FixtureSchema, type Fixture, type Show } from "../show/schema";

const row = FixtureSchema.omit({ id: true })
  .partial()
  .required({ number: true, type: true, mode: true, addresses: true });

export const importFixtures = defineIntent({
  kind: "importFixtures",
  fields: { rows: z.array(z.object({ updates: FixtureIdSchema.nullable(), fixture: row })).max(20_000) },
  apply(world, { rows }) {
    // On plain records: thousands of rows are slow through a draft.
    const show: Show = { ...current(world.show) };
    const before = show.fixtures;
    show.types = { ...show.types };
    show.fixtures = { ...show.fixtures };
    const read = rows as {
      updates: string | null;
      fixture: Partial<Fixture> & Pick<Fixture, "number" | "type" | "mode" | "addresses">;
    }[];
    if (read.length === 0) fail("no row of the table could be brought in", "See the reasons beside the rows");
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
      if (old.type !== now.type || old.mode !== now.mode)
        remapFixture(world.show, world.hands, updates, modelOf(show, now).specs);
    }
  },
  says(_, { rows }) {
    const changed = rows.filter((r) => r.updates !== null).length;
    return [
      rows.length - changed && `brings in ${rows.length - changed} fixtures from a table`,
      changed && `changes ${changed}`,
    ]
      .filter(Boolean)
      .join("; ");
  },
  lines: (_, { rows }) => [unsaid(`brings in ${rows.length} fixtures from a table`)],
});
