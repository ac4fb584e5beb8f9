/** Painting what is selected: rings, and order numbers where they have room. */
import type { Palette } from "@/picture/draw";
import { createRoom } from "@/picture/labelRoom";
import { besideLamp, DIGIT, signSize, type Labels } from "@/picture/labels";
import { toPixels, type Lamp, type View } from "@/picture/plan";

/** Whether lamps stand so close that their signs are small. */
export const standClose = (view: View): boolean => view.scale < CLOSE;
/** Pixels for a metre. */
const CLOSE = 14;

type Ctx = OffscreenCanvasRenderingContext2D;

/** Rings and order numbers of what is selected. */
export function drawSelection(
  c: Ctx,
  lamps: readonly Lamp[],
  view: View,
  labels: Labels,
  order: Record<string, number>,
  cells: Record<string, number[]>,
  palette: Palette,
): void {
  // Where signs are small they stand close: thin rings around them and few numbers leave their light to be seen.
  const close = standClose(view);
  c.lineWidth = close ? 1 : 2;
  c.strokeStyle = palette.selection;
  c.font = "600 10px 'Atkinson Hyperlegible Mono', ui-monospace, monospace";
  c.textAlign = "center";
  c.textBaseline = "middle";
  const ring = close ? 1 : 3.5;
  const size = signSize(view) + ring;
  for (const lamp of lamps) {
    for (const cell of cells[lamp.id] ?? []) {
      const source = lamp.sources[cell - 1];
      if (!source) continue;
      const [x, y] = toPixels(view, source.x, source.y);
      c.strokeRect(x - 3, y - 8, 6, 16);
    }
    const place = order[lamp.id];
    if (place === undefined) continue;
    const [x, y] = toPixels(view, lamp.x, lamp.y);
    c.beginPath();
    if (lamp.kind === "bar") {
      const wide = Math.max(2.5, view.scale * 0.1) * 12 + 8;
      c.rect(x - wide / 2, y - size, wide, 2 * size);
    } else if (lamp.kind === "spot") c.arc(x, y, size, 0, 2 * Math.PI);
    else c.rect(x - size, y - size, 2 * size, 2 * size);
    c.stroke();
  }
  // In a dense block there is no room beside signs: the few that are shown stand over some.
  const free = close ? numbersAlone(labels, c.canvas) : labels.room.copy();
  drawOrder(c, lamps, view, { of: labels.of, room: free }, order, palette, { ring, spare: close ? 22 : 0 });
}

/** Room that nothing but numbers has taken. */
function numbersAlone(labels: Labels, { width, height }: { width: number; height: number }): Labels["room"] {
  const room = createRoom(width, height);
  for (const { text, x, y } of labels.of.values())
    room.take(x - (DIGIT * text.length) / 2, y - 4, DIGIT * text.length, 8);
  return room;
}

/** Order numbers over all rings, each where it has room. @param spare pixels around it that stay free of others. */
function drawOrder(
  c: Ctx,
  lamps: readonly Lamp[],
  view: View,
  labels: Labels,
  order: Record<string, number>,
  palette: Palette,
  { ring, spare }: { ring: number; spare: number },
): void {
  for (const lamp of lamps) {
    const place = order[lamp.id];
    if (place === undefined) continue;
    const text = String(place);
    const wide = 6 + 6 * text.length;
    const at = besideLamp(labels, lamp, view, { wide, tall: TALL, away: ring + 2, spare });
    if (!at) continue;
    c.fillStyle = palette.selection;
    c.beginPath();
    c.roundRect(at.left, at.top, wide, TALL, 4);
    c.fill();
    c.fillStyle = palette.onSelection;
    c.fillText(text, at.left + wide / 2, at.top + TALL / 2 + 0.5);
  }
}
const TALL = 13;
