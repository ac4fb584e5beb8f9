"use client";

import { useEffect } from "react";
import { fillLook, placesOf } from "@/core/play/lookFrame";
import { resolveEntry } from "@/core/program/resolve";
import type { Hands } from "@/core/show/hands";
import { specOf } from "@/core/show/model";
import type { Show } from "@/core/show/schema";
import { cuesOf } from "@/core/show/world";
import { frameBytes, openFrame, publish, type Layout } from "@/engine/frame";

/** So often effects are drawn on, milliseconds. */
const EVERY_MS = 40;

/**
 * A cue's look in place of the stage, with what is held laid over it: a frame of memory like the engine's.
 * @param tell hands the memory to the painter, again after every change where it cannot be shared.
 */
export function useLookStage(
  of: { list: string; cue: string } | null,
  show: Show,
  held: Hands["held"],
  layout: Layout | undefined,
  tell: (layout: Layout, memory: ArrayBufferLike) => void,
): void {
  useEffect(() => {
    const list = of ? show.lists[of.list] : undefined;
    const at = list && of ? cuesOf(list).findIndex((c) => c.id === of.cue) : -1;
    if (!list || at < 0 || !layout) return;
    const { index, specs } = placesOf(show);
    const made = { value: new Float64Array(specs.length), fn: new Uint8Array(specs.length) };
    const effects = fillLook(show, list, at, made);
    const places = layout.keys.map((key) => index.get(key) ?? -1);
    for (const [key, entry] of Object.entries(held)) {
      const place = index.get(key);
      const spec = specOf(show, key);
      const resolved = spec && resolveEntry(show, key, spec, entry);
      if (place === undefined || !resolved) continue;
      made.value[place] = resolved.value;
      made.fn[place] = resolved.fn;
    }
    const moving = effects.filter((e) => held[layout.keys[places.indexOf(e.at)] ?? ""]?.value === undefined);
    const shared = typeof SharedArrayBuffer !== "undefined" && crossOriginIsolated;
    const memory = shared ? new SharedArrayBuffer(frameBytes(layout)) : new ArrayBuffer(frameBytes(layout));
    const frame = openFrame(layout, memory);
    const began = performance.now();
    const draw = () => {
      const gone = (performance.now() - began) / 1000;
      for (const { at: place, after, speed } of moving)
        ({ value: made.value[place], fn: made.fn[place] } = after(gone * speed));
      publish(frame, (half) => {
        places.forEach((place, p) => {
          half.value[p] = place < 0 ? 0 : made.value[place]!;
          half.raw[p] = half.value[p]!;
          half.fn[p] = place < 0 ? 0 : made.fn[place]!;
        });
      });
      if (!shared) tell(layout, memory);
    };
    draw();
    tell(layout, memory);
    if (moving.length === 0) return;
    const timer = setInterval(draw, EVERY_MS);
    return () => clearInterval(timer);
  }, [of, show, held, layout, tell]);
}
