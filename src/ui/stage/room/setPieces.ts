/** Trusses and set pieces as simple bodies. */
import { BoxGeometry, CylinderGeometry, Mesh, type Object3D } from "three";
import type { Scenic, Show } from "@/core/show/schema";
import { bodyPaint } from "./bodies";
import type { RoomLamp } from "@/picture/room/lamps";

const THICK = 0.3;

/** A truss that does not say how high it hangs is where the lamps along it hang. */
function heightOf({ from, to, z }: Scenic, lamps: readonly RoomLamp[]): number {
  if (z !== undefined) return z;
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  const length = Math.hypot(dx, dy) || 1;
  const near = lamps.filter(({ x, y }) => {
    const along = ((x - from.x) * dx + (y - from.y) * dy) / length;
    const off = Math.abs((x - from.x) * dy - (y - from.y) * dx) / length;
    return along > -0.5 && along < length + 0.5 && off < 0.6;
  });
  return near.length > 0 ? near.reduce((most, l) => Math.max(most, l.z), 0) + 0.45 : 0;
}

export function setPieces(scenery: Show["scenery"], lamps: readonly RoomLamp[]): Object3D[] {
  return Object.values(scenery).map((piece) => {
    const { shape, from, to, height } = piece;
    const [dx, dy] = [to.x - from.x, to.y - from.y];
    const middle = [(from.x + to.x) / 2, (from.y + to.y) / 2] as const;
    if (shape === "truss" || shape === "line") {
      const high = height ?? (shape === "truss" ? THICK : 0.05);
      const thick = shape === "truss" ? THICK : 0.06;
      const mesh = new Mesh(
        new BoxGeometry(Math.hypot(dx, dy) || 0.1, thick, high),
        bodyPaint(shape === "truss" ? 0x56627d : 0x34435e, shape === "truss"),
      );
      mesh.rotateZ(Math.atan2(dy, dx));
      mesh.position.set(...middle, (shape === "truss" ? heightOf(piece, lamps) : (piece.z ?? 0)) + high / 2);
      return mesh;
    }
    const high = height ?? (shape === "area" ? 0.03 : 1.2);
    const body =
      shape === "round" ? new CylinderGeometry(0.5, 0.5, 1, 28).rotateX(Math.PI / 2) : new BoxGeometry(1, 1, 1);
    const mesh = new Mesh(body, bodyPaint(shape === "round" ? 0x39425a : 0x1f2739));
    mesh.scale.set(Math.abs(dx) || 0.1, Math.abs(dy) || 0.1, high);
    mesh.position.set(...middle, (piece.z ?? 0) + high / 2 - (shape === "area" && height === undefined ? 0.035 : 0));
    return mesh;
  });
}
