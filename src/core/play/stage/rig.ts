/** The show's rig compiled to flat arrays: parameters, and the channels they feed. */
import { attributeInfo, isEmitter } from "../../fixture/attribute";
import { isIntensity, scaledOf } from "../../program/light";
import { modelOf } from "../../show/model";
import type { ParameterSpec } from "../../fixture/parameters";
import { spanOf } from "../../show/address";
import { bendOf } from "../../fixture/dimmerCurve";
import { layoutOf, mastersIn, type ChannelFunction, type Mode, type Range } from "../../fixture/type";
import { paramKey, type ParamKey } from "../../show/ids";
import { plainOf } from "./bytes";
import type { Output } from "./output";
import type { Fixture, Show } from "../../show/schema";
import { fixturesByNumber } from "../../show/world";

export interface Rig {
  size: number;
  keys: readonly ParamKey[];
  index: ReadonlyMap<ParamKey, number>;
  specs: readonly ParameterSpec[];
  /** Fixture id of each parameter. */
  owner: readonly string[];
  defaults: Float64Array;
  /** 1 where the parameter is a Dimmer, fixture's or cell's. */
  intensity: Uint8Array;
  /** 1 where masters and levels scale it: fixture Dimmer, else cell Dimmers, else emitters. */
  scaled: Uint8Array;
  /** For each parameter and function whether it moves smoothly; stepped ones do not. */
  mixes: readonly (readonly boolean[])[];
  universes: readonly number[];
  outputs: readonly Output[];
  /**
   * Parameters that go to one 8-bit channel and nothing else: its byte is base + value x scale.
   * Offset -1: more than that is to be done; -2, `NOWHERE`: nothing goes out.
   */
  plainOffset: Int32Array;
  plainBase: Float64Array;
  plainScale: Float64Array;
  /** For each parameter the outputs that depend on it. */
  feeds: readonly (readonly number[])[];
}

/** In place of an offset: nothing goes out. */
export const NOWHERE = -2;

/** Whether a function changes at once instead of fading: slots and states. */
export function isStepped(fn: ChannelFunction): boolean {
  return fn.steps !== undefined || attributeInfo(fn.attribute).stepped === true;
}

/** The rig of a show as flat arrays: a place for each parameter, an output for each channel of each address. */
export function compileRig(show: Show): Rig {
  const keys: ParamKey[] = [];
  const specs: ParameterSpec[] = [];
  const owner: string[] = [];
  const index = new Map<ParamKey, number>();
  const scaledFlags: number[] = [];
  const fixtures = fixturesByNumber(show);
  for (const fixture of fixtures) {
    const own = modelOf(show, fixture).specs;
    const level = scaledOf(own);
    for (const spec of own) {
      const key = paramKey(fixture.id, spec.cell, spec.head);
      index.set(key, keys.length);
      keys.push(key);
      specs.push(spec);
      owner.push(fixture.id);
      scaledFlags.push(level(spec) ? 1 : 0);
    }
  }
  const universes = [...new Set(fixtures.flatMap((f) => f.addresses.map((a) => a.universe)))].sort((a, b) => a - b);
  const outputs = fixtures.flatMap((fixture) => outputsOf(show, fixture, index, universes));
  const feeds: number[][] = keys.map(() => []);
  outputs.forEach((output, i) => {
    const from = [output.param, output.dimmer, output.cellDimmer, ...output.demands.map((d) => d.param)];
    for (const p of new Set(from)) if (p >= 0) feeds[p]!.push(i);
  });
  const plain = feeds.map((own) => (own.length === 1 ? plainOf(outputs[own[0]!]!) : undefined));
  return {
    plainOffset: Int32Array.from(feeds, (own, p) =>
      plain[p] ? outputs[own[0]!]!.offset : own.length === 0 ? NOWHERE : -1,
    ),
    plainBase: Float64Array.from(plain, (o) => o?.base ?? 0),
    plainScale: Float64Array.from(plain, (o) => o?.scale ?? 0),
    size: keys.length,
    keys,
    index,
    specs,
    owner,
    universes,
    outputs,
    feeds,
    defaults: Float64Array.from(specs, (spec) => spec.default),
    intensity: Uint8Array.from(specs, (spec) => (isIntensity(spec) ? 1 : 0)),
    scaled: Uint8Array.from(scaledFlags),
    mixes: specs.map((spec) => spec.functions.map((fn) => !isStepped(fn))),
  };
}

