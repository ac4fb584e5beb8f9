/** The plan to scale as marks on a sheet of paper: what is drawn once and written as SVG or PDF. */
import type { Kind } from "../../fixture/type";
import { addressText } from "../../show/address";
import type { Fixture, Show } from "../../show/schema";
import { fixturesByNumber } from "../../show/world";
import { grouped } from "../../units/grouped";
import { plain } from "../../units/units";
import { plural } from "../../units/plural";

/** Millimetres from the left upper corner; lines of so many millimetres. */
export type Mark =
  | {
      kind: "line";
      points: readonly (readonly [x: number, y: number])[];
      closed?: boolean;
      width: number;
      grey?: boolean;
      dashed?: boolean;
      filled?: boolean;
    }
  | { kind: "circle"; at: readonly [x: number, y: number]; radius: number; width: number; grey?: boolean }
  | {
      kind: "text";
      at: readonly [x: number, y: number];
      text: string;
      size: number;
      anchor: "start" | "middle" | "end";
      grey?: boolean;
      strong?: boolean;
    };

export interface Sheet {
  width: number;
  height: number;
  /** So many metres are one, as 50 in 1:50. */
  scale: number;
  marks: Mark[];
}

/** A3, across. */
const WIDTH = 420;
const HEIGHT = 297;
const MARGIN = 12;
const LEGEND = 78;
const HEAD = 14;
const SCALES = [20, 25, 33, 50, 75, 100, 150, 200, 250, 400, 500, 1000, 2000, 5000];
const SIGN = 2.2;

/** The sheet of a show: symbols with numbers and addresses, scenery, a legend and a bar of metres. */
export function planSheet(show: Show): Sheet {
  const fixtures = fixturesByNumber(show);
  const pieces = Object.values(show.scenery);
  const xs = [...fixtures.map((f) => f.place.x), ...pieces.flatMap((p) => [p.from.x, p.to.x])];
  const ys = [...fixtures.map((f) => f.place.y), ...pieces.flatMap((p) => [p.from.y, p.to.y])];
  const ends = (values: readonly number[], low: number, high: number) =>
    values.length > 0
      ? [values.reduce((a, b) => Math.min(a, b)), values.reduce((a, b) => Math.max(a, b))]
      : [low, high];
  const [left, right] = ends(xs, -5, 5) as [number, number];
  const [front, back] = ends(ys, 0, 8) as [number, number];
  const [wide, high] = [WIDTH - 2 * MARGIN - LEGEND - 12, HEIGHT - 2 * MARGIN - HEAD - 14];
  const scale =
    SCALES.find((s) => ((right - left) * 1000) / s <= wide - 12 && ((back - front) * 1000) / s <= high - 12) ??
    SCALES.at(-1)!;
  const middle = [MARGIN + wide / 2, MARGIN + HEAD + high / 2] as const;
  const put = (x: number, y: number): [number, number] => [
    middle[0] + ((x - (left + right) / 2) * 1000) / scale,
    middle[1] - ((y - (front + back) / 2) * 1000) / scale,
  ];
  const marks: Mark[] = [
    { kind: "text", at: [MARGIN, MARGIN + 6], text: `${show.name}: plan`, size: 6, anchor: "start", strong: true },
    {
      kind: "text",
      at: [MARGIN, MARGIN + 11],
      text: `1:${scale}, ${countText(fixtures)}, audience below`,
      size: 3.2,
      anchor: "start",
      grey: true,
    },
  ];
  for (const piece of pieces) marks.push(...pieceMarks(piece, put));
  const letters = lettersOf(show, fixtures);
  for (const fixture of fixtures)
    marks.push(...fixtureMarks(show, fixture, put(fixture.place.x, fixture.place.y), letters.get(fixture.type)));
  marks.push(...barMarks(scale), ...legendMarks(show, fixtures, letters));
  return { width: WIDTH, height: HEIGHT, scale, marks };
}

function countText(fixtures: readonly Fixture[]): string {
  const out = fixtures.filter((f) => f.outOfService).length;
  const own = fixtures.length - out;
  return `${plural(own, "fixture")}${out > 0 ? `, ${out} out of service` : ""}`;
}

