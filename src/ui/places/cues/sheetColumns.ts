/** Which parameters a cue sheet has: of one fixture, the selection, a group, or all that the list uses. */
import { trackingOf, type Tracking } from "@/core/cue/tracking";
import { attributeInfo } from "@/core/fixture/attribute";
import { itemText, specOf } from "@/core/show/model";
import { item, splitKey, type ParamKey } from "@/core/show/ids";
import type { CueList, Show } from "@/core/show/schema";
import { keysThatDiffer } from "@/core/units/overlaid";
import type { SheetColumn } from "@/ui/base/sheet/view";

export const WHOSE = ["selection", "all"] as const;

export interface ParamColumn extends SheetColumn {
  /** Empty for the cue's own column. */
  key: ParamKey;
  attribute: string;
}

export const CUE: ParamColumn = {
  id: "cue",
  key: "",
  attribute: "",
  title: "Cue",
  hint: "The cue, and how far what it stores reaches",
  width: 74,
  kind: "text",
  fixed: true,
};

type About = [Show["fixtures"], Show["types"], readonly string[] | null];
let last: { about: About; columns: Tracking["columns"]; made: ParamColumn[] } | undefined;

/** Whether two versions of a list say anything of the same parameters. */
const ofTheSame = (a: Tracking["columns"], b: Tracking["columns"]): boolean =>
  a.size === b.size && keysThatDiffer(a, b).every((key) => a.has(key) === b.has(key));

/**
 * The columns in the order of fixture numbers, parameters in the order of their type; only what the list says
 * anything of. An edit that leaves those as they are leaves thousands of columns as they are.
 */
export function columnsOf(
  show: Show,
  list: CueList,
  whose: (typeof WHOSE)[number] | string,
  selection: readonly string[],
): ParamColumn[] {
  const { columns } = trackingOf(list, show);
  const group = show.groups[whose];
  const items = group ? group.members : whose === "selection" ? selection : null;
  const about: About = [show.fixtures, show.types, items];
  const same = last?.about.every((part, k) => part === about[k]) && ofTheSame(last.columns, columns);
  const made = same ? last!.made : madeOf(show, columns.keys(), items);
  last = { about, columns, made };
  return made;
}

function madeOf(show: Show, keys: Iterable<ParamKey>, items: readonly string[] | null): ParamColumn[] {
  const wanted = items && new Map(items.map((i, k) => [i, k]));
  const place = (key: ParamKey): number => {
    const { fixture, cell } = splitKey(key);
    if (!wanted) return show.fixtures[fixture]?.number ?? 0;
    return wanted.get(item(fixture, cell)) ?? wanted.get(fixture) ?? -1;
  };
  const shown: { key: ParamKey; at: number; order: number }[] = [];
  let order = 0;
  for (const key of keys) {
    const at = place(key);
    if (at >= 0 && show.fixtures[splitKey(key).fixture]) shown.push({ key, at, order: order++ });
  }
  const rank = new Map<string, number>();
  return shown
    .map((s) => ({ ...s, spec: specOf(show, s.key) }))
    .filter((s) => s.spec !== undefined)
    .sort(
      (a, b) => a.at - b.at || cellOf(a.key) - cellOf(b.key) || rankOf(show, rank, a.key) - rankOf(show, rank, b.key),
    )
    .map(({ key, spec }) => {
      const { fixture, cell } = splitKey(key);
      const info = attributeInfo(spec!.functions[0]!.attribute);
      const name = itemText(show, item(fixture, cell));
      return {
        id: key,
        key,
        attribute: spec!.functions[0]!.attribute,
        title: `${name} ${info.label.slice(0, 8)}`,
        hint: `${info.label} of ${name} ${show.fixtures[fixture]!.name}`,
        width: 92,
        kind: "number" as const,
      };
    });
}

const cellOf = (key: ParamKey): number => splitKey(key).cell;

/** The place of a parameter among those of its fixture. */
function rankOf(show: Show, known: Map<string, number>, key: ParamKey): number {
  const held = known.get(key);
  if (held !== undefined) return held;
  const spec = specOf(show, key);
  const { fixture } = splitKey(key);
  const mode = show.types[show.fixtures[fixture]?.type ?? ""]?.modes.find(
    (m) => m.name === show.fixtures[fixture]?.mode,
  );
  const order = ["Dimmer", "Pan", "Tilt"].indexOf(spec?.head ?? "");
  const channel = mode?.channels.findIndex((c) => c.functions.some((f) => f.attribute === spec?.head)) ?? 0;
  const rank = order >= 0 ? order - 10 : channel;
  known.set(key, rank);
  return rank;
}
