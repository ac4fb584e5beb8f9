/** The rig as the painter needs it: lamps with places, signs and the parameters that light them. */
import { emitterOf } from "@/core/colour/emitters";
import { FILTER_NAMES, logsOfFilters, type Logs } from "@/core/colour/filter";
import { screenRgb } from "./screen";
import { modelOf, type FixtureModel } from "@/core/show/model";
import { functionOf, type ParameterSpec } from "@/core/fixture/parameters";
import type { ChannelFunction, Kind } from "@/core/fixture/type";
import { rotationOf } from "@/core/patch/room";
import { placeOf } from "@/core/select/place";
import { item, paramKey } from "@/core/show/ids";
import type { Fixture, Show } from "@/core/show/schema";
import { fixturesByNumber } from "@/core/show/world";

/** A light source: the whole of a fixture, or one of its cells. */
export interface Source {
  x: number;
  y: number;
  /** Parameter indices, -1 for none. */
  dimmer: number;
  shutter: number;
  /** Emitters: parameter and the linear sRGB it adds. */
  emitters: [param: number, r: number, g: number, b: number][];
  /** Cyan, magenta, yellow filters. */
  filters: number[];
  /** What each of them lets through. */
  logs: Logs;
  /** Colour wheel and the linear sRGB of its slots; the first slot at index 0. */
  wheel: number;
  slots: [number, number, number][];
  hue: number;
}

export interface Lamp {
  id: string;
  number: number;
  /** Out of service: it gives no light. */
  away: boolean;
  kind: Kind;
  x: number;
  y: number;
  z: number;
  /** Rows of the rotation it hangs by. */
  hung: ReturnType<typeof rotationOf>;
  dimmer: number;
  pan: number;
  tilt: number;
  zoom: number;
  sources: Source[];
}

const emitterRgb = (fn: ChannelFunction): [number, number, number] | undefined => {
  const emitter = emitterOf(fn);
  return emitter && screenRgb(emitter);
};

const linear = (hex: string): [number, number, number] =>
  [1, 3, 5].map((i) => (parseInt(hex.slice(i, i + 2), 16) / 255) ** 2.2) as [number, number, number];

export function lampsOf(show: Show, index: ReadonlyMap<string, number>): Lamp[] {
  return fixturesByNumber(show).map((fixture) => lampOf(show, fixture, index));
}

/** What sources of all fixtures of one mode have alike: the heads of their parameters, and colours. */
interface Make {
  cell: number;
  dimmer: string;
  emitters: readonly (readonly [head: string, r: number, g: number, b: number])[];
  filters: readonly string[];
  logs: Logs;
  wheel: boolean;
  slots: Source["slots"];
}
const makes = new WeakMap<readonly ParameterSpec[], Partial<Record<Kind, readonly Make[]>>>();

function makesOf(kind: Kind, { mode, specs }: FixtureModel): readonly Make[] {
  const known = makes.get(specs) ?? {};
  makes.set(specs, known);
  const cells = mode.cells > 0 ? Array.from({ length: mode.cells }, (_, i) => i + 1) : [0];
  return (known[kind] ??= cells.map((cell): Make => {
    const own = specs.filter((s) => s.cell === cell);
    const wheel = own.find((s) => functionOf(s, "Color1"));
    return {
      cell,
      dimmer: kind === "hazer" ? "Fog1" : "Dimmer",
      emitters: own.flatMap((s): Make["emitters"] => {
        const rgb = emitterRgb(s.functions[0]!);
        return rgb ? [[s.head, ...rgb]] : [];
      }),
      filters: own.some((s) => s.head === "ColorSub_C") ? FILTER_NAMES : [],
      logs: logsOfFilters(FILTER_NAMES.map((head) => own.find((s) => s.head === head)?.functions[0])),
      wheel: wheel !== undefined,
      slots: wheel ? (functionOf(wheel, "Color1")!.steps ?? []).map((step) => linear(step.colour ?? "#ffffff")) : [],
    };
  }));
}

function lampOf(show: Show, fixture: Fixture, index: ReadonlyMap<string, number>): Lamp {
  const model = modelOf(show, fixture);
  const { type, mode } = model;
  const param = (cell: number, head: string) => index.get(paramKey(fixture.id, cell, head)) ?? -1;
  return {
    id: fixture.id,
    number: fixture.number,
    away: fixture.outOfService === true,
    kind: type.kind,
    ...fixture.place,
    hung: rotationOf(fixture.turn),
    dimmer: mode.cells > 0 ? param(0, "Dimmer") : -1,
    pan: param(0, "Pan"),
    tilt: param(0, "Tilt"),
    zoom: param(0, "Zoom"),
    sources: makesOf(type.kind, model).map((made): Source => {
      const { cell } = made;
      const { x, y } = cell === 0 ? fixture.place : placeOf(show, item(fixture.id, cell));
      return {
        x,
        y,
        dimmer: param(cell, made.dimmer),
        shutter: param(cell, "Shutter1"),
        emitters: made.emitters.map(([head, r, g, b]) => [param(cell, head), r, g, b]),
        filters: made.filters.map((head) => param(cell, head)),
        logs: made.logs,
        wheel: made.wheel ? param(cell, "Color1") : -1,
        slots: made.slots,
        hue: param(cell, "HSB_Hue"),
      };
    }),
  };
}

/** From metres to pixels: px = ox + x * scale, py = oy - y * scale. */
export interface View {
  scale: number;
  ox: number;
  oy: number;
}

/** Pixels for a metre at least: a stadium still fits. */
const SMALLEST = 0.5;
/** The view that fits all lamps, with room around them for signs and numbers. @param margin pixels. */
export function fitView(lamps: readonly { x: number; y: number }[], width: number, height: number, margin = 42): View {
  const xs = lamps.map((l) => l.x);
  const ys = lamps.map((l) => l.y);
  const [left, right, front, back] = lamps.length
    ? [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)]
    : [-6, 6, -1, 8];
  const scale = Math.max(
    SMALLEST,
    Math.min((width - 2 * margin) / Math.max(right - left, 4), (height - 2 * margin) / Math.max(back - front, 4), 90),
  );
  return { scale, ox: width / 2 - ((left + right) / 2) * scale, oy: height / 2 + ((front + back) / 2) * scale };
}

/** Where a point of the picture is in the room, metres. */
export const toMetres = (view: View, x: number, y: number): { x: number; y: number } => ({
  x: (x - view.ox) / view.scale,
  y: (view.oy - y) / view.scale,
});

export const toPixels = (view: View, x: number, y: number): [number, number] => [
  view.ox + x * view.scale,
  view.oy - y * view.scale,
];
