/** The room as three.js draws it: bodies, lenses, beams and pools of light, each kind one mesh. */
import {
  AdditiveBlending,
  BackSide,
  CircleGeometry,
  Color,
  Matrix4,
  Mesh,
  NoBlending,
  PlaneGeometry,
  LinearFilter,
  LineBasicMaterial,
  LineSegments,
  Quaternion,
  Scene,
  ShaderMaterial,
  UnsignedByteType,
  Vector2,
  Vector3,
  WebGLRenderTarget,
  BufferGeometry,
  Float32BufferAttribute,
  type Camera,
  type WebGLRenderer,
} from "three";
import type { Show } from "@/core/show/schema";
import { beam, beamOf, hazeOf } from "@/picture/room/beam";
import type { RoomLamp } from "@/picture/room/lamps";
import { light, lightOf } from "@/picture/light";
import type { Lit } from "@/picture/lit";
import { Fields, Many } from "./many";
import { gobosOf } from "./pictures";
import { Bodies, glowPaint } from "./bodies";
import {
  AIR_FRAGMENT,
  AIR_VERTEX,
  BEAM_FRAGMENT,
  BEAM_VERTEX,
  BLACK_FRAGMENT,
  BODY_VERTEX,
  POOL_FRAGMENT,
  POOL_VERTEX,
} from "./shaders";
import { setPieces } from "./setPieces";

/** What is given up, in this order, where the machine cannot keep up; never beams, colour or aim. */
export const GIVES_UP = ["haze structure", "beam rays", "gobo detail", "half the resolution"] as const;

const AROUND = 9;
/** Haze is drawn so many times smaller each way; smaller still where everything is. */
const SMALLER = 3;
const SMALLEST = 4;
/** Light in haze is laid over all else. */
const OVER = 3;
const NIGHT = 0x05070c;
const DOWN = new Vector3(0, 0, -1);

/** A cone of one metre: x, y around, z along. */
function coneOf(): BufferGeometry {
  const places: number[] = [];
  const faces: number[] = [];
  for (let k = 0; k <= AROUND; k++) {
    const a = (k / AROUND) * 2 * Math.PI;
    for (const z of [0, 1]) places.push(Math.cos(a), Math.sin(a), z);
    if (k < AROUND) faces.push(2 * k, 2 * k + 1, 2 * k + 2, 2 * k + 1, 2 * k + 3, 2 * k + 2);
  }
  const made = new BufferGeometry();
  made.setAttribute("position", new Float32BufferAttribute(places, 3));
  made.setIndex(faces);
  return made;
}

const VALUES = { iOrigin: 3, iDir: 3, iUp: 3, iColor: 4, iShape: 4, iLook: 4 } as const;

export class StageRoom {
  private readonly scene = new Scene();
  private readonly haze = new Scene();
  private readonly finePools: Mesh;
  private readonly air: Mesh<PlaneGeometry, ShaderMaterial>;
  private readonly softPools: Mesh;
  /** The bodies that hide light in haze. */
  private readonly hiding: Mesh[];
  private readonly target = new WebGLRenderTarget(1, 1, { type: UnsignedByteType, magFilter: LinearFilter });
  private readonly bodies: Bodies;
  private readonly lenses: Many;
  private readonly cones: Fields;
  private readonly pools: Fields;
  private readonly beamMaterial: ShaderMaterial;
  private readonly poolMaterial: ShaderMaterial;
  private readonly gobos: ReturnType<typeof gobosOf>;
  /** How many sources have a lens: cells each have one. */
  private readonly sources: number;
  readonly back: number;
  private level = 0;

