/** Lamps as the room in three dimensions needs them: where they hang, what they are, and which parameters make their beams. */
import { functionOf } from "@/core/fixture/parameters";
import type { Kind, Physical } from "@/core/fixture/type";
import { paramKey, type ParamIndex } from "@/core/show/ids";
import { modelOf } from "@/core/show/model";
import type { Fixture, Show } from "@/core/show/schema";
import { fixturesByNumber } from "@/core/show/world";
import { lampsOf } from "../packed";
import type { Lamp } from "../plan";

/** A parameter and the number of the function of an attribute in it; param -1 where the type has none. */
export interface Part {
  param: number;
  fn: number;
}

export interface Wheel extends Part {
  /** The pictures of its slots by value; the first is 1. */
  names: readonly string[];
}

export interface RoomLamp extends Lamp {
  /** Degrees across where no zoom says it. */
  beamAngle: number;
  /** Metres: across, deep, high. */
  size: readonly [number, number, number];
  /** A cylinder, else a box. */
  round: boolean;
  /** What turns, where the type has measured it. */
  head: Physical["head"];
  gobos: readonly Wheel[];
  /** Whether it projects patterns. */
  projects: boolean;
  goboAngle: Part;
  goboSpin: Part;
  prism: Part;
  iris: Part;
  frost: Part;
  strobe: Part;
  /** Whether it throws a beam through the room, and does not only glow. */
  beam: boolean;
}

/** Usual bodies and beams by kind, where the type says nothing. */
const USUAL: Record<Kind, { beamAngle: number; size: readonly [number, number, number]; beam: boolean }> = {
  spot: { beamAngle: 16, size: [0.34, 0.3, 0.6], beam: true },
  wash: { beamAngle: 25, size: [0.3, 0.26, 0.42], beam: true },
  par: { beamAngle: 30, size: [0.24, 0.24, 0.3], beam: true },
  bar: { beamAngle: 40, size: [1, 0.12, 0.16], beam: false },
  conventional: { beamAngle: 28, size: [0.3, 0.3, 0.45], beam: true },
  strobe: { beamAngle: 90, size: [0.45, 0.15, 0.25], beam: false },
  server: { beamAngle: 30, size: [0.5, 0.3, 0.3], beam: true },
  hazer: { beamAngle: 60, size: [0.5, 0.35, 0.35], beam: false },
};

/** All lamps of a show. @param index the places of parameters in a frame. */
export function roomLampsOf(show: Show, index: ParamIndex): RoomLamp[] {
  const fixtures = fixturesByNumber(show);
  return lampsOf(show, index).map((lamp, k) => roomLamp(show, lamp, fixtures[k]!, index));
}

function roomLamp(show: Show, lamp: Lamp, fixture: Fixture, index: ParamIndex): RoomLamp {
  const { type, specs } = modelOf(show, fixture);
  const usual = USUAL[type.kind];
  const part = (attribute: string): Part => {
    const spec = specs.find((s) => s.cell === 0 && functionOf(s, attribute));
    if (!spec) return { param: -1, fn: 0 };
    return {
      param: index.get(paramKey(fixture.id, 0, spec.head)) ?? -1,
      fn: spec.functions.findIndex((f) => f.attribute === attribute),
    };
  };
  const wheel = (attribute: string): Wheel[] => {
    const own = part(attribute);
    const steps = specs.flatMap((s) => functionOf(s, attribute)?.steps ?? []);
    const names: string[] = [];
    for (const s of steps) names[s.value - 1] = s.picture ? `${type.id}/${s.picture}` : s.name;
    return own.param < 0 || names.length === 0 ? [] : [{ ...own, names }];
  };
  return {
    ...lamp,
    beamAngle: type.physical?.beamAngle ?? usual.beamAngle,
    size: type.physical?.size ?? usual.size,
    round: type.physical?.round ?? false,
    head: type.physical?.head,
    gobos: [...wheel("Gobo1"), ...wheel("Gobo2")],
    projects: lamp.sources.length === 1 && lamp.sources[0]!.pattern >= 0,
    goboAngle: part("Gobo1Pos"),
    goboSpin: part("Gobo1PosRotate"),
    prism: part("Prism1"),
    iris: part("Iris"),
    frost: part("Frost1"),
    strobe: part("Shutter1Strobe"),
    beam: usual.beam && lamp.sources.length === 1,
  };
}
