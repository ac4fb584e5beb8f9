/** What hands lay over the lists: held values, highlight, park; and what limiters leave. */
import { allTargets } from "../../show/model";
import { attributeInfo, isEmitter } from "../../fixture/attribute";
import { openState } from "../../fixture/parameters";
import { askingOf, resolveEntry } from "../../program/resolve";
import { splitItem, splitKey } from "../../show/ids";
import type { Hands } from "../../show/hands";
import { isFrom } from "../../show/effectSchema";
import { isStop, type Effect, type Entry } from "../../show/value";
import { HUSHES, NONE, playHeld, PLAYS } from "./heldEffects";
import { playingOf } from "./playing";
import { rawAt } from "./glide";
import { beginReach, COMES, GOES, HERE } from "../lists/reach";
import { cuesOf, listsByNumber } from "../../show/world";
import { kindOf } from "../lists/kinds/kinds";
import type { Player } from "../state";
import type { Rig } from "./rig";
import { touch, touchAll, type Overlay, type Stage } from "./stage";

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

/** Takes all that is held, and leaves alone what comes or goes. */
function fillHeld({ stage, rig, world, now }: Player): void {
  const { held, reach } = stage;
  for (let p = 0; p < rig.size; p++) {
    if (held.on[p] === 0 || reach.way[p] === GOES) continue;
    held.on[p] = 0;
    touch(stage, p);
  }
  for (let p = 0; p < rig.size; p++)
    if (stage.heldEffects.way[p] !== NONE && !world.hands.held[rig.keys[p]!]?.effect && reach.way[p] !== GOES) {
      stage.heldEffects.way[p] = NONE;
      touch(stage, p);
    }
  for (const [key, entry] of Object.entries(world.hands.held)) {
    const p = rig.index.get(key);
    if (p === undefined) continue;
    const plays = holdEffect({ stage, rig, world, now }, p, entry);
    const resolved = resolveEntry(world.show, key, rig.specs[p]!, entry);
    if ((plays || resolved) && reach.way[p] === GOES) reach.way[p] = HERE;
    if (!resolved) continue;
    held.on[p] = 1;
    held.value[p] = resolved.value;
    held.fn[p] = resolved.fn;
    touch(stage, p);
  }
  for (let p = 0; p < rig.size; p++) if (held.on[p] === 0 && stage.heldEffects.way[p] === NONE) reach.way[p] = HERE;
}

/** What is held of an effect; one of the same effect that plays on the fixture lends its cycles. Returns whether one plays or is stopped. */
function holdEffect(
  { stage, rig, world, now }: Pick<Player, "stage" | "rig" | "world" | "now">,
  p: number,
  entry: Entry | undefined,
): boolean {
  const { heldEffects } = stage;
  const effect = entry?.effect;
  const made = entry && playingOf(world.show, rig.keys[p]!, rig.specs[p]!, rig.mixes[p]!, entry);
  if (made) playHeld(heldEffects, p, made, now, sibling(stage, rig, p, made.effect));
  else heldEffects.way[p] = effect !== undefined && isStop(effect) ? HUSHES : NONE;
  touch(stage, p);
  return heldEffects.way[p] !== NONE;
}

/** A parameter of the fixture that plays another voice of the same effect; itself where none does. */
function sibling({ heldEffects }: Stage, { owner }: Rig, p: number, effect: Effect): number {
  if (heldEffects.way[p] === PLAYS || isStop(effect) || !isFrom(effect)) return p;
  for (const step of [-1, 1])
    for (let q = p + step; owner[q] === owner[p]; q += step) {
      const other = heldEffects.way[q] === PLAYS ? heldEffects.playing[q]?.effect : undefined;
      if (other && !isStop(other) && isFrom(other) && other.from === effect.from) return q;
    }
  return p;
}

/** Takes held values, blind, highlight and park from the hands. */
export function loadHands(player: Player): void {
  const { stage, world } = player;
  fillHeld(player);
  fill(player, stage.park, Object.entries(world.hands.parked));
  fill(player, stage.highlight, fullAndOpen(player));
  if (stage.blind === world.hands.blind) return;
  stage.blind = world.hands.blind;
  touchAll(stage);
}

const placesKnown = new WeakMap<Rig, WeakMap<readonly string[], Int32Array>>();