  constructor(
    readonly lamps: readonly RoomLamp[],
    show: Pick<Show, "scenery" | "types">,
  ) {
    this.sources = Math.max(
      1,
      lamps.reduce((n, l) => n + l.sources.length, 0),
    );
    const beams = Math.max(1, lamps.filter((l) => l.beam).length);
    const ys = [...lamps.map((l) => l.y), ...Object.values(show.scenery).flatMap((s) => [s.from.y, s.to.y])];
    this.back = (ys.length > 0 ? ys.reduce((a, b) => Math.max(a, b)) : 8) + 3;
    this.gobos = gobosOf(lamps, show.types);
    this.bodies = new Bodies(lamps);
    this.lenses = new Many(new CircleGeometry(0.5, 8), this.sources, glowPaint());
    this.cones = new Fields(coneOf(), beams, VALUES);
    this.pools = new Fields(new PlaneGeometry(2, 2), beams, VALUES);
    const adds = { transparent: true, depthWrite: false, blending: AdditiveBlending } as const;
    this.beamMaterial = new ShaderMaterial({
      ...adds,
      side: BackSide,
      vertexShader: BEAM_VERTEX,
      fragmentShader: BEAM_FRAGMENT,
      uniforms: { haze: { value: 0.5 }, time: { value: 0 } },
      defines: { RAYS: 1, STRUCTURE: 1 },
    });
    this.poolMaterial = new ShaderMaterial({
      ...adds,
      vertexShader: POOL_VERTEX,
      fragmentShader: POOL_FRAGMENT,
      uniforms: { gobos: { value: this.gobos.texture } },
      defines: { GOBO: 1 },
    });
    const cones = new Mesh(this.cones.geometry, this.beamMaterial);
    const pools = new Mesh(this.pools.geometry, this.poolMaterial);
    cones.frustumCulled = pools.frustumCulled = false;
    const over = new ShaderMaterial({
      vertexShader: AIR_VERTEX,
      fragmentShader: AIR_FRAGMENT,
      uniforms: { map: { value: this.target.texture } },
      blending: AdditiveBlending,
      transparent: true,
      depthTest: false,
      depthWrite: false,
    });
    const air = new Mesh(new PlaneGeometry(2, 2), over);
    this.air = air;
    const softPools = new Mesh(this.pools.geometry, this.poolMaterial);
    this.softPools = softPools;
    this.finePools = pools;
    air.frustumCulled = softPools.frustumCulled = false;
    [pools.renderOrder, softPools.renderOrder, cones.renderOrder, air.renderOrder] = [1, 1, 2, OVER];
    this.scene.add(
      roomShell(this.back),
      ...setPieces(show.scenery, lamps),
      ...this.bodies.all(),
      this.lenses,
      pools,
      air,
    );
    // What hides light in haze: the same bodies, black.
    const black = new ShaderMaterial({
      vertexShader: BODY_VERTEX,
      fragmentShader: BLACK_FRAGMENT,
      uniforms: { tint: { value: new Color(0) } },
    });
    this.hiding = [this.bodies.boxes, this.bodies.rounds]
      .filter(({ copies }) => copies > 0)
      .map(({ geometry }) => {
        const made = new Mesh(geometry, black);
        made.frustumCulled = false;
        return made;
      });
    const pieces = setPieces(show.scenery, lamps);
    for (const piece of pieces) if (piece instanceof Mesh) piece.material = black;
    this.haze.add(...pieces, ...this.hiding, softPools, cones);
  }

  /**
   * Draws the room. Light in haze is soft: it is drawn small, behind the bodies that hide it, and laid over. That is
   * what a machine without a GPU can do; spots on the floor are drawn as fine as the bodies, until gobo detail is given
   * up. At half the resolution what is laid over is laid under instead, all of it at once: bodies stand before all light.
   */
  draw(gl: WebGLRenderer, camera: Camera): void {
    const size = gl.getDrawingBufferSize(new Vector2());
    const by = this.coarse ? SMALLEST : SMALLER;
    const [w, h] = [Math.max(1, Math.ceil(size.x / by)), Math.max(1, Math.ceil(size.y / by))];
    if (this.target.width !== w || this.target.height !== h) this.target.setSize(w, h);
    const plain = this.level >= 3;
    for (const body of this.hiding) body.visible = !this.coarse;
    this.softPools.visible = plain;
    this.finePools.visible = !plain;
    gl.autoClearColor = true;
    gl.setRenderTarget(this.target);
    gl.setClearColor(this.coarse ? NIGHT : 0, 1);
    gl.render(this.haze, camera);
    gl.setRenderTarget(null);
    gl.setClearColor(NIGHT, 1);
    gl.autoClearColor = !this.coarse;
    gl.render(this.scene, camera);
  }

  /** Everything that can be is given up. */
  private get coarse(): boolean {
    return this.level >= GIVES_UP.length;
  }

