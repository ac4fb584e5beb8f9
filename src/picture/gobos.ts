/** Gobos as drawn: light where the glass lets it through, in a square of 40 by 40. */

const ring = (k: number, n: number, r: number): [number, number] => [
  20 + r * Math.cos((2 * Math.PI * k) / n),
  20 + r * Math.sin((2 * Math.PI * k) / n),
];
const line = (d: string, width: number): string =>
  `<path d="${d}" fill="none" stroke="currentColor" stroke-width="${width}" stroke-linecap="round"/>`;

const DRAWN: Record<string, () => string> = {
  open: () => `<circle cx="20" cy="20" r="15"/>`,
  ripples: () =>
    [5, 10, 15]
      .map((r) => `<circle cx="20" cy="20" r="${r}" fill="none" stroke-width="2" stroke="currentColor"/>`)
      .join(""),
  net: () => [8, 16, 24, 32].map((v) => line(`M${v} 4 V36`, 1.5) + line(`M4 ${v} H36`, 1.5)).join(""),
  gulls: () =>
    (
      [
        [12, 14],
        [26, 12],
        [19, 26],
      ] as const
    )
      .map(([x, y]) => line(`M${x - 6} ${y} q3 -5 6 0 q3 -5 6 0`, 2))
      .join(""),
  stars: () =>
    [0, 1, 2, 3, 4, 5, 6]
      .map((k) => {
        const [x, y] = k === 0 ? [20, 20] : ring(k, 6, 11);
        return `<path d="M${x} ${y - 3} L${x + 1} ${y - 1} L${x + 3} ${y} L${x + 1} ${y + 1} L${x} ${y + 3} L${x - 1} ${y + 1} L${x - 3} ${y} L${x - 1} ${y - 1} Z"/>`;
      })
      .join(""),
  bars: () => [6, 14, 22, 30].map((x) => `<rect x="${x}" y="5" width="4" height="30"/>`).join(""),
  breakup: () =>
    Array.from({ length: 14 }, (_, k) => {
      const [x, y] = ring(k * 3, 14, 4 + ((k * 7) % 11));
      return `<ellipse cx="${x}" cy="${y}" rx="${2 + (k % 3)}" ry="${1.5 + ((k * 2) % 3)}"/>`;
    }).join(""),
};

/** A seed from a name, so that a gobo nobody has drawn still looks like itself. */
const seedOf = (name: string): number => [...name].reduce((sum, c) => (sum * 31 + c.charCodeAt(0)) % 997, 7);

function unknown(name: string): string {
  const seed = seedOf(name);
  const count = 3 + (seed % 6);
  return Array.from({ length: count }, (_, k) => {
    const [x, y] = ring(k, count, 9 + (seed % 4));
    return `<circle cx="${x}" cy="${y}" r="${2 + ((seed + k) % 3)}"/>`;
  }).join("");
}

/** The shapes of a gobo as SVG, without its frame. Nothing of the name comes into it. */
export const goboShapes = (name: string): string => {
  const key = name.toLowerCase();
  return Object.hasOwn(DRAWN, key) ? DRAWN[key]!() : unknown(key);
};

/** A gobo as a picture file: white where light comes through. */
export const goboSvg = (name: string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 40 40" width="128" height="128" color="#fff" fill="#fff">${goboShapes(name)}</svg>`;
