/** What is held, or would be, laid over a picture of the stage that nothing but the hands see. */
import { lastFn, playedAt, playingOf } from "@/core/play/stage/playing";
import { isStepped } from "@/core/play/stage/rig";
import { resolveEntry } from "@/core/program/resolve";
import { isStop } from "@/core/show/effectSchema";
import type { Hands } from "@/core/show/hands";
import type { ParamIndex } from "@/core/show/ids";
import { specOf } from "@/core/show/model";
import type { Show } from "@/core/show/schema";
import { frameBytes, openFrame, SOURCE_PROGRAMMER, type Frame, type Half } from "@/engine/frame";
import type { Layout } from "@/engine/layout";

export interface Laid {
  /** Place of the parameter in the frame. */
  at: number;
  value: ReturnType<typeof resolveEntry>;
  plays: ReturnType<typeof playingOf>;
}

/** Held entries by their places in a frame; what the frame does not have is left out. */
export function laidOf(show: Show, index: ParamIndex, held: Hands["held"]): Laid[] {
  return Object.entries(held).flatMap(([key, entry]) => {
    const at = index.get(key);
    const spec = specOf(show, key);
    if (at === undefined || !spec) return [];
    const value = resolveEntry(show, key, spec, entry);
    const { effect } = entry;
    const mixes = spec.functions.map((f) => !isStepped(f));
    const plays = effect && !isStop(effect) ? playingOf(show, key, spec, mixes, entry) : undefined;
    return value || plays ? [{ at, value, plays }] : [];
  });
}

/** Lays them over what is there. @param gone seconds for which their effects have run. */
export function lay(half: Half, laid: readonly Laid[], gone: number): void {
  for (const { at, value, plays } of laid) {
    half.source[at] = SOURCE_PROGRAMMER;
    half.cue[at] = 0;
    if (value) {
      half.value[at] = half.raw[at] = value.value;
      half.fn[at] = value.fn;
    }
    if (!plays) continue;
    half.value[at] = half.raw[at] = playedAt(plays, gone * plays.speed, half.value[at]!, half.fn[at]!, 1);
    half.fn[at] = lastFn();
  }
}

/** Copies the numbers of the stage; what leaves by wire is not part of a picture. */
export function copyStage(half: Half, live: Half): void {
  half.value.set(live.value);
  half.raw.set(live.raw);
  half.fn.set(live.fn);
  half.source.set(live.source);
  half.cue.set(live.cue);
}

/** Memory for a frame of one's own. @returns whether a painter sees it change without being told. */
export function ownFrame(layout: Layout): { frame: Frame; shared: boolean } {
  const shared = typeof SharedArrayBuffer !== "undefined" && globalThis.crossOriginIsolated === true;
  const size = frameBytes(layout);
  return { frame: openFrame(layout, shared ? new SharedArrayBuffer(size) : new ArrayBuffer(size)), shared };
}
