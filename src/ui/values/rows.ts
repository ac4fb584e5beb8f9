/** The rows of the values sheet: fixtures in sections by type, each section with the columns its type has. */
import { ATTRIBUTES, attributeInfo } from "@/core/fixture/attribute";
import { functionOf } from "@/core/fixture/parameters";
import { modelOf } from "@/core/show/model";
import { splitItem, splitKey } from "@/core/show/ids";
import { cuesOf, fixturesByNumber, type World } from "@/core/show/world";
import { grouped } from "@/core/units/grouped";

export const SHOWN = ["all", "selected", "held", "in the cue"] as const;
export type Shown = (typeof SHOWN)[number];

export interface Section {
  kind: "section";
  type: string;
  model: string;
  count: number;
  /** Attributes, in the order of their families. */
  columns: string[];
}
export interface FixtureRow {
  kind: "fixture";
  id: string;
  number: number;
  name: string;
  section: Section;
}
export type Row = Section | FixtureRow;

/** The fixtures a filter leaves. @param cue the id of the cue that runs, in its list. */
function left(
  { show, hands }: World,
  shown: Shown,
  running: { list: string; cue: string } | null,
): ReadonlySet<string> | null {
  if (shown === "all") return null;
  if (shown === "selected") return new Set(hands.selection.map((i) => splitItem(i).fixture));
  if (shown === "held") return new Set(Object.keys(hands.held).map((key) => splitKey(key).fixture));
  const list = running && show.lists[running.list];
  const cue = list && cuesOf(list).find((c) => c.id === running.cue);
  return new Set(Object.keys(cue?.entries ?? {}).map((key) => splitKey(key).fixture));
}

export function rowsOf(
  world: World,
  shown: Shown,
  running: { list: string; cue: string } | null,
  folded: ReadonlySet<string>,
): Row[] {
  const only = left(world, shown, running);
  const fixtures = fixturesByNumber(world.show).filter((f) => !only || only.has(f.id));
  return [...grouped(fixtures, (f) => f.type)].flatMap(([type, own]): Row[] => {
    const modes = [...new Map(own.map((f) => [`${f.mode} ${f.virtualDimmer}`, f])).values()];
    const specs = modes.flatMap((f) => modelOf(world.show, f).specs);
    const columns = ATTRIBUTES.map((a) => a.name).filter(
      (name) => name !== "Control1" && specs.some((s) => functionOf(s, name)),
    );
    const section: Section = {
      kind: "section",
      type,
      model: world.show.types[type]?.model ?? type,
      count: own.length,
      columns,
    };
    return [
      section,
      ...(folded.has(type)
        ? []
        : own.map((f): FixtureRow => ({ kind: "fixture", id: f.id, number: f.number, name: f.name, section }))),
    ];
  });
}

/** The title of a column, short. */
export const titleOf = (attribute: string): string => attributeInfo(attribute).label;
