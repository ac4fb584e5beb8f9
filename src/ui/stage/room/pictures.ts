/** All gobos of a rig in one texture, so that every beam is drawn alike. */
import { CanvasTexture, LinearFilter } from "three";
import type { Show } from "@/core/show/schema";
import { goboSvg } from "@/picture/gobos";
import { PATTERN_NAMES, patternSvg } from "@/picture/patterns";
import type { RoomLamp } from "@/picture/room/lamps";

const TILE = 128;
export const ACROSS = 8;
const MOST = ACROSS * ACROSS;

export interface Gobos {
  texture: CanvasTexture;
  /** The number of a picture; 0 is the open beam. */
  of(name: string): number;
}

export function gobosOf(lamps: readonly RoomLamp[], types: Show["types"]): Gobos {
  const gobos = lamps.flatMap((l) => l.gobos.flatMap((w) => w.names.filter(Boolean)));
  const patterns = lamps.some((l) => l.projects) ? PATTERN_NAMES : [];
  const names = [...new Set([...patterns, ...gobos])].slice(0, MOST - 1);
  const place = new Map(names.map((name, k) => [name, k + 1]));
  const canvas = document.createElement("canvas");
  canvas.width = canvas.height = TILE * ACROSS;
  const c = canvas.getContext("2d")!;
  c.fillStyle = "#000";
  c.fillRect(0, 0, canvas.width, canvas.height);
  c.fillStyle = "#fff";
  c.fillRect(0, 0, TILE, TILE);
  const texture = new CanvasTexture(canvas);
  texture.minFilter = LinearFilter;
  texture.generateMipmaps = false;
  texture.flipY = false;
  for (const [name, k] of place) {
    const [type, picture] = name.split("/") as [string, string | undefined];
    const own = picture === undefined ? undefined : types[type]?.pictures?.[picture];
    const image = new Image();
    image.onload = () => {
      c.drawImage(image, (k % ACROSS) * TILE, Math.floor(k / ACROSS) * TILE, TILE, TILE);
      texture.needsUpdate = true;
    };
    const drawn = PATTERN_NAMES.includes(name) ? patternSvg(name) : goboSvg(name);
    image.src = own === undefined ? `data:image/svg+xml,${encodeURIComponent(drawn)}` : `data:image/png;base64,${own}`;
  }
  return { texture, of: (name) => place.get(name) ?? 0 };
}
