/** Layers by attribute: as they are kept where the present mode of a fixture has no parameter for them, and as they are saved. */
import { modelOf } from "../../show/model";
import { rangeOf } from "../../fixture/parameters";
import { keyFor } from "../../patch/remap";
import { splitKey, type ParamKey } from "../../show/ids";
import type { Show } from "../../show/schema";
import { clamp } from "../../units/units";
import { addLayer, cueOfLayer, isEffect, readFade, type Fade, type Layers } from "./layers";
import type { Playing } from "./playing";
import type { Rig } from "./rig";

export interface SilentLayer {
  key: ParamKey;
  /** Slot of the list. */
  list: number;
  priority: number;
  stamp: number;
  cue: string;
  own: Fade;
  weight: Fade;
  from: string;
  to: string;
  role: number;
  scaled: boolean;
}

/** A layer put aside, with what it plays where it is an effect. */
export interface KeptLayer extends SilentLayer {
  plays?: Playing;
}

/** A layer with its attributes by name. */
export function readLayer(layers: Layers, { keys, specs }: Rig, at: number): SilentLayer {
  const param = layers.param[at]!;
  const { functions } = specs[param]!;
  return {
    key: keys[param]!,
    list: layers.list[at]!,
    priority: layers.priority[at]!,
    stamp: layers.stamp[at]!,
    cue: cueOfLayer(layers, at),
    own: readFade(layers, at, "own"),
    weight: readFade(layers, at, "weight"),
    role: layers.role[at]!,
    scaled: layers.scaled[at] === 1,
    from: functions[layers.fromFn[at]!]!.attribute,
    to: functions[layers.toFn[at]!]!.attribute,
  };
}

/** Puts a layer on the parameter that carries its attribute now. Returns false where none does. */
export function putLayer(layers: Layers, rig: Rig, show: Show, layer: SilentLayer): boolean {
  const { fixture } = splitKey(layer.key);
  const owner = show.fixtures[fixture];
  const key = owner && keyFor(modelOf(show, owner).specs, layer.key, layer.to);
  const param = key === undefined ? undefined : rig.index.get(key);
  if (param === undefined) return false;
  const { functions } = rig.specs[param]!;
  const fn = (attribute: string) => functions.findIndex((f) => f.attribute === attribute);
  const toFn = fn(layer.to);
  const [low, high] = rangeOf(functions[toFn]!);
  addLayer(layers, {
    param,
    list: layer.list,
    priority: layer.priority,
    stamp: layer.stamp,
    cue: layer.cue,
    role: layer.role,
    scaled: layer.scaled,
    weight: layer.weight,
    own: isEffect(layer.role)
      ? layer.own
      : { ...layer.own, from: clamp(layer.own.from, low, high), to: clamp(layer.own.to, low, high) },
    toFn,
    fromFn: Math.max(0, fn(layer.from) < 0 ? toFn : fn(layer.from)),
  });
  return true;
}
