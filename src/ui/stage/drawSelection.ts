/** Painting what is selected: rings, and order numbers where they have room. */
import { signSize, type Palette } from "@/picture/draw";
import { createRoom } from "@/picture/labelRoom";
import { toPixels, type Lamp, type View } from "@/picture/plan";

type Ctx = OffscreenCanvasRenderingContext2D;

/** Rings and order numbers of what is selected. */
export function drawSelection(
  c: Ctx,
  lamps: readonly Lamp[],
  view: View,
  order: Record<string, number>,
  cells: Record<string, number[]>,
  palette: Palette,
): void {
  c.lineWidth = 2;
  c.strokeStyle = palette.selection;
  c.font = "600 10px 'Atkinson Hyperlegible Mono', ui-monospace, monospace";
  c.textAlign = "center";
  c.textBaseline = "middle";
  const size = signSize(view) + 3.5;
  const room = createRoom(c.canvas.width, c.canvas.height);
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
    const text = String(place);
    const wide = 6 + 6 * text.length;
    if (!room.has(x + size - 4, y - size - 8, wide, 13)) continue;
    c.fillStyle = palette.selection;
    c.beginPath();
    c.roundRect(x + size - 4, y - size - 8, wide, 13, 4);
    c.fill();
    c.fillStyle = palette.onSelection;
    c.fillText(text, x + size - 4 + wide / 2, y - size - 1);
  }
}