function pieceMarks(
  { shape, name, from, to }: Show["scenery"][string],
  put: (x: number, y: number) => [number, number],
): Mark[] {
  const [a, b] = [put(from.x, from.y), put(to.x, to.y)];
  // Where lamps hardly hang: before the beginning of a line, in the middle of what is round, over the corner of an area.
  const [start] = [a, b].sort((p, q) => p[0] - q[0]) as [typeof a, typeof b];
  const named = (at: readonly [number, number], anchor: "start" | "middle" | "end"): Mark => ({
    kind: "text",
    at,
    text: name,
    size: 2.6,
    anchor,
    grey: true,
  });
  const label =
    shape === "line" || shape === "truss"
      ? named([Math.max(MARGIN + name.length * 1.5, start[0] - 2), start[1] + 0.9], "end")
      : shape === "round"
        ? named([(a[0] + b[0]) / 2, (a[1] + b[1]) / 2 + 0.9], "middle")
        : named([Math.min(a[0], b[0]), Math.min(a[1], b[1]) - 1.2], "start");
  if (shape === "line" || shape === "truss")
    return [{ kind: "line", points: [a, b], width: shape === "truss" ? 1.2 : 0.4, grey: true }, label];
  if (shape === "round")
    return [
      {
        kind: "circle",
        at: [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2],
        radius: Math.min(Math.abs(b[0] - a[0]), Math.abs(b[1] - a[1])) / 2,
        width: 0.3,
        grey: true,
      },
      label,
    ];
  return [{ kind: "line", points: [a, [b[0], a[1]], b, [a[0], b[1]]], closed: true, width: 0.3, grey: true }, label];
}

/** The sign of a kind around a point. */
export function signMarks(kind: Kind, [x, y]: readonly [number, number], s: number): Mark[] {
  const polygon = (points: number, turn: number, radius: (i: number) => number): Mark => ({
    kind: "line",
    closed: true,
    width: 0.3,
    points: Array.from({ length: points }, (_, i) => {
      const a = turn + (i * 2 * Math.PI) / points;
      return [x + Math.cos(a) * radius(i), y + Math.sin(a) * radius(i)] as const;
    }),
  });
  const box = (w: number, h: number): Mark => ({
    kind: "line",
    closed: true,
    width: 0.3,
    points: [
      [x - w, y - h],
      [x + w, y - h],
      [x + w, y + h],
      [x - w, y + h],
    ],
  });
  switch (kind) {
    case "spot":
      return [{ kind: "circle", at: [x, y], radius: s, width: 0.3 }];
    case "wash":
      return [box(s, s)];
    case "par":
      return [polygon(6, Math.PI / 6, () => s)];
    case "conventional":
      return [polygon(3, -Math.PI / 2, () => s * 1.2)];
    case "strobe":
      return [polygon(4, 0, (i) => (i % 2 === 0 ? s * 1.5 : s * 0.8))];
    case "server":
      return [polygon(10, -Math.PI / 2, (i) => (i % 2 === 0 ? s * 1.5 : s * 0.65))];
    case "hazer":
      return [
        { kind: "circle", at: [x, y], radius: s, width: 0.3 },
        { kind: "circle", at: [x, y], radius: s * 0.6, width: 0.3 },
      ];
    default:
      return [box(s * 2, s / 2)];
  }
}

/** Types whose kind has one sign for several of them, each with a letter of its own in it. */
function lettersOf(show: Show, fixtures: readonly Fixture[]): ReadonlyMap<string, string> {
  const types = [...new Set(fixtures.map((f) => f.type))].map((id) => show.types[id]!);
  const byKind = [...grouped(types, (t) => t.kind).values()].filter((own) => own.length > 1);
  return new Map(byKind.flatMap((own) => own.map((t, k) => [t.id, LETTERS[k] ?? String(k + 1)] as const)));
}
const LETTERS = "ABCDEFGHIJKLMNOPQRSTUVWXYZ";

/** The sign of a type: that of its kind, and its letter. */
const typeMarks = (kind: Kind, at: readonly [number, number], letter: string | undefined): Mark[] => [
  ...signMarks(kind, at, SIGN),
  ...(letter
    ? [{ kind: "text", at: [at[0], at[1] + 0.8], text: letter, size: 2, anchor: "middle", strong: true } satisfies Mark]
    : []),
];

