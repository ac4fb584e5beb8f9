/** Fixture types of the show: brought in, changed, taken out. */
import { current } from "immer";
import {
  FixtureTypeSchema,
  footprint,
  TypeIdSchema,
  typeProblem,
  wantsVirtualDimmer,
  type FixtureType,
} from "../fixture/type";
import { modeOf, parametersOf } from "../fixture/parameters";
import { clashesIn } from "../patch/clash";
import { remapFixture } from "../patch/remap";
import { defineIntent } from "../show/change/intent";
import { unsaid } from "../show/words/lineText";
import { fail } from "../show/refusal";
import type { Show } from "../show/schema";
import { plural } from "../units/plural";

/** What another version of a type changes of the fixtures that are of it, in words; empty where nothing. */
export function typeChanges(show: Pick<Show, "types" | "fixtures">, type: FixtureType): string[] {
  const old = show.types[type.id];
  const own = Object.values(show.fixtures).filter((f) => f.type === type.id);
  if (!old || own.length === 0) return [];
  const said: string[] = [];
  for (const name of new Set(own.map((f) => f.mode))) {
    const users = own.filter((f) => f.mode === name).length;
    const [before, now] = [modeOf(old, name)!, modeOf(type, name)];
    const who = `${plural(users, "fixture")} in mode ${name}`;
    if (!now) {
      said.push(`${who} would be in mode ${type.modes[0]!.name}: there is no ${name} any more`);
      continue;
    }
    const size = [footprint(before), footprint(now)];
    if (size[0] !== size[1]) said.push(`${who} would take ${size[1]} slots instead of ${size[0]}`);
    const names = (m: typeof before) =>
      new Set(m.channels.flatMap((c) => c.functions.map((f) => `${c.cell}.${f.attribute}`)));
    const [a, b] = [names(before), names(now)];
    const plain = (some: string[]) => [...new Set(some.map((n) => n.slice(n.indexOf(".") + 1)))].join(", ");
    const [lost, gained] = [[...a].filter((n) => !b.has(n)), [...b].filter((n) => !a.has(n))];
    if (lost.length > 0) said.push(`${who} would lose ${plain(lost)}; what is stored of it is kept inactive`);
    if (gained.length > 0) said.push(`${who} would gain ${plain(gained)}`);
    if (lost.length + gained.length === 0 && JSON.stringify(before) !== JSON.stringify(now) && size[0] === size[1])
      said.push(`${who} would send other DMX values`);
  }
  return said;
}

/** Brings a type in, or puts another version of one in its place. */
export const putType = defineIntent({
  kind: "putType",
  fields: { type: FixtureTypeSchema },
  apply(world, { type: read }) {
    const type = read;
    const wrong = typeProblem(type);
    if (wrong) fail(`this type cannot be used: ${wrong}`);
    world.show.types[type.id] = type;
    const before = current<Show>(world.show);
    for (const fixture of Object.values(world.show.fixtures)) {
      if (fixture.type !== type.id) continue;
      const mode = modeOf(type, fixture.mode) ?? type.modes[0]!;
      fixture.mode = mode.name;
      if (!wantsVirtualDimmer(mode)) fixture.virtualDimmer = false;
      remapFixture(world.show, world.hands, fixture.id, parametersOf(mode, fixture.virtualDimmer));
    }
    // Who no longer fits where it was loses its address, not the edit.
    const all = Object.values(current<Show>(world.show).fixtures);
    const clashes = clashesIn(before.types, all, (id) => before.fixtures[id]!.type !== type.id);
    for (const { fixture, field } of clashes) if (field === "addresses") world.show.fixtures[fixture]!.addresses = [];
  },
  says({ show }, { type: read }) {
    const type = read;
    const changes = typeChanges(show, type);
    return show.types[type.id]
      ? `changes ${type.maker} ${type.model}${changes.length > 0 ? `: ${changes.join("; ")}` : ", which no fixture is of"}`
      : `brings in ${type.maker} ${type.model}: ${type.modes.map((m) => `${m.name} (${footprint(m)} channels)`).join(", ")}`;
  },
  lines: (_, { type }) => [unsaid(`brings in the type ${type.model}`)],
});

/** Takes a type out of the show that no fixture is of. */
export const removeType = defineIntent({
  kind: "removeType",
  fields: { type: TypeIdSchema },
  apply(world, { type }) {
    if (!world.show.types[type]) fail(`this show has no type ${type}`);
    const used = Object.values(world.show.fixtures).filter((f) => f.type === type).length;
    if (used > 0)
      fail(`${plural(used, "fixture is", "fixtures are")} of the type ${type}`, "Swap or remove them first");
    delete world.show.types[type];
  },
  says: ({ show }, { type }) => `takes ${show.types[type]?.model ?? type} out of the show`,
  lines: (_, { type }) => [unsaid(`takes the type ${type} out of the show`)],
});
