/** Bodies of lamps, and how they are painted: simply, since every point of the picture is worked out by the processor where there is no GPU. */
import {
  BoxGeometry,
  Color,
  CylinderGeometry,
  DoubleSide,
  DynamicDrawUsage,
  FrontSide,
  InstancedMesh,
  Matrix4,
  Quaternion,
  ShaderMaterial,
  Vector3,
} from "three";
import type { RoomLamp } from "@/picture/room/lamps";
import { BODY_FRAGMENT, BODY_VERTEX } from "./shaders";

export const bodyPaint = (tint = 0xffffff, wireframe = false): ShaderMaterial =>
  new ShaderMaterial({
    vertexShader: BODY_VERTEX,
    fragmentShader: BODY_FRAGMENT,
    uniforms: { tint: { value: new Color(tint) } },
    side: FrontSide,
    wireframe,
  });

/** What shines by itself. */
export const glowPaint = (): ShaderMaterial =>
  new ShaderMaterial({
    vertexShader: BODY_VERTEX,
    fragmentShader: BODY_FRAGMENT,
    uniforms: { tint: { value: new Color(0xffffff) } },
    defines: { GLOWS: 1 },
    side: DoubleSide,
  });

const NOWHERE = new Matrix4().makeScale(0, 0, 0);

/** The bodies of all lamps and their heads, each shape one instanced mesh. */
export class Bodies {
  readonly boxes: InstancedMesh;
  readonly rounds: InstancedMesh;
  private readonly heads: InstancedMesh;
  private readonly boxHeads: InstancedMesh;

  constructor(private readonly lamps: readonly RoomLamp[]) {
    const paint = bodyPaint();
    const many = Math.max(1, lamps.length);
    // Few rigs have these: round bodies, and heads that are boxes.
    const some = (has: (lamp: RoomLamp) => boolean) => (lamps.some(has) ? many : 0);
    const upright = (geometry: CylinderGeometry) => geometry.rotateX(Math.PI / 2);
    this.boxes = new InstancedMesh(new BoxGeometry(1, 1, 1), paint, many);
    this.rounds = new InstancedMesh(
      upright(new CylinderGeometry(0.5, 0.5, 1, 10)),
      paint,
      some((l) => l.round),
    );
    this.heads = new InstancedMesh(upright(new CylinderGeometry(0.5, 0.42, 1, 7, 1, true)), paint, many);
    this.boxHeads = new InstancedMesh(this.boxes.geometry, paint, some(hasBoxHead));
    for (const mesh of this.all()) mesh.frustumCulled = false;
    for (const mesh of [this.heads, this.boxHeads]) mesh.instanceMatrix.setUsage(DynamicDrawUsage);
    this.hang();
  }

  all(): InstancedMesh[] {
    return [this.boxes, this.rounds, this.heads, this.boxHeads];
  }

  /** Selected ones shine. */
  select(selected: ReadonlySet<string>): void {
    const [plain, chosen, away] = [new Color(0x4a566f), new Color(0x7ee8c4), new Color(0x6a3a3a)];
    this.lamps.forEach((lamp, k) => {
      const colour = selected.has(lamp.id) ? chosen : lamp.away ? away : plain;
      for (const mesh of this.all()) if (mesh.count > 0) mesh.setColorAt(k, colour);
    });
    for (const mesh of this.all()) if (mesh.instanceColor) mesh.instanceColor.needsUpdate = true;
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
    for (const mesh of [this.boxes, this.rounds]) mesh.instanceMatrix.needsUpdate = true;
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
    this.heads.instanceMatrix.needsUpdate = this.boxHeads.instanceMatrix.needsUpdate = true;
  }
}

const [part, place, size] = [new Matrix4(), new Vector3(), new Vector3()];
const hasBoxHead = (lamp: RoomLamp): boolean => lamp.head !== undefined && !lamp.head.round;

/** Puts a part in one of two shapes; the other is not there. */
function put(first: boolean, [one, other]: readonly [InstancedMesh, InstancedMesh], k: number, matrix: Matrix4): void {
  if (one.count > 0) one.setMatrixAt(k, first ? matrix : NOWHERE);
  if (other.count > 0) other.setMatrixAt(k, first ? NOWHERE : matrix);
}
