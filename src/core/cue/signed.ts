/** Signed-off looks: what designer and programmer agreed on, kept as it was, and what differs from it now (SEMANTICS 12). */
import { voiceOf } from "../effect/voices";
import { saidBy } from "../palette/lookup";
import { isLitBy } from "../program/light";
import { aimOfFixture, resolveEntry, type Resolving } from "../program/resolve";
import type { Id, ParamKey } from "../show/ids";
import { isStop } from "../show/effectSchema";
import { namedByVoice } from "../show/checking/links";
import { modelOf } from "../show/model";
import type { Cue, CueList, Fixture, Show, SignedValue } from "../show/schema";
import { isAim, STOP, type Effect, type Entry } from "../show/value";
import { cuesOf } from "../show/world";
import { effectAt } from "./effects";
import { partsOf } from "./looks";
import { hashOf } from "../units/hash";
import { inForceAt, trackingOf, type Tracking } from "./tracking";

type Living = Resolving & Pick<Show, "types" | "fixtures">;
export type SignedLook = NonNullable<Cue["signed"]>;

const SAME = 0.01;

/** What tells an effect from another wherever it is opened: its voice, the item's turn, what its palettes and waves say. */
function playsText(show: Living, key: ParamKey, effect: Effect): string {
  const sounded = voiceOf(show, effect);
  if (!sounded) return "";
  const { voice, speed } = sounded;
  const named = namedByVoice(voice).map((id) => show.waves[id] ?? saidBy(show, id, key) ?? null);
  return hashOf(JSON.stringify([voice, speed, isStop(effect) ? 0 : [effect.at, effect.of], named])).toString(36);
}

/** Where an entry points, where the fixture can reach it. */
function aimedAt(show: Living, fixture: Fixture, key: ParamKey, entry: Entry | undefined): SignedValue["aim"] {
  const { value } = entry ?? {};
  if (typeof value !== "object") return undefined;
  const said = "palette" in value ? saidBy(show, value.palette, key)?.value : value;
  if (typeof said !== "object" || !isAim(said)) return undefined;
  const reached = aimOfFixture(show, fixture, said);
  return reached && reached.off < SAME ? [...said.aim] : undefined;
}

/** One fixture in a look: undefined while it is dark. */
function seenOf(
  show: Living,
  fixture: Fixture,
  tracking: Tracking,
  at: number,
): Record<ParamKey, SignedValue> | undefined {
  const parts = partsOf(show, fixture);
  const seen: Record<ParamKey, SignedValue> = {};
  const shines = parts.map(({ key, spec }) => {
    const entry = inForceAt(tracking, key, at)?.entry;
    const resolved = (entry && resolveEntry(show, key, spec, entry)) ?? { value: spec.default, fn: 0 };
    const playing = effectAt(show, tracking, key, at);
    const effect = playing && !playing.hushed ? playing.entry.effect : undefined;
    const aim = aimedAt(show, fixture, key, entry);
    seen[key] = {
      attribute: spec.functions[resolved.fn]!.attribute,
      value: resolved.value,
      ...(aim ? { aim } : {}),
      ...(effect ? { effect, plays: playsText(show, key, effect) } : {}),
    };
    return resolved.value > 0 || effect !== undefined;
  });
  return isLitBy(modelOf(show, fixture).specs, (k) => shines[k]!) ? seen : undefined;
}

/** The look of the cue at a place, as it is signed off. */
export function lookToSign(show: Living, list: CueList, at: number): SignedLook {
  const tracking = trackingOf(list, show);
  return Object.fromEntries(
    Object.values(show.fixtures).flatMap((fixture) => {
      const seen = seenOf(show, fixture, tracking, at);
      return seen ? [[fixture.id, seen]] : [];
    }),
  );
}

export interface Other {
  fixture: Id;
  /** Why: it is dark and was lit, lit and was dark, or these parameters differ. */
  how: "dark" | "lit" | "values";
  keys: readonly ParamKey[];
  /** Those under an effect now that were under none. */
  stops: readonly ParamKey[];
}

/** Whether a parameter of two looks is the same. */
export const isSame = (a: SignedValue, b: SignedValue): boolean =>
  a.plays === b.plays &&
  ((a.aim !== undefined && b.aim !== undefined && a.aim.every((v, i) => v === b.aim![i])) ||
    (a.attribute === b.attribute && Math.abs(a.value - b.value) <= SAME));

/** What of a signed look is otherwise now; fixtures that are gone are left out. */
export function othersIn(show: Living, list: CueList, at: number, signed: SignedLook): Other[] {
  const tracking = trackingOf(list, show);
  return Object.values(show.fixtures).flatMap((fixture): Other[] => {
    const was = signed[fixture.id];
    const is = seenOf(show, fixture, tracking, at);
    if (!was && !is) return [];
    if (!was) return [{ fixture: fixture.id, how: "lit", keys: [], stops: [] }];
    if (!is) {
      const stops = Object.keys(was).filter(
        (key) => was[key]!.plays === undefined && effectAt(show, tracking, key, at) !== undefined,
      );
      return [{ fixture: fixture.id, how: "dark", keys: [], stops }];
    }
    const keys = Object.keys(was).filter((key) => !is[key] || !isSame(was[key]!, is[key]));
    const stops = keys.filter((key) => is[key]?.plays !== undefined && was[key]!.plays === undefined);
    return keys.length > 0 ? [{ fixture: fixture.id, how: "values", keys, stops }] : [];
  });
}

/** The entries that give a cue its signed look again: hard values, for what differs. */
export function signedEntries(signed: SignedLook, others: readonly Other[]): Record<ParamKey, Entry> {
  const entries: Record<ParamKey, Entry> = {};
  for (const { fixture, how, keys, stops } of others) {
    const was = signed[fixture];
    if (how === "lit" || !was) {
      entries[`${fixture}.0.Dimmer`] = { attribute: "Dimmer", value: 0 };
      continue;
    }
    for (const key of how === "dark" ? Object.keys(was) : keys) {
      const { attribute, value, aim, effect } = was[key]!;
      entries[key] = {
        attribute,
        value: aim ? { aim: [...aim] } : value,
        ...(effect ? { effect } : stops.includes(key) ? { effect: STOP } : {}),
      };
    }
  }
  return entries;
}

/** Signed cues of a show whose look differs from what was signed. */
export function* brokenLooks(show: Show): Generator<{ list: CueList; cue: Cue; others: Other[] }> {
  for (const list of Object.values(show.lists))
    for (const [at, cue] of cuesOf(list).entries()) {
      if (!cue.signed) continue;
      const others = othersIn(show, list, at, cue.signed);
      if (others.length > 0) yield { list, cue, others };
    }
}
