"use client";

import type { ReactNode } from "react";

const ring = (k: number, n: number, r: number): [number, number] => [
  20 + r * Math.cos((2 * Math.PI * k) / n),
  20 + r * Math.sin((2 * Math.PI * k) / n),
];

const DRAWN: Record<string, () => ReactNode> = {
  open: () => <circle cx={20} cy={20} r={15} />,
  ripples: () =>
    [5, 10, 15].map((r) => <circle key={r} cx={20} cy={20} r={r} fill="none" strokeWidth={2} stroke="currentColor" />),
  net: () =>
    [8, 16, 24, 32].flatMap((v) => [
      <path key={`a${v}`} d={`M${v} 4 V36`} stroke="currentColor" strokeWidth={1.5} />,
      <path key={`b${v}`} d={`M4 ${v} H36`} stroke="currentColor" strokeWidth={1.5} />,
    ]),
  gulls: () =>
    (
      [
        [12, 14],
        [26, 12],
        [19, 26],
      ] as const
    ).map(([x, y]) => (
      <path
        key={x}
        d={`M${x - 6} ${y} q3 -5 6 0 q3 -5 6 0`}
        fill="none"
        stroke="currentColor"
        strokeWidth={2}
        strokeLinecap="round"
      />
    )),
  stars: () =>
    [0, 1, 2, 3, 4, 5, 6].map((k) => {
      const [x, y] = k === 0 ? [20, 20] : ring(k, 6, 11);
      return (
        <path
          key={k}
          d={`M${x} ${y - 3} L${x + 1} ${y - 1} L${x + 3} ${y} L${x + 1} ${y + 1} L${x} ${y + 3} L${x - 1} ${y + 1} L${x - 3} ${y} L${x - 1} ${y - 1} Z`}
        />
      );
    }),
  bars: () => [6, 14, 22, 30].map((x) => <rect key={x} x={x} y={5} width={4} height={30} />),
  breakup: () =>
    Array.from({ length: 14 }, (_, k) => {
      const [x, y] = ring(k * 3, 14, 4 + ((k * 7) % 11));
      return <ellipse key={k} cx={x} cy={y} rx={2 + (k % 3)} ry={1.5 + ((k * 2) % 3)} />;
    }),
};

/** A seed from a name, so that a gobo nobody has drawn still looks like itself. */
const seedOf = (name: string): number => [...name].reduce((sum, c) => (sum * 31 + c.charCodeAt(0)) % 997, 7);

function unknown(name: string): ReactNode {
  const seed = seedOf(name);
  const count = 3 + (seed % 6);
  return Array.from({ length: count }, (_, k) => {
    const [x, y] = ring(k, count, 9 + (seed % 4));
    return <circle key={k} cx={x} cy={y} r={2 + ((seed + k) % 3)} />;
  });
}

/** A gobo as it would fall on the floor: light where the glass lets it through. */
export function GoboPicture({ name }: { name: string }) {
  const key = name.toLowerCase();
  return (
    <svg viewBox="0 0 40 40" width={28} height={28} aria-hidden fill="currentColor">
      <circle cx={20} cy={20} r={18} fill="none" stroke="currentColor" strokeOpacity={0.35} />
      {DRAWN[key]?.() ?? unknown(key)}
    </svg>
  );
}
