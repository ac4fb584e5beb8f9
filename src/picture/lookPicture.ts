/** The small picture of a look: painted large as the plan is, then made small, so that it reads as the same light. */
import type { LookFrame, SeenEffect } from "@/core/play/stage/lookFrame";
import type { Scenic } from "@/core/show/schema";
import { castBeams, DARK, DAYLIGHT, drawAway, drawFloor, drawLamps } from "./draw";
import { signSize } from "./labels";
import { createLights, lightLamps } from "./lights";
import { clearBeams, createBeamField, developBeams, type BeamField } from "./beams";
import { drawPatterns } from "./patterns";
import { clearSprites } from "./sprites";
import { fitView, toPixels, type Lamp, type View } from "./plan";

/** So much larger it is painted than it is shown. */
const OVER = 3;
/** Instants of a cycle over which moving beams are spread: what an effect sweeps is seen. */
const INSTANTS = 6;

/** Room around the outermost lamps, pixels as shown. */
const MARGIN = 6;
const RING = "#ffd27d";

type Ctx = OffscreenCanvasRenderingContext2D;

interface Desk {
  large: OffscreenCanvas;
  c: Ctx;
  field: BeamField;
  small: OffscreenCanvas;
  light: Ctx;
  pixels: ImageData;
}

const desks = new Map<string, Desk>();
let daylit = false;

function deskOf(width: number, height: number): Desk {
  const name = `${width} ${height}`;
  const known = desks.get(name);
  if (known) return known;
  if (desks.size > 6) desks.clear();
  const [w, h] = [Math.ceil((width * OVER) / 2), Math.ceil((height * OVER) / 2)];
  const large = new OffscreenCanvas(width * OVER, height * OVER);
  const small = new OffscreenCanvas(w, h);
  const light = small.getContext("2d", { willReadFrequently: true })!;
  const made: Desk = {
    large,
    c: large.getContext("2d", { alpha: false })!,
    field: createBeamField(w, h),
    small,
    light,
    pixels: light.createImageData(w, h),
  };
  desks.set(name, made);
  return made;
}

export interface Room {
  lamps: readonly Lamp[];
  scenery: readonly Scenic[];
}

export interface Wanted {
  /** Pixels of the picture. */
  width: number;
  height: number;
  daylight: boolean;
  /** Fixtures that are ringed. */
  marks?: readonly string[] | undefined;
}

/** Paints a look. @param effects of the frame, which is left as it was. */
export function paintLook(
  { lamps, scenery }: Room,
  frame: LookFrame,
  effects: readonly SeenEffect[],
  { width, height, daylight, marks }: Wanted,
): ImageBitmap {
  if (daylight !== daylit) clearSprites();
  daylit = daylight;
  const { large, c, field, small, light, pixels } = deskOf(width, height);
  const palette = daylight ? DAYLIGHT : DARK;
  const view = fitView(
    lamps.length > 0 ? lamps : scenery.flatMap((s) => [s.from, s.to]),
    large.width,
    large.height,
    MARGIN * OVER,
  );
  drawFloor(c, scenery, view, large.width, large.height, palette);
  const moving = new Set(lamps.flatMap((l) => [l.pan, l.tilt, ...l.sources.map((s) => s.dimmer)]));
  const swept = effects.filter((e) => moving.has(e.at));
  const instants = swept.length > 0 ? INSTANTS : 1;
  const lights = createLights(lamps.length);
  clearBeams(field);
  for (let k = 0; k < instants; k++) {
    for (const { at, after } of swept) ({ value: frame.value[at], fn: frame.fn[at] } = after(k / instants));
    castBeams(field, lamps, lightLamps(lamps, frame, lights), frame, { view, share: 1 / 2 }, 1 / instants);
  }
  for (const { at, after } of swept) ({ value: frame.value[at], fn: frame.fn[at] } = after(0));
  developBeams(field, new Int32Array(pixels.data.buffer));
  light.putImageData(pixels, 0, 0);
  c.globalCompositeOperation = "lighter";
  c.imageSmoothingEnabled = true;
  c.drawImage(small, 0, 0, large.width, large.height);
  c.globalCompositeOperation = "source-over";
  drawPatterns(
    c,
    lamps.filter((l) => l.kind === "server"),
    frame,
    view,
  );
  drawLamps(c, lamps, lightLamps(lamps, frame, lights), frame, view, palette);
  drawAway(c, lamps, view);
  if (marks) ringLamps(c, lamps, new Set(marks), view);
  const made = new OffscreenCanvas(width, height);
  const out = made.getContext("2d", { alpha: false })!;
  out.imageSmoothingQuality = "high";
  out.drawImage(large, 0, 0, width, height);
  return made.transferToImageBitmap();
}

function ringLamps(c: Ctx, lamps: readonly Lamp[], marks: ReadonlySet<string>, view: View): void {
  c.strokeStyle = RING;
  c.lineWidth = OVER;
  for (const lamp of lamps) {
    if (!marks.has(lamp.id)) continue;
    const [x, y] = toPixels(view, lamp.x, lamp.y);
    c.beginPath();
    c.arc(x, y, signSize(view) + 1.5 * OVER, 0, 2 * Math.PI);
    c.stroke();
  }
}