/** Whether an output carries light: a Dimmer, what a Dimmer scales, or what masters scale for want of one. */
export const carriesLight = ({ intensity, scaled }: Rig, { param, dimmer }: Output): boolean =>
  intensity[param] === 1 || scaled[param] === 1 || dimmer >= 0;

function outputsOf(
  show: Show,
  fixture: Fixture,
  index: ReadonlyMap<ParamKey, number>,
  universes: readonly number[],
): Output[] {
  const { mode, specs } = modelOf(show, fixture);
  const param = (cell: number, head: string) => index.get(paramKey(fixture.id, cell, head)) ?? -1;
  const virtual = (cell: number) => specs.some((s) => s.virtual && s.cell === cell);
  const layout = layoutOf(mode);
  const curve = bendOf(fixture.curve);
  const bent = bendOf(fixture.curve, fixture.preheat);
  const out = fixture.outOfService === true;
  return fixture.addresses.flatMap((address) => {
    const span = spanOf(mode, fixture.addresses, address);
    const start = universes.indexOf(address.universe) * 512 + address.slot - 1 - span.from;
    return mode.channels.flatMap((channel, place): Output | [] => {
      const first = layout[place]![0]! - span.from;
      if (first < 0 || first >= span.size) return [];
      const head = channel.functions[0]!.attribute;
      const at = layout[place]!.map((slot) => start + slot);
      const dims = isEmitter(head) || (head === "Dimmer" && channel.cell > 0);
      const source = fixture.swap && head === "Pan" ? "Tilt" : fixture.swap && head === "Tilt" ? "Pan" : head;
      const swapped = param(channel.cell, source);
      const scaled = takesScale(specs, head, channel.cell);
      return {
        param: swapped >= 0 ? swapped : param(channel.cell, head),
        functions: channel.functions,
        bytes: channel.bytes,
        offset: at[0]!,
        at,
        add: head === "Pan" ? fixture.correct.pan : head === "Tilt" ? fixture.correct.tilt : 0,
        invert: (head === "Pan" && fixture.invertPan) || (head === "Tilt" && fixture.invertTilt),
        scale: scaled ? (out ? 0 : fixture.scale / 100) : 1,
        bend: scaled && head === "Dimmer" && !out ? bent : null,
        dimmerBend: scaled && isEmitter(head) && virtual(0) && !out ? curve : null,
        demands: demandsOn(mode, place, param),
        dimmer: dims && virtual(0) ? param(0, "Dimmer") : -1,
        cellDimmer: dims && head !== "Dimmer" && channel.cell > 0 ? param(channel.cell, "Dimmer") : -1,
      };
    });
  });
}

const NO_DEMANDS: Output["demands"] = [];

/** Who asks a channel to stand somewhere: what it is the mode master of. A channel's first range asks for nothing, so that its default leaves the master free. */
function demandsOn(mode: Mode, place: number, param: (cell: number, head: string) => number): Output["demands"] {
  if (!mastersIn(mode).has(place)) return NO_DEMANDS;
  const asks = (fn: ChannelFunction, k: number): Range[] | null => {
    const { dmxFrom, dmxTo, from, to } = fn;
    const apart = fn.ranges ?? fn.steps?.map((step) => ({ ...step, from: step.value, to: step.value }));
    const ranges = (apart ?? [{ name: "", dmxFrom, dmxTo, from, to }]).map((range: Range, i): Range => {
      const master = k + i > 0 && range.master ? range.master : k > 0 ? fn.master : undefined;
      return { ...range, master: master?.channel === place ? master : undefined };
    });
    return ranges.some((range) => range.master) ? ranges : null;
  };
  const demands = mode.channels.flatMap((c) => {
    const made = c.functions.map(asks);
    return made.some(Boolean) ? [{ param: param(c.cell, c.functions[0]!.attribute), asks: made }] : [];
  });
  return demands;
}

/** The proportional scale works once: on the fixture's Dimmer, or on what its virtual dimmer scales. */
function takesScale(specs: readonly ParameterSpec[], head: string, cell: number): boolean {
  const fixtureDimmer = specs.find((s) => s.cell === 0 && s.head === "Dimmer");
  if (fixtureDimmer && !fixtureDimmer.virtual) return head === "Dimmer" && cell === 0;
  const cellDimmers = specs.some((s) => s.cell > 0 && s.head === "Dimmer" && !s.virtual);
  return cellDimmers ? head === "Dimmer" : isEmitter(head);
}
