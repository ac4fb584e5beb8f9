import { standingOf, inForceAt, trackingOf } from "@/core/cue/tracking";
import { resolveEntry } from "@/core/program/resolve";
import { specOf } from "@/core/show/model";
import type { Cue, CueList, Show } from "@/core/show/schema";
import { isAim, isLink, type Entry } from "@/core/show/value";
import { plain } from "@/core/units/units";
import { effectMark, paletteMark } from "@/ui/show/held/standing";
import type { Look } from "@/ui/base/sheet/looks";

/** What an entry gives, in a few letters. */
function valueText(
  show: Show,
  key: string,
  entry: Entry,
  names: boolean,
): { text: string; palette: string | undefined } {
  const spec = specOf(show, key);
  const palette =
    typeof entry.value === "object" && isLink(entry.value) ? show.palettes[entry.value.palette] : undefined;
  if (palette && names) return { text: paletteMark(palette), palette: paletteMark(palette) };
  const step = spec?.functions
    .find((f) => f.attribute === entry.attribute)
    ?.steps?.find((s) => s.value === entry.value);
  const means = spec && resolveEntry(show, key, spec, entry);
  const aimed = entry.value !== undefined && isAim(entry.value) ? " ⌖" : "";
  return {
    text: `${palette ? "◇ " : ""}${step?.name ?? (means ? plain(means.value, 1) : "…")}${aimed}`,
    palette: palette && paletteMark(palette),
  };
}

/** A parameter in a cue: stored, tracked, released, reached, blocked, from a palette, under an effect; told by form. */
export function cellOf(show: Show, list: CueList, cue: Cue, at: number, key: string, names: boolean): Look {
  const tracking = trackingOf(list, show);
  const playing = tracking.columns.get(key)?.effects ? inForceAt(tracking, key, at, false, "effect") : undefined;
  const mark = playing && effectMark(show, playing.entry.effect);
  const here = cue.entries[key];
  const own = here?.time ? " ◷" : "";
  if (mark && playing) {
    const stored = playing.at === at;
    return {
      content: `${stored ? "•" : "↧"}${names ? mark : "∿"}${own}`,
      title: `${mark}${stored ? ", stored here" : ", tracked"}`,
      data: { "data-state": stored ? "stored" : "tracked" },
    };
  }
  const standing = standingOf(list, at, key, show);
  if (standing.state === "unset" || standing.state === "released")
    return {
      content: standing.state === "released" ? "•∅" : "∅",
      title: standing.state === "released" ? "Released here" : "Not set so far",
      data: { "data-state": standing.state },
    };
  const { text, palette } = valueText(show, key, standing.entry, names);
  if (standing.state === "tracked")
    return {
      content: `↧${text}`,
      title: `${palette ? `${palette}: ` : ""}tracked from cue ${plain(standing.from.number, 3)}${standing.from.reach ? ", by its reach" : ""}`,
      data: { "data-state": "tracked" },
    };
  // What would track in just the same is blocked.
  const before = at > 0 ? inForceAt(tracking, key, at - 1)?.entry : undefined;
  const blocked = before !== undefined && JSON.stringify(before.value) === JSON.stringify(standing.entry.value);
  return {
    content: blocked ? `[${text}]${own}` : `•${text}${own}`,
    title: `${palette ? `${palette}: ` : ""}${blocked ? "stored here, as it would track in anyway" : "stored here"}${
      here?.time
        ? `; delay ${plain(here.time.delay ?? 0)} s, fade ${here.time.fade === undefined ? "the cue's" : `${plain(here.time.fade)} s`}`
        : ""
    }`,
    data: { "data-state": blocked ? "blocked" : "stored" },
  };
}
