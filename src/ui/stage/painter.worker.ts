/** Paints the plan away from the hands: an own worker, on its own animation frames. */
import { KINDS } from "@/core/fixture/type";
import type { Scenic } from "@/core/show/schema";
import { frameCount, openFrame, wholeHalf, type Frame } from "@/engine/frame";
import { clearBeams, createBeamField, developBeams, type BeamField } from "@/picture/beams";
import {
  castBeams,
  DARK,
  DAYLIGHT,
  drawAway,
  drawLamps,
  drawRoom,
  drawTraces,
  drawTrial,
  type Palette,
  type Trace,
} from "@/picture/draw";
import { CROWD, drawCrowd, type CrowdLayer } from "@/picture/crowd";
import { drawSelection } from "./drawSelection";
import type { ToPainter } from "./messages";
import type { Lamp, View } from "@/picture/plan";
import { clearSprites } from "@/picture/sprites";

let canvas: OffscreenCanvas | undefined;
let context: OffscreenCanvasRenderingContext2D | undefined;
let room: OffscreenCanvas | undefined;
/** Rings and order numbers of thousands stay as long as the selection does; null where nothing is selected. */
let marks: OffscreenCanvas | null = null;
let marksDirty = true;
let beams:
  | { field: BeamField; canvas: OffscreenCanvas; context: OffscreenCanvasRenderingContext2D; pixels: ImageData }
  | undefined;
/** Where there are many lamps; null where there are few. */
let crowd:
  (CrowdLayer & { canvas: OffscreenCanvas; context: OffscreenCanvasRenderingContext2D; pixels: ImageData }) | null =
  null;
let frame: Frame | undefined;
let params = 0;
let lamps: Lamp[] = [];
/** Those that are painted one by one. */
let single: Lamp[] = [];
let scenery: Scenic[] = [];
let size: { width: number; height: number; ratio: number; view: View; daylight: boolean; calm: boolean } | undefined;
let selected: { order: Record<string, number>; cells: Record<string, number[]> } = { order: {}, cells: {} };
/** What a trial lights up; null for the stage as it is. */
let trial: ReadonlySet<string> | null = null;
let traces: readonly Trace[] = [];
/** Resolution of the beams against the plan's. */
const FINE = 1 / 2;
let share = FINE;
let dirty = true;
let roomDirty = true;
let seen = -1;
/** Painted in the present second, and the milliseconds it took: told to the window for measuring. */
const pace = { since: 0, frames: 0, ms: 0 };

addEventListener("message", ({ data }: MessageEvent<ToPainter>) => {
  dirty = true;
  marksDirty ||= data.kind === "plan" || data.kind === "view" || data.kind === "selection";
  switch (data.kind) {
    case "canvas":
      canvas = data.canvas;
      context = canvas.getContext("2d", { alpha: false })!;
      requestAnimationFrame(paint);
      return;
    case "memory":
      frame = openFrame(data.layout, data.memory);
      params = data.layout.keys.length;
      return;
    case "plan":
      lamps = data.lamps;
      // What comes by message has strings of its own: names that are the very same are found at once.
      for (const lamp of lamps) lamp.kind = KINDS.find((kind) => kind === lamp.kind)!;
      single = lamps.length > CROWD ? lamps.filter((l) => l.kind === "bar") : lamps;
      scenery = data.scenery;
      roomDirty = true;
      return;
    case "view":
      if (size?.daylight !== data.daylight) clearSprites();
      size = data;
      roomDirty = true;
      return;
    case "trial":
      trial = data.lit && new Set(data.lit);
      return;
    case "traces":
      traces = data.traces;
      return;
    case "selection":
      selected = data;
  }
});

/** So far apart are pictures for people who ask for less motion, milliseconds. */
const CALM_MS = 100;
let painted = 0;

