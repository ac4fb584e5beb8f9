/** Stops along the cycle as each type really shows them on the way. */
import { colourSeen } from "@/core/palette/seen";
import { lastFn, playedAt, playingOf } from "@/core/play/stage/playing";
import { isStepped } from "@/core/play/stage/rig";
import { functionOf } from "@/core/fixture/parameters";
import type { StopsVoice } from "@/core/show/effectSchema";
import { paramKey, splitItem, type Item } from "@/core/show/ids";
import { modelOf } from "@/core/show/model";
import type { Fixture, Show } from "@/core/show/schema";
import { drivenBy } from "@/core/effect/casting";
import { hexOfXy } from "./hexOfXy";

export interface Band {
  type: string;
  model: string;
  /** One for each place in the cycle. */
  colours: string[];
}

/** One fixture of each type among items, at most three. */
function examples(show: Show, voice: StopsVoice, items: readonly Item[]): Fixture[] {
  const found = new Map<string, Fixture>();
  for (const item of items) {
    const fixture = show.fixtures[splitItem(item).fixture];
    if (found.size >= 3) break;
    if (fixture && !found.has(fixture.type) && drivenBy(show, fixture.id, voice).length > 0)
      found.set(fixture.type, fixture);
  }
  if (found.size > 0) return [...found.values()];
  const any = Object.values(show.fixtures).find((f) => drivenBy(show, f.id, voice).length > 0);
  return any ? [any] : [];
}

/** The colours of stops for each type among the items, at so many places of a cycle; none where they give no colour. */
export function bandOf(show: Show, voice: StopsVoice, items: readonly Item[], places: number): Band[] {
  const flat = { ...voice, bpm: 60, across: 0, start: 0, width: 100, direction: "forward" as const };
  return examples(show, voice, items).flatMap((fixture): Band[] => {
    const { specs, type } = modelOf(show, fixture);
    const playing = specs.map((spec) =>
      playingOf(
        show,
        paramKey(fixture.id, spec.cell, spec.head),
        spec,
        spec.functions.map((fn) => !isStepped(fn)),
        { attribute: spec.head, effect: { plays: flat, at: 0, of: 1 } },
      ),
    );
    const colours: string[] = [];
    for (let k = 0; k < places; k++) {
      const seen = colourSeen(specs, (spec) => {
        const plays = playing[specs.indexOf(spec)];
        if (!plays || !functionOf(spec, spec.head)) return { attribute: spec.head, value: spec.default };
        const value = playedAt(plays, (k + 0.5) / places, spec.default, 0, 1);
        return { attribute: spec.functions[lastFn()]!.attribute, value };
      });
      if (!seen) return [];
      colours.push(hexOfXy(seen.xy, seen.level));
    }
    return [{ type: type.id, model: type.model, colours }];
  });
}
