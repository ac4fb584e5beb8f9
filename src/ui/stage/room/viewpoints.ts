/** Where the room is looked at from: four that every stage has, and those that were kept. */
import type { Viewpoint } from "@/ui/base/preferences/registry";
import type { RoomLamp } from "@/picture/room/lamps";

/** Around the middle of the rig. */
export function usualViewpoints(lamps: readonly Pick<RoomLamp, "x" | "y" | "z">[]): Viewpoint[] {
  const some = lamps.length > 0 ? lamps : [{ x: 0, y: 4, z: 5 }];
  const [xs, ys, zs] = [some.map((l) => l.x), some.map((l) => l.y), some.map((l) => l.z)];
  const least = (v: readonly number[]) => v.reduce((a, b) => Math.min(a, b));
  const most = (v: readonly number[]) => v.reduce((a, b) => Math.max(a, b));
  const [x, y] = [(least(xs) + most(xs)) / 2, (least(ys) + most(ys)) / 2];
  const wide = Math.max(6, most(xs) - least(xs), most(ys) - least(ys));
  const high = Math.max(4, most(zs));
  const to: [number, number, number] = [x, y, high * 0.32];
  return [
    { name: "Audience", from: [x, least(ys) - wide * 0.5, high * 0.7], to },
    { name: "Stage left", from: [x + wide * 0.75, y - wide * 0.55, high * 0.8], to },
    { name: "Above", from: [x, y - 0.5, high + wide * 0.95], to: [x, y, 0] },
    { name: "On stage", from: [x - wide * 0.1, most(ys) + 1.5, 1.8], to: [x, least(ys) - 4, 3] },
  ];
}

/** A walk from one to the next and around, each for so many seconds. @param t seconds since it began. */
export function walked(points: readonly Viewpoint[], t: number, each = 5): Pick<Viewpoint, "from" | "to"> {
  const at = (t / each) % points.length;
  const k = Math.floor(at);
  const p = at - k;
  const ease = p * p * (3 - 2 * p);
  const [a, b] = [points[k]!, points[(k + 1) % points.length]!];
  const mix = (u: Viewpoint["from"], v: Viewpoint["from"]) =>
    u.map((c, i) => c + (v[i]! - c) * ease) as Viewpoint["from"];
  return { from: mix(a.from, b.from), to: mix(a.to, b.to) };
}
