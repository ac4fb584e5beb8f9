/** Reading the stage: values, and where they come from. */
import { givesLight, isLitBy } from "../../program/light";
import { modelOf, targetsOf } from "../../show/model";
import { paramKey, type Item, type ParamKey } from "../../show/ids";
import { rawAt } from "./glide";
import { cueOfLayer } from "./layers";
import type { Player } from "../state";
import { FROM_DEFAULT, FROM_PROGRAMMER } from "./stage";

/** Value before masters and its attribute. */
export function stageBeforeMasters(player: Player, key: ParamKey): { value: number; attribute: string } | undefined {
  const p = player.rig.index.get(key);
  if (p === undefined) return undefined;
  return { value: rawAt(player.stage, p), attribute: player.rig.specs[p]!.functions[player.stage.fn[p]!]!.attribute };
}

/** Value after masters and its attribute. */
export function stageSeen(player: Player, key: ParamKey): { value: number; attribute: string } | undefined {
  const before = stageBeforeMasters(player, key);
  return before && { ...before, value: player.stage.value[player.rig.index.get(key)!]! };
}

/** Stage values of an attribute of an item, after masters: one, or one for each cell. An attribute whose channel does something else gives 0. */
export function stageValues(player: Player, item: Item, attribute: string): number[] {
  return targetsOf(player.world.show, item, attribute).map((target) => {
    const p = player.rig.index.get(target.key)!;
    return player.rig.specs[p]!.functions[player.stage.fn[p]!]!.attribute === attribute ? player.stage.value[p]! : 0;
  });
}

export type Source = { kind: "default" } | { kind: "programmer" } | { kind: "list"; list: string; cue: string };

/** Where the stage value of a parameter comes from. @param param its place in the rig. */
export function sourceOf(player: Player, param: number): Source {
  const source = player.stage.source[param]!;
  if (source === FROM_DEFAULT) return { kind: "default" };
  if (source === FROM_PROGRAMMER) return { kind: "programmer" };
  const slot = player.layers.list[source]!;
  const list = [...player.runs.values()].find((run) => run.slot === slot);
  return { kind: "list", list: list?.id ?? "", cue: cueOfLayer(player.layers, source) };
}

/** Whether a fixture gives light, judged before masters, blackout and limiters (SEMANTICS 9). */
export function isLit({ rig, stage, world: { show } }: Player, fixture: string): boolean {
  const found = show.fixtures[fixture];
  if (!found || !givesLight(show, found)) return false;
  const { specs } = modelOf(show, found);
  return isLitBy(specs, (k) => rawAt(stage, rig.index.get(paramKey(fixture, specs[k]!.cell, specs[k]!.head))!) > 0);
}
