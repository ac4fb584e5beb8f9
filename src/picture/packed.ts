/**
 * The lamps of a rig in few words: what fixtures of one mode have alike is told once, and each fixture is some
 * numbers. Twenty thousand go to a painter in the time a page has between two frames.
 */
import { emitterOf } from "@/core/colour/emitters";
import { FILTER_NAMES, logsOfFilters, type Logs } from "@/core/colour/filter";
import { functionOf, type ParameterSpec } from "@/core/fixture/parameters";
import type { ChannelFunction, Kind } from "@/core/fixture/type";
import { rotationOf } from "@/core/patch/room";
import { placeOf } from "@/core/select/place";
import { item, paramKey, type ParamIndex } from "@/core/show/ids";
import { modelOf } from "@/core/show/model";
import type { Show } from "@/core/show/schema";
import { fixturesByNumber } from "@/core/show/world";
import type { Lamp, Source } from "./plan";
import { screenRgb } from "./screen";

/** Parameters by their places among those of the fixture, -1 for none. */
type Make = Pick<Lamp, "kind" | "dimmer" | "pan" | "tilt" | "zoom"> & {
  sources: (Omit<Source, "x" | "y"> & { cell: number })[];
};

export interface Plan {
  makes: Make[];
  ids: string[];
  numbers: Float64Array;
  /** Which of the makes each lamp is. */
  made: Uint32Array;
  /** Where its parameters begin in the frame; -1 where they are not in it. */
  first: Int32Array;
  away: Uint8Array;
  /** x, y, z in metres and the turn about each in degrees. */
  places: Float64Array;
  /** x and y of each cell, of those lamps that have cells. */
  cells: Float64Array;
}

const PLACE = 6;
const makes = new WeakMap<readonly ParameterSpec[], Partial<Record<Kind, Make>>>();

const emitterRgb = (fn: ChannelFunction): [number, number, number] | undefined => {
  const emitter = emitterOf(fn);
  return emitter && screenRgb(emitter);
};

const linear = (hex: string): [number, number, number] =>
  [1, 3, 5].map((i) => (parseInt(hex.slice(i, i + 2), 16) / 255) ** 2.2) as [number, number, number];

function makeOf(kind: Kind, cells: number, specs: readonly ParameterSpec[]): Make {
  const known = makes.get(specs) ?? {};
  makes.set(specs, known);
  return (known[kind] ??= newMake(kind, cells, specs));
}

function newMake(kind: Kind, cells: number, specs: readonly ParameterSpec[]): Make {
  const places = new Map(specs.map((s, k) => [`${s.cell}.${s.head}`, k]));
  const param = (cell: number, head: string) => places.get(`${cell}.${head}`) ?? -1;
  const parts = new Map<number, ParameterSpec[]>();
  for (const spec of specs) parts.set(spec.cell, [...(parts.get(spec.cell) ?? []), spec]);
  const source = (cell: number): Make["sources"][number] => {
    const own = parts.get(cell) ?? [];
    const wheel = own.find((s) => functionOf(s, "Color1"));
    return {
      cell,
      dimmer: param(cell, kind === "hazer" ? "Fog1" : "Dimmer"),
      shutter: param(cell, "Shutter1"),
      emitters: own.flatMap((s): Source["emitters"] => {
        const rgb = emitterRgb(s.functions[0]!);
        return rgb ? [[param(cell, s.head), ...rgb]] : [];
      }),
      filters: own.some((s) => s.head === "ColorSub_C") ? FILTER_NAMES.map((head) => param(cell, head)) : [],
      logs: logsOfFilters(FILTER_NAMES.map((head) => own.find((s) => s.head === head)?.functions[0])) satisfies Logs,
      wheel: wheel ? param(cell, "Color1") : -1,
      slots: wheel ? (functionOf(wheel, "Color1")!.steps ?? []).map((step) => linear(step.colour ?? "#ffffff")) : [],
      hue: param(cell, "HSB_Hue"),
      page: param(cell, "MediaFolder1"),
      pattern: kind === "server" ? param(cell, "MediaContent1") : -1,
      size: param(cell, "VideoScale"),
    };
  };
  return {
    kind,
    dimmer: cells > 0 ? param(0, "Dimmer") : -1,
    pan: param(0, "Pan"),
    tilt: param(0, "Tilt"),
    zoom: param(0, "Zoom"),
    sources: cells > 0 ? Array.from({ length: cells }, (_, i) => source(i + 1)) : [source(0)],
  };
}

