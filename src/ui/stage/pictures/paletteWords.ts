/** What a palette says of a fixture, in a few words. */
import { attributeInfo } from "@/core/fixture/attribute";
import { resolveEntry } from "@/core/program/resolve";
import { allTargets } from "@/core/show/model";
import type { Palette } from "@/core/show/paletteSchema";
import type { Fixture, Show } from "@/core/show/schema";
import { plain } from "@/core/units/units";

const MOST_WORDS = 3;

/** "zoom 12°", "prism in": the first few of what it sets, of the fixture or its first cell. */
export function wordsOf(show: Show, palette: Palette, fixture: Fixture): string[] {
  const seen = new Set<string>();
  const words: string[] = [];
  for (const { key, spec } of allTargets(show, fixture.id)) {
    const means = resolveEntry(show, key, spec, { attribute: spec.head, value: { palette: palette.id } });
    const fn = means && spec.functions[means.fn]!;
    if (!fn || seen.has(fn.attribute)) continue;
    seen.add(fn.attribute);
    const { label, unit } = attributeInfo(fn.attribute);
    const step = fn.steps?.find((s) => s.value === Math.round(means.value));
    const shown = step
      ? step.name
      : `${plain(means.value, 1)}${unit === "slot" || unit === "state" ? "" : unit === "°" ? "°" : ` ${unit}`}`;
    words.push(`${label.toLowerCase()} ${shown}`.trim());
  }
  return words.length > MOST_WORDS
    ? [...words.slice(0, MOST_WORDS - 1), `and ${words.length - MOST_WORDS + 1} more`]
    : words;
}
