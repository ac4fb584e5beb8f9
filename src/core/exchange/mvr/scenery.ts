/** Trusses and set pieces in MVR files: boxes of one metre that a matrix stretches. */
import type { Scenic } from "../../show/schema";
import { matrixText, placedBy } from "./matrix";

type Piece = Omit<Scenic, "id">;
const THICK = 0.3;
const FLAT = 0.02;
/** Our shapes are known again by the name of the body they have. */
export const BODIES = { truss: "truss.glb", line: "line.glb", area: "area.glb", round: "round.glb" } as const;

const isLong = (shape: Scenic["shape"]): boolean => shape === "truss" || shape === "line";

/** The matrix of a piece. */
export function pieceText({ shape, from, to, z = 0, height }: Piece): string {
  const middle = { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2, z };
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  const high = height ?? (shape === "truss" ? THICK : FLAT);
  if (!isLong(shape)) return matrixText([dx, 0, 0], [0, dy, 0], [0, 0, high], middle);
  const length = Math.hypot(dx, dy) || 1;
  return matrixText([dx, dy, 0], [(-dy / length) * THICK, (dx / length) * THICK, 0], [0, 0, high], middle);
}

/** A piece by its matrix. @param body the file it is drawn by. @param truss whether it is said to be one. */
export function pieceOf(name: string, matrix: string, body: string, truss: boolean): Piece | undefined {
  const placed = placedBy(matrix);
  if (!placed) return undefined;
  const shape =
    (Object.keys(BODIES) as Scenic["shape"][]).find((s) => BODIES[s] === body) ?? (truss ? "truss" : "area");
  const [u, v, w] = placed.axes;
  const { x, y, z } = placed.place;
  const round = (value: number) => Math.round(value * 1e6) / 1e6 || 0;
  const half = isLong(shape) ? [u[0]! / 2, u[1]! / 2] : [(u[0]! + v[0]!) / 2, (u[1]! + v[1]!) / 2];
  const high = Math.hypot(...w);
  const usual = shape === "truss" ? THICK : FLAT;
  return {
    name: name.slice(0, 200),
    shape,
    from: { x: round(x - half[0]!), y: round(y - half[1]!) },
    to: { x: round(x + half[0]!), y: round(y + half[1]!) },
    ...(z === 0 ? {} : { z }),
    ...(Math.abs(high - usual) < 1e-6 || high > 1000 ? {} : { height: round(high) }),
  };
}

/** A box of one metre about its middle, standing on its origin, as binary glTF 2.0. */
export function boxFile(): Uint8Array {
  const corners = [-0.5, 0.5].flatMap((x) => [-0.5, 0.5].flatMap((y) => [0, 1].map((z) => [x, y, z])));
  const faces = [
    0, 1, 3, 0, 3, 2, 4, 6, 7, 4, 7, 5, 0, 4, 5, 0, 5, 1, 2, 3, 7, 2, 7, 6, 0, 2, 6, 0, 6, 4, 1, 5, 7, 1, 7, 3,
  ];
  const points = new Uint8Array(new Float32Array(corners.flat()).buffer);
  const indices = new Uint8Array(new Uint16Array(faces).buffer);
  const binary = new Uint8Array(points.length + indices.length);
  binary.set(points);
  binary.set(indices, points.length);
  const json = JSON.stringify({
    asset: { version: "2.0", generator: "Bold Comet" },
    scene: 0,
    scenes: [{ nodes: [0] }],
    nodes: [{ mesh: 0 }],
    meshes: [{ primitives: [{ attributes: { POSITION: 0 }, indices: 1 }] }],
    accessors: [
      { bufferView: 0, componentType: 5126, count: 8, type: "VEC3", min: [-0.5, -0.5, 0], max: [0.5, 0.5, 1] },
      { bufferView: 1, componentType: 5123, count: 36, type: "SCALAR" },
    ],
    bufferViews: [
      { buffer: 0, byteOffset: 0, byteLength: points.length, target: 34962 },
      { buffer: 0, byteOffset: points.length, byteLength: indices.length, target: 34963 },
    ],
    buffers: [{ byteLength: binary.length }],
  });
  const padded = json.padEnd(Math.ceil(json.length / 4) * 4, " ");
  const made = new Uint8Array(28 + padded.length + binary.length);
  const view = new DataView(made.buffer);
  [0x46546c67, 2, made.length, padded.length, 0x4e4f534a].forEach((v, k) => view.setUint32(k * 4, v, true));
  made.set(
    [...padded].map((c) => c.charCodeAt(0)),
    20,
  );
  view.setUint32(20 + padded.length, binary.length, true);
  view.setUint32(24 + padded.length, 0x004e4942, true);
  made.set(binary, 28 + padded.length);
  return made;
}
