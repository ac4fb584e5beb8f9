/** Paints the plan away from the hands: an own worker, on its own animation frames. */
import { KINDS } from "@/core/fixture/type";
import type { Scenic } from "@/core/show/schema";
import { frameCount, openFrame, wholeHalf, type Frame, type Half } from "@/engine/frame";
import { clearBeams, createBeamField, developBeams, type BeamField } from "@/picture/beams";
import {
  castBeams,
  DARK,
  DAYLIGHT,
  drawAway,
  drawBars,
  drawFloor,
  drawLamps,
  drawNumbers,
  drawTraces,
  drawTrial,
  type Palette,
  type Trace,
} from "@/picture/draw";
import { CROWD, glowCrowd, putCrowd } from "@/picture/crowd";
import { createGround, layLight, type Ground } from "@/picture/ground";
import { createLights, lightLamps, type Lights } from "@/picture/lights";
import { drawSelection, standClose } from "./drawSelection";
import type { ToPainter } from "./messages";
import { placeLabels, type Labels } from "@/picture/labels";
import { lampsIn } from "@/picture/packed";
import { drawPatterns } from "@/picture/patterns";
import type { Lamp, View } from "@/picture/plan";
import { clearSprites } from "@/picture/sprites";

let canvas: OffscreenCanvas | undefined;
let context: OffscreenCanvasRenderingContext2D | undefined;
/** The room without its light, and as it is shown: remade for each view. */
let ground: { of: Ground; field: BeamField; pixels: ImageData } | undefined;
/** Where numbers stand in the present view. */
let labels: Labels = placeLabels([], { scale: 1, ox: 0, oy: 0 }, 1, 1);
/** Numbers over the light, rings and order: they stay as long as the selection does; null where there are none. */
let marks: OffscreenCanvas | null = null;
let marksDirty = true;
let lights: Lights = createLights(0);
let frame: Frame | undefined;
let params = 0;
let lamps: Lamp[] = [];
/** So many that all but bars are painted pixel by pixel; the bars are painted one by one. */
let crowded = false;
let bars: Lamp[] = [];
let servers: Lamp[] = [];
/** Between a new layout and its plan the two may not belong together for a frame. */
let fits = false;
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
      params = data.layout.size;
      fits = areThere();
      return;
    case "plan":
      lamps = lampsIn(data.plan);
      // What comes by message has strings of its own: names that are the very same are found at once.
      for (const lamp of lamps) lamp.kind = KINDS.find((kind) => kind === lamp.kind)!;
      crowded = lamps.length > CROWD;
      bars = lamps.filter((l) => l.kind === "bar");
      servers = lamps.filter((l) => l.kind === "server");
      lights = createLights(lamps.length);
      fits = areThere();
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
  if (roomDirty) layGround(w, h, size, palette);
  roomDirty = false;
  const { of, pixels } = ground!;
  const lit = !trial && frame && fits ? wholeHalf(frame) : undefined;
  if (lit) putLight(lit, view, ratio, palette);
  else of.words.set(of.under);
  context.putImageData(pixels, 0, 0);
  context.setTransform(ratio, 0, 0, ratio, 0, 0);
  if (trial) drawTrial(context, lamps, trial, view, palette);
  else if (lit) {
    drawPatterns(context, servers, lit, view);
    if (crowded) drawBars(context, bars, lit, view, palette);
    else drawLamps(context, lamps, lights, lit, view, palette);
    drawAway(context, lamps, view);
    if (traces.length > 0) drawTraces(context, lamps, traces, lit, view, palette);
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
  const over = numbersOverLight(view);
  const some = Object.keys(selected.order).length > 0 || Object.keys(selected.cells).length > 0;
  if (!over && !some) return null;
  const made = new OffscreenCanvas(w, h);
  const c = made.getContext("2d")!;
  c.scale(ratio, ratio);
  if (over) drawNumbers(c, labels, palette, true);
  if (some) drawSelection(c, lamps, view, labels, selected.order, selected.cells, palette);
  return made;
}

/** The floor, its numbers and what is to be known of them for each frame. */
function layGround(
  w: number,
  h: number,
  { width, height, ratio, view }: NonNullable<typeof size>,
  palette: Palette,
): void {
  const room = new OffscreenCanvas(w, h);
  const c = room.getContext("2d", { alpha: false, willReadFrequently: true })!;
  c.scale(ratio, ratio);
  drawFloor(c, scenery, view, width, height, palette);
  labels = placeLabels(lamps, view, width, height);
  if (!numbersOverLight(view)) drawNumbers(c, labels, palette, false);
  share = beamShare(lamps.filter((lamp) => lamp.pan >= 0).length);
  const field = createBeamField(Math.max(1, Math.ceil(width * share)), Math.max(1, Math.ceil(height * share)));
  const of = createGround({ width: w, height: h }, field, ratio / share, ground?.of);
  of.under.set(new Int32Array(c.getImageData(0, 0, w, h).data.buffer));
  const bytes = new Uint8ClampedArray(of.words.buffer as ArrayBuffer, of.words.byteOffset, of.words.byteLength);
  ground = { of, field, pixels: new ImageData(bytes, w, h) };
}

/** The room with beams and, of many lamps, glow and signs. */
function putLight(half: Half, view: View, ratio: number, palette: Palette): void {
  const { of, field } = ground!;
  const place = { view, ratio, share };
  lightLamps(lamps, half, lights);
  clearBeams(field);
  castBeams(field, lamps, lights, half, place);
  if (crowded) glowCrowd(field, lamps, lights, place);
  developBeams(field, of.light);
  layLight(of, field);
  if (crowded) putCrowd(of, lamps, lights, place, palette);
}

/** Of few, and of many that are looked at from near, numbers keep dark around them that no light makes pale. */
const numbersOverLight = (view: View): boolean => !crowded || !standClose(view);

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

const areThere = (): boolean =>
  lamps.every((lamp) => lamp.sources.every((s) => s.dimmer < params && s.wheel < params) && lamp.zoom < params);