function fixtureMarks(show: Show, fixture: Fixture, at: readonly [number, number], letter: string | undefined): Mark[] {
  const [x, y] = at;
  const cross: Mark[] = fixture.outOfService
    ? [
        {
          kind: "line",
          points: [
            [x - SIGN, y - SIGN],
            [x + SIGN, y + SIGN],
          ],
          width: 0.4,
        },
        {
          kind: "line",
          points: [
            [x - SIGN, y + SIGN],
            [x + SIGN, y - SIGN],
          ],
          width: 0.4,
        },
      ]
    : [];
  return [
    ...typeMarks(show.types[fixture.type]!.kind, at, letter),
    ...cross,
    { kind: "text", at: [x, y + SIGN + 2.8], text: String(fixture.number), size: 2.5, anchor: "middle", strong: true },
    {
      kind: "text",
      at: [x, y + SIGN + 5],
      text: fixture.addresses[0] ? addressText(fixture.addresses[0]) : "-",
      size: 1.7,
      anchor: "middle",
      grey: true,
    },
  ];
}

function barMarks(scale: number): Mark[] {
  const metres = [1, 2, 5, 10, 20, 50].find((m) => (m * 1000) / scale >= 25) ?? 100;
  const [x, y, length] = [MARGIN, HEIGHT - MARGIN, (metres * 1000) / scale];
  return [
    {
      kind: "line",
      points: [
        [x, y],
        [x + length, y],
      ],
      width: 0.5,
    },
    {
      kind: "line",
      points: [
        [x, y - 1.5],
        [x, y + 1.5],
      ],
      width: 0.3,
    },
    {
      kind: "line",
      points: [
        [x + length, y - 1.5],
        [x + length, y + 1.5],
      ],
      width: 0.3,
    },
    { kind: "text", at: [x + length + 2, y + 1], text: `${plain(metres)} m`, size: 3, anchor: "start" },
  ];
}

function legendMarks(show: Show, fixtures: readonly Fixture[], letters: ReadonlyMap<string, string>): Mark[] {
  const x = WIDTH - MARGIN - LEGEND;
  let y = MARGIN + HEAD + 4;
  const marks: Mark[] = [
    {
      kind: "line",
      points: [
        [x - 5, MARGIN + HEAD],
        [x - 5, HEIGHT - MARGIN],
      ],
      width: 0.2,
      grey: true,
    },
    { kind: "text", at: [x, MARGIN + 6], text: "Legend", size: 4, anchor: "start", strong: true },
  ];
  for (const id of [...new Set(fixtures.map((f) => f.type))]) {
    const type = show.types[id]!;
    const own = fixtures.filter((f) => f.type === id && !f.outOfService).length;
    if (y > HEIGHT - MARGIN - 4) break;
    marks.push(
      ...typeMarks(type.kind, [x + 4, y], letters.get(id)),
      { kind: "text", at: [x + 11, y + 0.4], text: `${own} × ${type.model}`, size: 3, anchor: "start" },
      { kind: "text", at: [x + 11, y + 3.8], text: type.maker, size: 2.2, anchor: "start", grey: true },
    );
    y += 9;
  }
  return marks;
}

const escaped = (text: string): string => text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);
const n = (value: number): string => String(Math.round(value * 1000) / 1000);

/** A sheet as SVG, in millimetres. */
export function sheetSvg({ width, height, marks }: Sheet): string {
  const ink = (grey: boolean | undefined) => (grey ? "#777" : "#000");
  const body = marks.map((m) => {
    if (m.kind === "text")
      return `<text x="${n(m.at[0])}" y="${n(m.at[1])}" font-size="${m.size}" text-anchor="${m.anchor}" fill="${ink(m.grey)}"${m.strong ? ' font-weight="700"' : ""}>${escaped(m.text)}</text>`;
    if (m.kind === "circle")
      return `<circle cx="${n(m.at[0])}" cy="${n(m.at[1])}" r="${n(m.radius)}" fill="none" stroke="${ink(m.grey)}" stroke-width="${m.width}"/>`;
    const points = m.points.map(([x, y]) => `${n(x)},${n(y)}`).join(" ");
    return `<${m.closed ? "polygon" : "polyline"} points="${points}" fill="none" stroke="${ink(m.grey)}" stroke-width="${m.width}"/>`;
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}mm" height="${height}mm" viewBox="0 0 ${width} ${height}" font-family="sans-serif"><rect width="${width}" height="${height}" fill="#fff"/>${body.join("")}</svg>`;
}
