/** Painting the plan: room, beams, lamps, selection. */
import type { Scenic } from "@/core/show/schema";
import type { Lit } from "./lit";
import { addBeam, type Beam, type BeamField } from "./beams";
import { aim, aimAt, aimOf, light, lightOf } from "./light";
import type { Lights } from "./lights";
import { toPixels, type Lamp, type View } from "./plan";
import { signSize, type Labels } from "./labels";
import { glowOf, lampSprite } from "./sprites";

type Ctx = OffscreenCanvasRenderingContext2D;

export interface Palette {
  room: string;
  line: string;
  body: string;
  number: string;
  /** Around a number that light falls on. */
  halo: string;
  selection: string;
  onSelection: string;
}
export const DARK: Palette = {
  room: "#0a0d14",
  line: "#1c2434",
  body: "#3a465c",
  number: "#8f9db6",
  halo: "#0a0d14c8",
  selection: "#7ee8c4",
  onSelection: "#0b1a16",
};
export const DAYLIGHT: Palette = {
  room: "#2a3142",
  line: "#3a4358",
  body: "#6b7890",
  number: "#c4cede",
  halo: "#2a3142c8",
  selection: "#7ee8c4",
  onSelection: "#0b1a16",
};

/** The floor with its metres, trusses and set pieces. */
export function drawFloor(
  c: Ctx,
  scenery: readonly Scenic[],
  view: View,
  width: number,
  height: number,
  palette: Palette,
): void {
  c.fillStyle = palette.room;
  c.fillRect(0, 0, width, height);
  c.strokeStyle = palette.line;
  c.lineWidth = 1;
  const step = view.scale < 14 ? 5 : 2;
  c.beginPath();
  const [left, right] = [Math.ceil(-view.ox / view.scale / step) * step, (width - view.ox) / view.scale];
  const [front, back] = [Math.ceil((view.oy - height) / view.scale / step) * step, view.oy / view.scale];
  for (let x = left; x <= right; x += step)
    for (let y = front; y <= back; y += step) {
      const [px, py] = toPixels(view, x, y);
      const arm = x === 0 ? 5 : 2;
      c.moveTo(px - 2, py);
      c.lineTo(px + 2, py);
      c.moveTo(px, py - arm);
      c.lineTo(px, py + arm);
    }
  c.stroke();
  drawScenery(c, scenery, view, palette);
}

/** The numbers of lamps, each where it has room. @param halo whether they keep their own dark around them, over light. */
export function drawNumbers(c: Ctx, labels: Labels, palette: Palette, halo: boolean): void {
  c.fillStyle = palette.number;
  c.strokeStyle = palette.halo;
  c.lineWidth = 3.5;
  c.lineJoin = "round";
  c.font = "10px 'Atkinson Hyperlegible Mono', ui-monospace, monospace";
  c.textAlign = "center";
  c.textBaseline = "middle";
  for (const { text, x, y } of labels.of.values()) {
    if (halo) c.strokeText(text, x, y);
    c.fillText(text, x, y);
  }
}

const TRUSS = 0.3;

/** Trusses and set pieces, to read the room by: quiet, so that the light is what is seen. */
function drawScenery(c: Ctx, scenery: readonly Scenic[], view: View, palette: Palette): void {
  c.strokeStyle = palette.line;
  c.lineWidth = 1.5;
  for (const { shape, from, to } of scenery) {
    const [x1, y1] = toPixels(view, from.x, from.y);
    const [x2, y2] = toPixels(view, to.x, to.y);
    c.beginPath();
    if (shape === "area") c.rect(Math.min(x1, x2), Math.min(y1, y2), Math.abs(x2 - x1), Math.abs(y2 - y1));
    else if (shape === "round")
      c.ellipse((x1 + x2) / 2, (y1 + y2) / 2, Math.abs(x2 - x1) / 2, Math.abs(y2 - y1) / 2, 0, 0, 2 * Math.PI);
    else if (shape === "line") {
      c.moveTo(x1, y1);
      c.lineTo(x2, y2);
    } else drawTruss(c, x1, y1, x2, y2, TRUSS * view.scale);
    c.stroke();
  }
}