  /** How much is given up: so many of `GIVES_UP`. */
  giveUp(level: number): void {
    if (level === this.level) return;
    this.level = level;
    this.air.material.blending = this.coarse ? NoBlending : AdditiveBlending;
    this.air.material.transparent = !this.coarse;
    this.air.renderOrder = this.coarse ? -1 : OVER;
    const beamDefines = { ...(level < 2 ? { RAYS: 1 } : {}), ...(level < 1 ? { STRUCTURE: 1 } : {}) };
    this.beamMaterial.defines = beamDefines;
    this.poolMaterial.defines = level < 3 ? { GOBO: 1 } : {};
    this.beamMaterial.needsUpdate = this.poolMaterial.needsUpdate = true;
  }

  select(selected: ReadonlySet<string>): void {
    this.bodies.select(selected);
  }

  /** Takes a frame of the stage. @param seconds of the clock, for what spins and strobes. */
  update(lit: Lit, seconds: number): void {
    let [b, s] = [0, 0];
    const [matrix, turn, along, colour, size] = [
      new Matrix4(),
      new Quaternion(),
      new Vector3(),
      new Color(),
      new Vector3(),
    ];
    this.lamps.forEach((lamp, k) => {
      beamOf(lamp, lit, this.back, seconds, this.gobos.of);
      along.set(beam.dx, beam.dy, beam.dz);
      turn.setFromUnitVectors(DOWN, along);
      const [w] = lamp.head?.size ?? lamp.size;
      const small = lamp.sources.length > 1;
      const front = this.bodies.turn(k, turn);
      for (const source of lamp.sources) {
        lightOf(lamp, source, lit);
        const level = beam.off ? 0 : light.level;
        const lens = small ? Math.min(0.09, w / lamp.sources.length) : w * 0.7;
        const [x, y] = small ? [source.x, source.y] : [lamp.x, lamp.y];
        matrix.compose(
          new Vector3(x + beam.dx * front, y + beam.dy * front, lamp.z + beam.dz * front),
          turn,
          size.set(lens, lens, lens),
        );
        this.lenses.put(s, matrix);
        colour.setRGB(light.r / 255, light.g / 255, light.b / 255).multiplyScalar(0.03 + 0.97 * level);
        this.lenses.paint(s, colour);
        s += 1;
        if (!lamp.beam || level <= 0.002) continue;
        colour.setRGB(light.r / 255, light.g / 255, light.b / 255);
        for (const fields of [this.cones, this.pools]) {
          fields.set(b, "iOrigin", lamp.x + beam.dx * front, lamp.y + beam.dy * front, lamp.z + beam.dz * front);
          fields.set(b, "iDir", beam.dx, beam.dy, beam.dz);
          fields.set(b, "iUp", beam.ux, beam.uy, beam.uz);
          fields.set(b, "iColor", colour.r, colour.g, colour.b, level);
          fields.set(b, "iShape", Math.max(0.1, beam.length - front), beam.spread, lens * 0.45);
          fields.set(b, "iLook", beam.gobo, beam.turn, beam.facets, beam.frost);
        }
        b += 1;
      }
    });
    this.cones.show(b);
    this.pools.show(b);
    this.bodies.turned();
    this.lenses.send("position", "color");
    this.beamMaterial.uniforms.haze!.value = hazeOf(this.lamps, lit);
    this.beamMaterial.uniforms.time!.value = seconds;
  }

  dispose(): void {
    this.gobos.texture.dispose();
    this.beamMaterial.dispose();
    this.poolMaterial.dispose();
    this.target.dispose();
    for (const scene of [this.scene, this.haze])
      scene.traverse((part) => {
        if (part instanceof Mesh) (part as Mesh).geometry.dispose();
      });
  }
}

/** The floor in squares of two metres, and the foot of a wall behind. */
function roomShell(back: number): LineSegments {
  const places: number[] = [];
  const colours: number[] = [];
  const [strong, faint] = [new Color(0x2f3a52), new Color(0x1d2536)];
  const line = (colour: Color, ...ends: [number, number, number, number, number, number]) => {
    places.push(...ends);
    colours.push(...colour.toArray(), ...colour.toArray());
  };
  for (let k = -20; k <= 20; k += 2) {
    const colour = k === 0 ? strong : faint;
    line(colour, k, back - 40, 0, k, back, 0);
    line(colour, -20, back - 20 + k, 0, 20, back - 20 + k, 0);
  }
  for (const height of [0, 9]) line(strong, -20, back, height, 20, back, height);
  const made = new BufferGeometry()
    .setAttribute("position", new Float32BufferAttribute(places, 3))
    .setAttribute("color", new Float32BufferAttribute(colours, 3));
  return new LineSegments(made, new LineBasicMaterial({ vertexColors: true }));
}
