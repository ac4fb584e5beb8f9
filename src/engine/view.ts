/** The stage as it is published, for whoever draws it or reads lines against it. */
import { askedOf } from "@/core/program/asking";
import type { ReadContext } from "@/core/command/context";
import { givesLight, isLitBy } from "@/core/program/light";
import { paramKey, type ParamIndex } from "@/core/show/ids";
import { modelOf } from "@/core/show/model";
import type { World } from "@/core/show/world";
import { wholeHalf, type Frame, type Half } from "./frame";
import { functionsOf, indexOf, type Layout } from "./layout";

/** What the engine shows now. */
export interface StageView {
  layout: Layout;
  frame: Frame;
  index: ParamIndex;
}

/** A view whose index is made when it is first asked for: while a rig grows, layouts come and go. */
export const viewOf = (layout: Layout, frame: Frame): StageView => ({
  layout,
  frame,
  get index() {
    return indexOf(layout);
  },
});

export const halfOf = (view: StageView): Half => wholeHalf(view.frame);

/** What lines are read against: the world, and the stage where there is one. */
export function readContextOf(world: World, view: StageView | undefined): ReadContext {
  const half = view && halfOf(view);
  const stage: ReadContext["stage"] = (key) => {
    const p = view?.index.get(key);
    return p === undefined
      ? undefined
      : { value: half!.raw[p]!, attribute: functionsOf(view!.layout)[p]![half!.fn[p]!]! };
  };
  return {
    world,
    stage,
    ...askedOf(world, stage),
    seen(key) {
      const p = view?.index.get(key);
      return p === undefined
        ? undefined
        : { value: half!.value[p]!, attribute: functionsOf(view!.layout)[p]![half!.fn[p]!]! };
    },
    isLit(id) {
      const fixture = world.show.fixtures[id];
      if (!view || !fixture || !givesLight(world.show, fixture)) return false;
      const { specs } = modelOf(world.show, fixture);
      return isLitBy(specs, (k) => {
        const p = view.index.get(paramKey(id, specs[k]!.cell, specs[k]!.head));
        return p !== undefined && half!.raw[p]! > 0;
      });
    },
  };
}