/** Two chords with their lacing. */
function drawTruss(c: Ctx, x1: number, y1: number, x2: number, y2: number, wide: number): void {
  const length = Math.hypot(x2 - x1, y2 - y1) || 1;
  const [nx, ny] = [(-(y2 - y1) / length) * (wide / 2), ((x2 - x1) / length) * (wide / 2)];
  for (const side of [1, -1]) {
    c.moveTo(x1 + nx * side, y1 + ny * side);
    c.lineTo(x2 + nx * side, y2 + ny * side);
  }
  const bays = Math.max(1, Math.round(length / Math.max(wide, 4)));
  for (let i = 0; i <= bays; i++) {
    const t = i / bays;
    const side = i % 2 === 0 ? 1 : -1;
    const [x, y] = [x1 + (x2 - x1) * t + nx * side, y1 + (y2 - y1) * t + ny * side];
    if (i === 0) c.moveTo(x, y);
    else c.lineTo(x, y);
  }
}

const beam: Beam = { x: 0, y: 0, tx: 0, ty: 0, pool: 0, r: 0, g: 0, b: 0 };

/**
 * Adds the light of all movers' beams.
 * @param lights of the lamps. @param share pixels of the field for one of the plan. @param part 0..1 of their light.
 */
export function castBeams(
  field: BeamField,
  lamps: readonly Lamp[],
  lights: Lights,
  half: Lit,
  { view, share }: { view: View; share: number },
  part = 1,
): void {
  const scale = view.scale * share;
  for (let i = 0; i < lamps.length; i++) {
    const lamp = lamps[i]!;
    const level = lights.level[i]!;
    if (level <= 0.004 || lamp.pan < 0 || lamp.tilt < 0) continue;
    aimOf(lamp, half);
    const strength = ((0.2 + 0.85 * level) * part) / 255;
    beam.x = view.ox * share + lamp.x * scale;
    beam.y = view.oy * share - lamp.y * scale;
    beam.tx = view.ox * share + aim.x * scale;
    beam.ty = view.oy * share - aim.y * scale;
    beam.pool = Math.max(aim.spread * scale, 1.5);
    beam.r = lights.r[i]! * strength;
    beam.g = lights.g[i]! * strength;
    beam.b = lights.b[i]! * strength;
    addBeam(field, beam);
  }
}

/** Where a dark lamp is going, degrees. */
export interface Trace {
  fixture: string;
  pan: number;
  tilt: number;
}

/** Faint traces of where dark lamps are going: from where each points now to where it will. */
export function drawTraces(
  c: Ctx,
  lamps: readonly Lamp[],
  traces: readonly Trace[],
  half: Lit,
  view: View,
  palette: Palette,
): void {
  c.save();
  c.strokeStyle = palette.number;
  c.globalAlpha = 0.7;
  c.lineWidth = 1;
  for (const { fixture, pan, tilt } of traces) {
    const lamp = lamps.find((l) => l.id === fixture);
    if (!lamp || lamp.pan < 0 || lamp.tilt < 0) continue;
    aimOf(lamp, half);
    const [nowX, nowY] = toPixels(view, aim.x, aim.y);
    aimAt(lamp, pan, tilt, 16);
    const [x, y] = toPixels(view, aim.x, aim.y);
    c.setLineDash([2, 4]);
    c.beginPath();
    c.moveTo(...toPixels(view, lamp.x, lamp.y));
    c.lineTo(nowX, nowY);
    c.lineTo(x, y);
    c.stroke();
    c.setLineDash([]);
    c.beginPath();
    c.arc(x, y, 4, 0.6, 2 * Math.PI - 0.6);
    c.stroke();
  }
  c.restore();
}

