/** What the beam of a lamp is now: where it goes, how wide, through what. Written into one object, so that a frame allocates nothing. */
import type { Lit } from "../lit";
import { patternName, projected } from "../patterns";
import type { Part, RoomLamp } from "./lamps";

const RAD = Math.PI / 180;
/** A beam in haze ends where nothing stops it, metres. */
const REACH = 24;

export const beam = {
  /** Direction, of length 1, and what is up across it. */
  dx: 0,
  dy: 0,
  dz: -1,
  ux: 1,
  uy: 0,
  uz: 0,
  length: 1,
  /** Half its width for each metre it goes. */
  spread: 0.1,
  /** The picture in it, of all pictures; 0 is none. */
  gobo: 0,
  /** Radians. */
  turn: 0,
  /** Facets of a prism: 1 is none. */
  facets: 1,
  frost: 0,
  /** Whether a strobe has it dark now. */
  off: false,
};

const on = ({ param, fn }: Part, { fn: now }: Lit): boolean => param >= 0 && now[param] === fn;

/** @param back where the wall behind the stage is. @param seconds of the clock, for what spins and strobes. @param goboOf the number of a picture by its name. */
export function beamOf(
  lamp: RoomLamp,
  lit: Lit,
  back: number,
  seconds: number,
  goboOf: (name: string) => number,
): void {
  const { value } = lit;
  const pan = (lamp.pan >= 0 ? value[lamp.pan]! : 0) * RAD;
  const tilt = (lamp.tilt >= 0 ? value[lamp.tilt]! : 0) * RAD;
  const [sp, cp, st, ct] = [Math.sin(pan), Math.cos(pan), Math.sin(tilt), Math.cos(tilt)];
  const [rx, ry, rz] = lamp.hung;
  // The beam, and a vector across it, before it is hung.
  const [bx, by, bz] = [sp * st, -cp * st, -ct];
  beam.dx = rx[0] * bx + rx[1] * by + rx[2] * bz;
  beam.dy = ry[0] * bx + ry[1] * by + ry[2] * bz;
  beam.dz = rz[0] * bx + rz[1] * by + rz[2] * bz;
  beam.ux = rx[0] * cp + rx[1] * sp;
  beam.uy = ry[0] * cp + ry[1] * sp;
  beam.uz = rz[0] * cp + rz[1] * sp;
  beam.length = lengthOf(lamp, back);
  const zoom = lamp.zoom >= 0 ? value[lamp.zoom]! : lamp.beamAngle;
  const iris = lamp.iris.param >= 0 ? Math.max(0.08, value[lamp.iris.param]! / 100) : 1;
  beam.spread = Math.tan((Math.min(zoom, 120) * RAD) / 2) * iris;
  beam.gobo = 0;
  for (const wheel of lamp.gobos) {
    if (!on(wheel, lit)) continue;
    const name = wheel.names[Math.round(value[wheel.param]!) - 1];
    if (name !== undefined && Math.round(value[wheel.param]!) > 1) beam.gobo = goboOf(name);
  }
  const thrown = lamp.projects ? projected(lamp.sources[0]!, lit) : undefined;
  if (thrown) {
    beam.gobo = goboOf(patternName(thrown.page, thrown.pattern));
    beam.spread *= Math.max(0.02, thrown.size);
  }
  beam.turn = on(lamp.goboSpin, lit)
    ? (value[lamp.goboSpin.param]! / 60) * 2 * Math.PI * seconds
    : on(lamp.goboAngle, lit)
      ? value[lamp.goboAngle.param]! * RAD
      : thrown
        ? Math.PI
        : 0;
  beam.facets = lamp.prism.param >= 0 && value[lamp.prism.param]! >= 0.5 ? 3 : 1;
  beam.frost = lamp.frost.param >= 0 ? value[lamp.frost.param]! / 100 : 0;
  beam.off = on(lamp.strobe, lit) && (seconds * value[lamp.strobe.param]!) % 1 > 0.4;
}

/** To the floor, or the wall behind, or as far as haze shows it. */
function lengthOf({ y, z }: RoomLamp, back: number): number {
  const down = beam.dz < -1e-3 ? z / -beam.dz : REACH;
  const behind = beam.dy > 1e-3 ? (back - y) / beam.dy : REACH;
  return Math.max(0.2, Math.min(down > 0 ? down : REACH, behind > 0 ? behind : REACH, REACH));
}

/** How thick the haze is, 0..1, by what the hazers give; a little is always there, or no beam would be seen. */
export function hazeOf(lamps: readonly RoomLamp[], { value }: Lit): number {
  let most = 0;
  for (const lamp of lamps)
    if (lamp.kind === "hazer" && lamp.sources[0] && lamp.sources[0].dimmer >= 0)
      most = Math.max(most, value[lamp.sources[0].dimmer]! / 100);
  return 0.35 + 0.65 * most;
}