function paint(): void {
  requestAnimationFrame(paint);
  if (!canvas || !context || !size) return;
  const count = frame ? frameCount(frame) : -1;
  if (!dirty && count === seen) return;
  const began = performance.now();
  if (size.calm && began - painted < CALM_MS) return;
  painted = began;
  seen = count;
  dirty = false;
  const { width, height, ratio, view, daylight } = size;
  const [w, h] = [Math.max(1, Math.round(width * ratio)), Math.max(1, Math.round(height * ratio))];
  const palette = daylight ? DAYLIGHT : DARK;
  if (canvas.width !== w || canvas.height !== h) {
    canvas.width = w;
    canvas.height = h;
    roomDirty = true;
  }
  if (roomDirty) {
    room = new OffscreenCanvas(w, h);
    share = beamShare(lamps.filter((lamp) => lamp.pan >= 0).length);
    crowd = lamps.length > CROWD ? makeCrowd(w, h) : null;
    beams = makeBeams(Math.max(1, Math.ceil(width * share)), Math.max(1, Math.ceil(height * share)));
    const c = room.getContext("2d", { alpha: false })!;
    c.scale(ratio, ratio);
    drawRoom(c, lamps, scenery, view, width, height, palette);
    roomDirty = false;
  }
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.drawImage(room!, 0, 0);
  context.setTransform(ratio, 0, 0, ratio, 0, 0);
  if (trial) drawTrial(context, lamps, trial, view, palette);
  else if (frame && fits()) {
    const half = wholeHalf(frame);
    const { field, canvas: small, context: c, pixels } = beams!;
    clearBeams(field);
    castBeams(field, lamps, half, view, share);
    if (crowd) drawCrowd(crowd, field, lamps, half, { view, ratio, share, palette });
    developBeams(field, pixels.data);
    c.putImageData(pixels, 0, 0);
    context.globalCompositeOperation = "lighter";
    context.imageSmoothingEnabled = true;
    context.drawImage(small, 0, 0, small.width / share, small.height / share);
    context.globalCompositeOperation = "source-over";
    if (crowd) putCrowd(crowd, ratio);
    drawLamps(context, single, half, view, palette);
    drawAway(context, lamps, view);
    if (traces.length > 0) drawTraces(context, lamps, traces, half, view, palette);
  }
  if (marksDirty) marks = drawMarks(w, h, ratio, view, palette);
  marksDirty = false;
  if (marks) {
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.drawImage(marks, 0, 0);
  }
  tellPace(began);
}

function drawMarks(w: number, h: number, ratio: number, view: View, palette: Palette): OffscreenCanvas | null {
  if (Object.keys(selected.order).length === 0 && Object.keys(selected.cells).length === 0) return null;
  const made = new OffscreenCanvas(w, h);
  const c = made.getContext("2d")!;
  c.scale(ratio, ratio);
  drawSelection(c, lamps, view, selected.order, selected.cells, palette);
  return made;
}

function makeCrowd(width: number, height: number): typeof crowd {
  const made = new OffscreenCanvas(width, height);
  const c = made.getContext("2d", { willReadFrequently: true })!;
  const pixels = c.createImageData(width, height);
  return { width, height, words: new Int32Array(pixels.data.buffer), canvas: made, context: c, pixels };
}

function putCrowd({ canvas: layer, context: c, pixels }: NonNullable<typeof crowd>, ratio: number): void {
  c.putImageData(pixels, 0, 0);
  context!.setTransform(1, 0, 0, 1, 0, 0);
  context!.drawImage(layer, 0, 0);
  context!.setTransform(ratio, 0, 0, ratio, 0, 0);
}

function makeBeams(width: number, height: number): typeof beams {
  const made = new OffscreenCanvas(width, height);
  const c = made.getContext("2d", { willReadFrequently: true })!;
  return { field: createBeamField(width, height), canvas: made, context: c, pixels: c.createImageData(width, height) };
}

function tellPace(began: number): void {
  const now = performance.now();
  pace.frames += 1;
  pace.ms += now - began;
  if (now - pace.since < 1000) return;
  postMessage({ frames: (pace.frames * 1000) / (now - pace.since), ms: pace.ms / pace.frames });
  Object.assign(pace, { since: now, frames: 0, ms: 0 });
}

/** Beams are soft, and what they cost is pixels: the more there are, the coarser they are painted. */
const beamShare = (movers: number): number => (movers <= 150 ? FINE : movers <= 600 ? 1 / 3 : 1 / 5);

/** Between a new layout and its plan the two may not belong together for a frame. */
const fits = (): boolean =>
  lamps.every((lamp) => lamp.sources.every((s) => s.dimmer < params && s.wheel < params) && lamp.zoom < params);