/** The signs of all lamps with their glow. @param lights of the lamps. */
export function drawLamps(
  c: Ctx,
  lamps: readonly Lamp[],
  lights: Lights,
  half: Lit,
  view: View,
  palette: Palette,
): void {
  const size = signSize(view);
  // Whole pixels and no filtering: each lamp is a plain copy.
  c.imageSmoothingEnabled = false;
  for (const [i, lamp] of lamps.entries()) {
    if (lamp.kind === "bar") {
      drawBar(c, lamp, half, view, palette);
      continue;
    }
    const [x, y] = toPixels(view, lamp.x, lamp.y);
    const { r, g, b, level } = lights;
    const picture = lampSprite(lamp.kind, size, r[i]!, g[i]!, b[i]!, level[i]!, palette.body, palette.number);
    c.drawImage(picture, Math.round(x - picture.width / 2), Math.round(y - picture.height / 2));
  }
}

/** The cells of bars with their glow. */
export function drawBars(c: Ctx, bars: readonly Lamp[], half: Lit, view: View, palette: Palette): void {
  c.imageSmoothingEnabled = false;
  for (const bar of bars) drawBar(c, bar, half, view, palette);
}

/** A cross over what is out of service. */
export function drawAway(c: Ctx, lamps: readonly Lamp[], view: View): void {
  const half = signSize(view) + 1;
  c.strokeStyle = AWAY;
  c.lineWidth = 1.6;
  c.beginPath();
  for (const lamp of lamps) {
    if (!lamp.away) continue;
    const [x, y] = toPixels(view, lamp.x, lamp.y);
    c.moveTo(x - half, y - half);
    c.lineTo(x + half, y + half);
    c.moveTo(x - half, y + half);
    c.lineTo(x + half, y - half);
  }
  c.stroke();
}
const AWAY = "#ff8a7a";

function drawBar(c: Ctx, lamp: Lamp, half: Lit, view: View, palette: Palette): void {
  const cell = Math.max(2.5, view.scale * 0.1);
  const tall = Math.max(6, view.scale * 0.26);
  for (const source of lamp.sources) {
    const [x, y] = toPixels(view, source.x, source.y);
    lightOf(lamp, source, half);
    const wide = lamp.sources.length > 1 ? cell - 0.8 : cell * 12;
    c.fillStyle = palette.body;
    c.fillRect(x - wide / 2, y - tall / 2, wide, tall);
    if (light.level <= 0.004) continue;
    c.globalAlpha = 0.2 + 0.8 * light.level;
    c.fillStyle = `rgb(${light.r},${light.g},${light.b})`;
    c.fillRect(x - wide / 2, y - tall / 2, wide, tall);
    c.globalCompositeOperation = "lighter";
    c.globalAlpha = 0.4 * light.level;
    const reach = tall * 5;
    c.drawImage(glowOf(light.r, light.g, light.b), x - reach / 2, y - reach / 2, reach, reach);
    c.globalCompositeOperation = "source-over";
    c.globalAlpha = 1;
  }
}

/** A trial: these at full in the colour of the selection, all others dark. */
export function drawTrial(
  c: Ctx,
  lamps: readonly Lamp[],
  lit: ReadonlySet<string>,
  view: View,
  palette: Palette,
): void {
  const size = signSize(view);
  c.imageSmoothingEnabled = false;
  for (const lamp of lamps) {
    const on = lit.has(lamp.id);
    const [x, y] = toPixels(view, lamp.x, lamp.y);
    if (lamp.kind === "bar") {
      const wide = Math.max(2.5, view.scale * 0.1) * 12;
      c.fillStyle = on ? palette.selection : palette.body;
      c.fillRect(x - wide / 2, y - size / 2, wide, size);
      continue;
    }
    const picture = lampSprite(lamp.kind, size, 126, 232, 196, on ? 1 : 0, palette.body, palette.number);
    c.drawImage(picture, Math.round(x - picture.width / 2), Math.round(y - picture.height / 2));
  }
}
