/** What lies under held values while hands work blind: the live stage, or a cue's look. */
import { countOf } from "@/core/play/stage/layers";
import { fillLook, placesOf, type SeenEffect } from "@/core/play/stage/lookFrame";
import type { Show } from "@/core/show/schema";
import { cuesOf } from "@/core/show/world";
import { SOURCE_DEFAULT, wholeHalf, type Half } from "@/engine/frame";
import { keysOf, type Layout } from "@/engine/layout";
import type { StageView } from "@/engine/view";
import { copyStage } from "./laid";

/** Puts it into a frame, its effects after so many seconds. */
export type Under = (half: Half, gone: number) => void;

/**
 * The live stage, in frames of a layout; while a rig changes, another may be published for a moment.
 * @param live as it is published now: where memory is not shared, each frame is another.
 */
export const liveStage =
  (layout: Layout, live: () => StageView | undefined): Under =>
  (half) => {
    const now = live();
    if (now?.layout === layout) copyStage(half, wholeHalf(now.frame));
  };

/** The look of a cue; undefined where there is no such cue. */
export function lookOf(show: Show, of: { list: string; cue: string }, layout: Layout): Under | undefined {
  const list = show.lists[of.list];
  const cues = list ? cuesOf(list) : [];
  const at = cues.findIndex((c) => c.id === of.cue);
  if (!list || at < 0) return undefined;
  const { index, specs } = placesOf(show);
  const n = specs.length;
  const made = { value: new Float64Array(n), fn: new Uint8Array(n), cue: new Int32Array(n) };
  const effects: SeenEffect[] = fillLook(show, list, at, made);
  const places = keysOf(layout).map((key) => index.get(key) ?? -1);
  return (half, gone) => {
    for (const { at: place, after, speed } of effects)
      ({ value: made.value[place], fn: made.fn[place] } = after(gone * speed));
    places.forEach((place, p) => {
      const from = place < 0 ? -1 : made.cue[place]!;
      half.value[p] = half.raw[p] = place < 0 ? 0 : made.value[place]!;
      half.fn[p] = place < 0 ? 0 : made.fn[place]!;
      // Which list it is, its cue tells.
      half.source[p] = from < 0 ? SOURCE_DEFAULT : 0;
      half.cue[p] = from < 0 ? 0 : countOf(cues[from]!.id);
    });
  };
}
