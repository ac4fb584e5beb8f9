/** The rows of the values sheet: fixtures, the columns each type has, and which of both a filter leaves. */
import { attributesKnown } from "@/core/fixture/attribute";
import { functionOf } from "@/core/fixture/parameters";
import { modelOf } from "@/core/show/model";
import { placeIn, splitItem, splitKey } from "@/core/show/ids";
import type { Entry } from "@/core/show/value";
import { cuesOf, fixturesByNumber, type World } from "@/core/show/world";
import { grouped } from "@/core/units/grouped";
import { SOURCE_DEFAULT, type Half } from "@/engine/frame";
import { functionsOf, keysOf } from "@/engine/layout";
import type { StageView } from "@/engine/view";

export const SHOWN = ["all", "selected", "active", "held", "in the cue"] as const;
export type Shown = (typeof SHOWN)[number];

export interface FixtureRow {
  id: string;
  number: number;
  name: string;
  type: string;
}

export interface Rows {
  rows: FixtureRow[];
  /** By type: the attributes its fixtures have, of what is held or stored only those where the filter is that. In the order of their families. */
  columns: Map<string, string[]>;
}

/** What is not at its default on stage: fixtures, and by type the attributes that are not. */
export interface Active {
  fixtures: string[];
  attributes: Record<string, string[]>;
}
export const NONE_ACTIVE: Active = { fixtures: [], attributes: {} };

export function activeNow({ show }: World, half: Half, { layout }: StageView): Active {
  const fixtures = new Set<string>();
  const attributes = new Map<string, Set<string>>();
  const [keys, functions] = [keysOf(layout), functionsOf(layout)];
  for (let p = 0; p < layout.size; p++) {
    if (half.source[p] === SOURCE_DEFAULT) continue;
    const { fixture } = placeIn(keys[p]!);
    const type = show.fixtures[fixture]?.type;
    if (!type) continue;
    fixtures.add(fixture);
    let own = attributes.get(type);
    if (!own) attributes.set(type, (own = new Set()));
    own.add(functions[p]![half.fn[p]!]!);
  }
  return {
    fixtures: [...fixtures],
    attributes: Object.fromEntries([...attributes].map(([type, own]) => [type, [...own].sort()])),
  };
}

/** What a filter is about: entries of a few, or all that is there. @param cue the id of the cue that runs, in its list. */
function entriesOf({ show, hands }: World, shown: Shown, running: { list: string; cue: string } | null) {
  if (shown === "held") return hands.held;
  const list = running && show.lists[running.list];
  return list && shown === "in the cue" ? (cuesOf(list).find((c) => c.id === running.cue)?.entries ?? {}) : {};
}

export function rowsOf(
  world: World,
  shown: Shown,
  running: { list: string; cue: string } | null,
  active: Active = NONE_ACTIVE,
): Rows {
  const entries: Readonly<Record<string, Pick<Entry, "attribute">>> = entriesOf(world, shown, running);
  const some = shown === "held" || shown === "in the cue" || shown === "active";
  const only =
    shown === "all"
      ? null
      : shown === "selected"
        ? new Set(world.hands.selection.map((i) => splitItem(i).fixture))
        : shown === "active"
          ? new Set(active.fixtures)
          : new Set(Object.keys(entries).map((key) => splitKey(key).fixture));
  const fixtures = fixturesByNumber(world.show).filter((f) => !only || only.has(f.id));
  const used = new Map<string, Set<string>>(
    shown === "active" ? Object.entries(active.attributes).map(([type, own]) => [type, new Set(own)]) : [],
  );
  if (some)
    for (const [key, { attribute }] of Object.entries(entries)) {
      const type = world.show.fixtures[splitKey(key).fixture]?.type;
      if (type) used.set(type, (used.get(type) ?? new Set()).add(attribute));
    }
  const columns = new Map(
    [...grouped(fixtures, (f) => f.type)].map(([type, own]) => {
      const modes = [...new Map(own.map((f) => [`${f.mode} ${f.virtualDimmer}`, f])).values()];
      const specs = modes.flatMap((f) => modelOf(world.show, f).specs);
      const names = attributesKnown()
        .map((a) => a.name)
        .filter(
          (name) =>
            name !== "Control1" && specs.some((s) => functionOf(s, name)) && (!some || used.get(type)?.has(name)),
        );
      return [type, names];
    }),
  );
  return { rows: fixtures.map(({ id, number, name, type }) => ({ id, number, name, type })), columns };
}