/**
 * The lamps of a show, by number.
 * @param index of a frame in which the parameters of a fixture lie one after the other, in the order of its mode.
 */
export function planOf(show: Show, index: ParamIndex): Plan {
  const fixtures = fixturesByNumber(show);
  const found = new Map<Make, number>();
  const n = fixtures.length;
  const cells: number[] = [];
  const plan: Omit<Plan, "makes" | "cells"> = {
    ids: fixtures.map((f) => f.id),
    numbers: Float64Array.from(fixtures, (f) => f.number),
    made: new Uint32Array(n),
    first: new Int32Array(n),
    away: Uint8Array.from(fixtures, (f) => (f.outOfService ? 1 : 0)),
    places: new Float64Array(n * PLACE),
  };
  fixtures.forEach((fixture, k) => {
    const { type, mode, specs } = modelOf(show, fixture);
    const make = makeOf(type.kind, mode.cells, specs);
    if (!found.has(make)) found.set(make, found.size);
    plan.made[k] = found.get(make)!;
    plan.first[k] = firstOf(fixture.id, specs, index);
    const { place, turn } = fixture;
    plan.places.set([place.x, place.y, place.z, turn.x, turn.y, turn.z], k * PLACE);
    for (const { cell } of make.sources) {
      if (cell === 0) continue;
      const { x, y } = placeOf(show, item(fixture.id, cell));
      cells.push(x, y);
    }
  });
  return { ...plan, makes: [...found.keys()], cells: Float64Array.from(cells) };
}

/** A frame of an earlier rig does not have all of them. */
function firstOf(fixture: string, specs: readonly ParameterSpec[], index: ParamIndex): number {
  if (index.of) {
    const there = index.of(fixture);
    return there?.count === specs.length ? there.first : -1;
  }
  const at = (k: number) => index.get(paramKey(fixture, specs[k]!.cell, specs[k]!.head));
  const last = specs.length - 1;
  const first = last < 0 ? undefined : at(0);
  return first !== undefined && (last === 0 || at(last) === first + last) ? first : -1;
}

/** The lamps of a plan as they are painted. */
export function lampsIn({ makes: all, ids, numbers, made, first, away, places, cells }: Plan): Lamp[] {
  let cell = 0;
  return ids.map((id, k): Lamp => {
    const make = all[made[k]!]!;
    const from = first[k]!;
    const param = (own: number) => (from < 0 || own < 0 ? -1 : from + own);
    const at = (part: number) => places[k * PLACE + part]!;
    const [x, y] = [at(0), at(1)];
    return {
      id,
      number: numbers[k]!,
      away: away[k] === 1,
      kind: make.kind,
      x,
      y,
      z: at(2),
      hung: rotationOf({ x: at(3), y: at(4), z: at(5) }),
      dimmer: param(make.dimmer),
      pan: param(make.pan),
      tilt: param(make.tilt),
      zoom: param(make.zoom),
      sources: make.sources.map((own): Source => ({
        ...own,
        x: own.cell === 0 ? x : cells[cell++]!,
        y: own.cell === 0 ? y : cells[cell++]!,
        dimmer: param(own.dimmer),
        shutter: param(own.shutter),
        emitters: own.emitters.map(([p, r, g, b]) => [param(p), r, g, b]),
        filters: own.filters.map(param),
        wheel: param(own.wheel),
        hue: param(own.hue),
        page: param(own.page),
        pattern: param(own.pattern),
        size: param(own.size),
      })),
    };
  });
}

/** The lamps of a show as they are painted, by number. */
export const lampsOf = (show: Show, index: ParamIndex): Lamp[] => lampsIn(planOf(show, index));
