/** Colours to be held: by primaries, by chromaticity, as a white, or of the filter list. */
import { isColour, xyOfHex, xyOfKelvin, type Xy } from "../colour/chromaticity";
import { FILTER_COLOURS, filterNamed } from "../colour/filterList";
import { colourValues, hasColour, type Wanted } from "../palette/colour";
import { alongStops } from "../select/spread";
import { fail } from "../show/refusal";
import { plain } from "../units/units";
import { current, placed, type Building } from "./building";

/** A colour for each of the selected. @param at the colour at an item's closed place, 0..1. @param says it in words. */
function coloured(b: Building, at: Wanted | ((t: number) => Wanted), says: string): void {
  const { show } = b.context.world;
  const known = new Map<number, Wanted>();
  const wanted = (t: number): Wanted => {
    if (typeof at !== "function") return at;
    const made = known.get(t) ?? at(t);
    known.set(t, made);
    return made;
  };
  const targets = placed(b, (i) => hasColour(show, i));
  if (targets.length === 0) fail("none of the selected fixtures has colour", "Select fixtures that have it");
  const off: number[] = [];
  for (const { item, t } of targets) {
    const made = colourValues(show, item, wanted(t));
    for (const [key, entry] of made.values) {
      const time = current(b, key)?.time;
      b.values[key] = time ? { ...entry, time } : entry;
    }
    if (made.off > NOTICED) off.push(made.off);
  }
  b.lastWhat = { families: ["Colour"] };
  const far =
    off.length > 0
      ? `; ${off.length} of ${targets.length} show${off.length === 1 ? "s the nearest it has" : " the nearest they have"}, ${plain(Math.max(...off), 3)} off in u'v'${off.length > 1 ? " at most" : ""}`
      : "";
  b.says.push(`colour to ${says}${far}`);
}

/** A difference in u'v' that eyes see side by side. */
const NOTICED = 0.002;

/** Colours by each type's own primaries; several spread. @param hexes `#rrggbb`. */
export function colour(b: Building, hexes: readonly string[]): void {
  const parts = hexes.map((hex) => [1, 3, 5].map((i) => parseInt(hex.slice(i, i + 2), 16)));
  const at = (t: number): Wanted => ({
    rgb: [0, 1, 2].map(
      (i) =>
        alongStops(
          parts.map((p) => p[i]!),
          t,
        ) / 255,
    ) as [number, number, number],
  });
  coloured(b, hexes.length > 1 ? at : at(0), hexes.join(" to "));
}

/** A chromaticity, as bright as each type can give it. */
export function chroma(b: Building, xy: Xy): void {
  if (!isColour(xy)) fail(`xy ${plain(xy[0], 4)} ${plain(xy[1], 4)} is no colour`, "White is xy 0.3127 0.329");
  coloured(b, { xy, white: false }, `xy ${plain(xy[0], 4)} ${plain(xy[1], 4)}`);
}

/** White of colour temperatures; several spread. @param kelvins 1,000 to 20,000. */
export function kelvin(b: Building, kelvins: readonly number[]): void {
  const at = (t: number): Wanted => ({ xy: xyOfKelvin(alongStops(kelvins, t)), white: true });
  coloured(b, kelvins.length > 1 ? at : at(0), kelvins.map((k) => `${plain(k)} K`).join(" to "));
}

/** A filter colour of the list. */
export function filter(b: Building, name: string): void {
  const found =
    filterNamed(name) ??
    fail(
      `there is no filter colour "${name}"`,
      `There is ${FILTER_COLOURS.slice(0, 8)
        .map((f) => `"${f.name}"`)
        .join(", ")} ...`,
    );
  coloured(b, { xy: xyOfHex(found.hex), white: false }, `filter "${found.name}"`);
}
