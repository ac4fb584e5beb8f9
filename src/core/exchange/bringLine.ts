/** What a line asks to be brought over from another show. */
import { fail } from "../show/refusal";
import type { Id } from "../show/ids";
import type { Show } from "../show/schema";
import { mappedByNumber, mappedByType, type Bringable, type BringRequest } from "./bring";

type Ranges = [first: number, last: number][];
interface BringArgs {
  palettes?: Ranges | undefined;
  effects?: Ranges | undefined;
  waves?: Ranges | undefined;
  groups?: Ranges | undefined;
  macros?: Ranges | undefined;
  views?: Ranges | undefined;
  pages?: Ranges | undefined;
  lists?: Ranges | undefined;
  firstCue?: number | undefined;
  lastCue?: number | undefined;
  type?: true;
  replace?: true;
}

const inRanges = (ranges: Ranges, number: number): boolean => ranges.some(([a, b]) => number >= a && number <= b);

/** What is named, of the other show; ends with `fail` where it has none of it. */
export function requestOf(now: Show, other: Show, args: BringArgs): BringRequest {
  const picks: Partial<Record<Bringable, Id[]>> = {};
  const take = (
    what: Bringable,
    records: Readonly<Record<Id, { id: Id; number: number }>>,
    ranges: Ranges | undefined,
  ) => {
    if (!ranges) return;
    const found = Object.values(records).filter((r) => inRanges(ranges, r.number));
    for (const [first, last] of ranges)
      if (!found.some((r) => r.number >= first && r.number <= last))
        fail(
          `the other show has no ${what} ${first === last ? first : `from ${first} to ${last}`}`,
          `It has ${
            Object.values(records)
              .map((r) => r.number)
              .sort((a, b) => a - b)
              .slice(0, 20)
              .join(", ") || `no ${what}s`
          }`,
        );
    picks[what] = found.sort((a, b) => a.number - b.number).map((r) => r.id);
  };
  take("palette", other.palettes, args.palettes);
  take("effect", other.effects, args.effects);
  take("wave", other.waves, args.waves);
  take("group", other.groups, args.groups);
  take("macro", other.macros, args.macros);
  take("view", other.views, args.views);
  take("page", other.pages, args.pages);
  take("list", other.lists, args.lists);
  const base = {
    show: other,
    fixtures: args.type ? mappedByType(other, now) : mappedByNumber(other, now),
    clash: args.replace ? ("replace" as const) : ("beside" as const),
  };
  if (args.firstCue === undefined) {
    if (Object.values(picks).every((ids) => ids.length === 0))
      fail("nothing is named to bring over", "Such as: palette 1 thru 9");
    return { ...base, picks };
  }
  const lists = picks.list ?? [];
  if (lists.length !== 1) fail("cues come from one list at a time");
  delete picks.list;
  const list = other.lists[lists[0]!]!;
  const last = args.lastCue ?? args.firstCue;
  const cues = Object.values(list.cues).filter((c) => c.number >= args.firstCue! - 0.0005 && c.number <= last + 0.0005);
  if (cues.length === 0) fail(`list ${list.number} of the other show has no cue ${args.firstCue}`);
  return { ...base, picks, cues: { list: list.id, cues: cues.map((c) => c.id), into: list.number } };
}
