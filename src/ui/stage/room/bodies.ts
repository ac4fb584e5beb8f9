/** Bodies of lamps, and how they are painted: simply, since every point of the picture is worked out by the processor where there is no GPU. */
import {
  BoxGeometry,
  Color,
  CylinderGeometry,
  DoubleSide,
  FrontSide,
  Matrix4,
  Quaternion,
  ShaderMaterial,
  Vector3,
  type ShaderMaterialParameters,
} from "three";
import type { RoomLamp } from "@/picture/room/lamps";
import { Many } from "./many";
import { BODY_FRAGMENT, BODY_VERTEX } from "./shaders";

const painted = (more: ShaderMaterialParameters, tint = 0xffffff): ShaderMaterial =>
  new ShaderMaterial({
    vertexShader: BODY_VERTEX,
    fragmentShader: BODY_FRAGMENT,
    uniforms: { tint: { value: new Color(tint) } },
    ...more,
  });

export const bodyPaint = (tint: number, wireframe = false): ShaderMaterial =>
  painted({ side: FrontSide, wireframe }, tint);

/** What shines by itself, each in its own colour. */
export const glowPaint = (): ShaderMaterial => painted({ vertexColors: true, defines: { GLOWS: 1 }, side: DoubleSide });

const NOWHERE = new Matrix4().makeScale(0, 0, 0);

/** The bodies of all lamps and their heads, each shape one mesh. */
export class Bodies {
  readonly boxes: Many;
  readonly rounds: Many;
  private readonly heads: Many;
  private readonly boxHeads: Many;

  constructor(private readonly lamps: readonly RoomLamp[]) {
    const paint = painted({ vertexColors: true, side: FrontSide });
    const many = lamps.length;
    // Few rigs have these: round bodies, and heads that are boxes.
    const some = (has: (lamp: RoomLamp) => boolean) => (lamps.some(has) ? many : 0);
    const upright = (geometry: CylinderGeometry) => geometry.rotateX(Math.PI / 2);
    this.boxes = new Many(new BoxGeometry(1, 1, 1), many, paint);
    const round = some((l) => l.round);
    this.rounds = new Many(upright(new CylinderGeometry(0.5, 0.5, 1, 10)), round, paint);
    this.heads = new Many(upright(new CylinderGeometry(0.5, 0.42, 1, 7, 1, true)), many, paint);
    this.boxHeads = new Many(new BoxGeometry(1, 1, 1), some(hasBoxHead), paint);
    this.hang();
  }

  all(): Many[] {
    return [this.boxes, this.rounds, this.heads, this.boxHeads];
  }

  /** Selected ones shine. */
  select(selected: ReadonlySet<string>): void {
    const [plain, chosen, away] = [new Color(0x4a566f), new Color(0x7ee8c4), new Color(0x6a3a3a)];
    this.lamps.forEach((lamp, k) => {
      const colour = selected.has(lamp.id) ? chosen : lamp.away ? away : plain;
      for (const shape of this.all()) if (shape.copies > 0) shape.paint(k, colour);
    });
    for (const shape of this.all()) shape.send("color");
  }

  private hang(): void {
    const [matrix, turn, basis] = [new Matrix4(), new Quaternion(), new Matrix4()];
    this.lamps.forEach((lamp, k) => {
      const [rx, ry, rz] = lamp.hung;
      basis.set(rx[0], rx[1], rx[2], 0, ry[0], ry[1], ry[2], 0, rz[0], rz[1], rz[2], 0, 0, 0, 0, 1);
      turn.setFromRotationMatrix(basis);
      const moves = lamp.pan >= 0;
      const [w, d, h] = lamp.size;
      // A mover's base is above its head, as it hangs. Where the head was measured, so was the base by itself.
      const above = !moves ? 0 : lamp.head ? (h + lamp.head.size[2]) / 2 : h * 0.45;
      const up = new Vector3(0, 0, above).applyQuaternion(turn);
      const tall = moves && !lamp.head ? h * 0.3 : h;
      matrix.compose(new Vector3(lamp.x, lamp.y, lamp.z).add(up), turn, new Vector3(w, d, tall));
      put(lamp.round, [this.rounds, this.boxes], k, matrix);
    });
    for (const shape of [this.boxes, this.rounds]) shape.send("position", "normal");
    this.select(new Set());
  }

  /** Turns the head of a lamp. @param turn from straight down. Returns how far its lens is in front of it, metres. */
  turn(k: number, turn: Quaternion): number {
    const lamp = this.lamps[k]!;
    const [w, , h] = lamp.size;
    const turns = lamp.pan >= 0;
    const [across, deep, long] = lamp.head?.size ?? [w * 0.85, w * 0.85, h * 0.6];
    if (turns) part.compose(place.set(lamp.x, lamp.y, lamp.z), turn, size.set(across, deep, long));
    put(hasBoxHead(lamp), [this.boxHeads, this.heads], k, turns ? part : NOWHERE);
    return turns ? long * 0.51 : h * 0.51;
  }

  /** All heads have been turned. */
  turned(): void {
    for (const shape of [this.heads, this.boxHeads]) shape.send("position", "normal");
  }
}

const [part, place, size] = [new Matrix4(), new Vector3(), new Vector3()];
const hasBoxHead = (lamp: RoomLamp): boolean => lamp.head !== undefined && !lamp.head.round;

/** Puts a part in one of two shapes; the other is not there. */
function put(first: boolean, [one, other]: readonly [Many, Many], k: number, matrix: Matrix4): void {
  if (one.copies > 0) one.put(k, first ? matrix : NOWHERE);
  if (other.copies > 0) other.put(k, first ? NOWHERE : matrix);
}
