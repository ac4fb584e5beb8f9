/** What hands lay over the lists: held values, highlight, park; and what limiters leave. */
import { allTargets } from "../show/model";
import { isEmitter } from "../fixture/attribute";
import { resolveEntry } from "../program/resolve";
import { splitItem, splitKey } from "../show/ids";
import type { Entry } from "../show/value";
import { cuesOf, listsByNumber } from "../show/world";
import { kindOf } from "./kinds/kinds";
import type { Player } from "./state";
import { touch, touchAll, type Overlay } from "./stage";

function fill({ stage, rig, world }: Player, over: Overlay, values: Iterable<[string, Entry]>): void {
  for (let p = 0; p < rig.size; p++) {
    if (over.on[p] === 0) continue;
    over.on[p] = 0;
    touch(stage, p);
  }
  for (const [key, entry] of values) {
    const p = rig.index.get(key);
    const resolved = p === undefined ? undefined : resolveEntry(world.show, key, rig.specs[p]!, entry);
    if (p === undefined || !resolved) continue;
    over.on[p] = 1;
    over.value[p] = resolved.value;
    over.fn[p] = resolved.fn;
    touch(stage, p);
  }
}

/** Takes held values, blind, highlight and park from the hands. */
export function loadHands(player: Player): void {
  const { stage, world } = player;
  fill(player, stage.held, Object.entries(world.hands.held));
  fill(player, stage.park, Object.entries(world.hands.parked));
  fill(player, stage.highlight, world.hands.highlight ? fullAndOpen(player) : []);
  if (stage.blind === world.hands.blind) return;
  stage.blind = world.hands.blind;
  touchAll(stage);
}

/** Only what is held changed, and only these parameters: the quick way of a drag. */
export function patchHeld({ stage, rig, world }: Player, keys: Iterable<string>): void {
  for (const key of keys) {
    const p = rig.index.get(key);
    if (p === undefined) continue;
    const entry = world.hands.held[key];
    const resolved = entry && resolveEntry(world.show, key, rig.specs[p]!, entry);
    stage.held.on[p] = resolved ? 1 : 0;
    stage.held.value[p] = resolved?.value ?? 0;
    stage.held.fn[p] = resolved?.fn ?? 0;
    touch(stage, p);
  }
}

/** The selection full and open; where it points is left alone. */
function fullAndOpen({ world }: Player): [string, Entry][] {
  const { show, hands } = world;
  return hands.selection.flatMap((item) => {
    const { fixture, cell } = splitItem(item);
    const whole =
      cell > 0 ? allTargets(show, fixture).filter((t) => t.spec.cell === 0 && t.attribute === "Dimmer") : [];
    return [...allTargets(show, item), ...whole].flatMap((t): [string, Entry][] => {
      const open =
        t.attribute === "Dimmer" || isEmitter(t.attribute)
          ? 100
          : /^(Shutter1|ColorSub_.|Color1|Iris)$/.test(t.attribute)
            ? t.spec.default
            : undefined;
      return open === undefined ? [] : [[t.key, { attribute: t.attribute, value: open }]];
    });
  });
}

/** What each limiter's level leaves: of the fixtures it holds, or of their cells alone where it holds only those. */
export function loadLimits(player: Player): void {
  const { stage, rig, world } = player;
  stage.limit.fill(1);
  for (const list of listsByNumber(world.show)) {
    if (!kindOf(list).limits) continue;
    const level = stage.listLevel[player.runs.get(list.id)!.slot]!;
    const whole = new Set<string>();
    const cells = new Set<string>();
    for (const { fixture, cell } of cuesOf(list)
      .flatMap((cue) => Object.keys(cue.entries))
      .map(splitKey)) {
      if (cell === 0) whole.add(fixture);
      else cells.add(`${fixture}.${cell}`);
    }
    for (let p = 0; p < rig.size; p++) {
      const owner = rig.owner[p]!;
      const takes = whole.has(owner)
        ? rig.scaled[p] === 1
        : rig.intensity[p] === 1 && cells.has(`${owner}.${rig.specs[p]!.cell}`);
      if (takes) stage.limit[p]! *= level;
    }
  }
  for (let p = 0; p < rig.size; p++) if (rig.intensity[p] === 1 || rig.scaled[p] === 1) touch(stage, p);
}
