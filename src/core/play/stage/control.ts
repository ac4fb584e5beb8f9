/** Control actions: a channel of the type stands at a value for the time the fixture needs, over everything. */
import type { Action } from "../../fixture/type";
import { functionOf } from "../../fixture/parameters";
import { paramKey, type Id } from "../../show/ids";
import { modelOf } from "../../show/model";
import { refuse, type Refusal } from "../../show/refusal";
import { touch } from "./stage";
import type { Player } from "../state";

/** @returns a refusal where none of the fixtures has that action. */
export function control(
  { world: { show }, rig, stage, now }: Player,
  fixtures: readonly Id[],
  does: Action["does"],
): Refusal | undefined {
  let found = 0;
  for (const id of fixtures) {
    const fixture = show.fixtures[id];
    const action = fixture && modelOf(show, fixture).mode.actions?.find((a) => a.does === does);
    if (!fixture || !action) continue;
    const spec = modelOf(show, fixture).specs.find((s) => functionOf(s, action.attribute));
    const p = spec && rig.index.get(paramKey(id, spec.cell, spec.head));
    if (!spec || p === undefined) continue;
    stage.action.on[p] = 1;
    stage.action.value[p] = action.value;
    stage.action.fn[p] = spec.functions.findIndex((f) => f.attribute === action.attribute);
    stage.actionUntil[p] = now + action.seconds;
    touch(stage, p);
    found += 1;
  }
  return found > 0
    ? undefined
    : refuse(`none of these fixtures has "${does}"`, "Look at what their type can do in the library");
}