/** Where parameters are in a rig, -1 for none; for the same array of thousands it is looked up once. */
function placesIn(rig: Rig, keys: readonly string[]): Int32Array {
  let known = placesKnown.get(rig);
  if (!known) placesKnown.set(rig, (known = new WeakMap()));
  let places = known.get(keys);
  if (!places) known.set(keys, (places = Int32Array.from(keys, (key) => rig.index.get(key) ?? -1)));
  return places;
}

/**
 * Only what is held changed, and only these parameters: the quick way of a drag.
 * @param over what of them takes how long to come or to go; the rest does it at once.
 */
export function patchHeld(player: Player, keys: readonly string[], over?: Hands["over"]): void {
  const { stage, rig, world, now } = player;
  const { held, reach, heldEffects } = stage;
  const slow = new Set(over?.keys);
  const ask = askingOf(world.show);
  const places = placesIn(rig, keys);
  for (let k = 0; k < keys.length; k++) {
    const p = places[k]!;
    if (p < 0) continue;
    const key = keys[k]!;
    const entry = world.hands.held[key];
    const resolved = entry && resolveEntry(world.show, key, rig.specs[p]!, entry, ask);
    const had = held.on[p] === 1 || heldEffects.way[p] === PLAYS;
    const slowly = over && slow.has(key);
    const shown = slowly ? { value: rawAt(stage, p), fn: stage.fn[p]!, time: now } : undefined;
    touch(stage, p);
    reach.way[p] = HERE;
    if (slowly && shown) {
      if (resolved || entry?.effect) beginReach(reach, p, COMES, shown, over.seconds);
      else if (had) {
        beginReach(reach, p, GOES, shown, over.seconds);
        if (heldEffects.way[p] !== PLAYS) held.value[p] = shown.value;
        continue;
      }
    }
    holdEffect(player, p, entry);
    held.on[p] = resolved ? 1 : 0;
    held.value[p] = resolved?.value ?? 0;
    held.fn[p] = resolved?.fn ?? 0;
  }
}

/** What is highlighted or identified, as its type says, else full and open; where it points is left alone. */
function fullAndOpen({ world }: Player): [string, Entry][] {
  const { show, hands } = world;
  return [...(hands.highlight ? hands.selection : []), ...hands.identified].flatMap((item) => {
    const { fixture, cell } = splitItem(item);
    const whole =
      cell > 0 ? allTargets(show, fixture).filter((t) => t.spec.cell === 0 && t.attribute === "Dimmer") : [];
    return [...allTargets(show, item), ...whole].flatMap((t): [string, Entry][] => {
      const said = attributeInfo(t.attribute).family === "Position" ? undefined : t.spec.highlight;
      const open =
        said !== undefined
          ? said
          : t.attribute === "Dimmer" || isEmitter(t.attribute)
            ? 100
            : /^(Shutter1|ColorSub_.|Color1|Iris)$/.test(t.attribute)
              ? (openState(t.fn) ?? t.spec.default)
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

/** Held effects go on in their cycles where the rig is laid out anew. */
export function carryEffects(from: { stage: Stage; rig: Rig }, to: Player): void {
  const { heldEffects } = from.stage;
  for (let p = 0; p < from.rig.size; p++) {
    const q = heldEffects.way[p] === NONE ? undefined : to.rig.index.get(from.rig.keys[p]!);
    if (q === undefined) continue;
    const now = to.stage.heldEffects;
    now.way[q] = heldEffects.way[p]!;
    now.playing[q] = heldEffects.playing[p];
    now.from[q] = heldEffects.from[p]!;
    now.cycles[q] = heldEffects.cycles[p]!;
  }
}

/** What comes and goes goes on where the rig is laid out anew. */
export function carryReach(from: { stage: Stage; rig: Rig }, to: Player): void {
  for (let p = 0; p < from.rig.size; p++) {
    const way = from.stage.reach.way[p]!;
    const q = way === HERE ? undefined : to.rig.index.get(from.rig.keys[p]!);
    if (q === undefined) continue;
    const { reach, held } = from.stage;
    for (const name of ["way", "from", "fromFn", "at", "seconds"] as const) to.stage.reach[name][q] = reach[name][p]!;
    for (const name of ["on", "value", "fn"] as const) to.stage.held[name][q] = held[name][p]!;
    touch(to.stage, q);
  }
}
