/** Fixture signs on the plan, by kind. */
import type { Lamp } from "./plan";

/** The sign of a kind, as a path. */
export function sign(c: OffscreenCanvasRenderingContext2D, kind: Lamp["kind"], x: number, y: number, s: number): void {
  c.beginPath();
  const polygon = (points: number, turn: number, radius: (i: number) => number) => {
    for (let i = 0; i < points; i++) {
      const a = turn + (i * 2 * Math.PI) / points;
      c.lineTo(x + Math.cos(a) * radius(i), y + Math.sin(a) * radius(i));
    }
    c.closePath();
  };
  if (kind === "spot") c.arc(x, y, s, 0, 2 * Math.PI);
  else if (kind === "wash") c.rect(x - s, y - s, 2 * s, 2 * s);
  else if (kind === "par") polygon(6, Math.PI / 6, () => s);
  else if (kind === "conventional") polygon(3, -Math.PI / 2, () => s * 1.2);
  else if (kind === "strobe") polygon(4, 0, (i) => (i % 2 === 0 ? s * 1.5 : s * 0.8));
  else if (kind === "server") polygon(10, -Math.PI / 2, (i) => (i % 2 === 0 ? s * 1.5 : s * 0.65));
  else if (kind === "hazer") {
    c.arc(x - s * 0.7, y + s * 0.2, s * 0.6, 0, 7);
    c.arc(x, y - s * 0.3, s * 0.8, 0, 7);
    c.arc(x + s * 0.7, y + s * 0.2, s * 0.6, 0, 7);
  } else c.rect(x - s * 2, y - s / 2, s * 4, s);
}
