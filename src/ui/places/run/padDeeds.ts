/** What pads of palettes and effects do to what is held: begin it, end it, or hold it only while they are pressed. */
import { palette as applyPalette } from "@/core/command/building";
import { effectCalled, holdEffect } from "@/core/command/voices";
import { drop, hold } from "@/core/program/intents";
import type { Placed } from "@/core/show/deckSchema";
import { isFrom, isStop } from "@/core/show/effectSchema";
import type { Hands } from "@/core/show/hands";
import type { ParamKey } from "@/core/show/ids";
import type { Intent } from "@/core/show/change/intent";
import { isLink, type Entry } from "@/core/show/value";
import { namesIn } from "@/core/units/names";
import type { Session } from "@/session/state";

type Held = Hands["held"];

const gives = ({ what, id }: Placed, { value, effect }: Entry): boolean =>
  what === "palette"
    ? typeof value === "object" && isLink(value) && value.palette === id
    : what === "effect" && effect !== undefined && !isStop(effect) && isFrom(effect) && effect.from === id;

/** What is held of what a pad gives. */
export const heldOf = (placed: Placed, held: Held): ParamKey[] =>
  placed.what === "palette" || placed.what === "effect" ? namesIn(held).filter((key) => gives(placed, held[key]!)) : [];

/** What ends what a pad began: a value that is held beside an effect stays. */
export function endings(placed: Placed, held: Held): Intent[] {
  const keys = heldOf(placed, held);
  const beside = placed.what === "effect" ? keys.filter((key) => held[key]!.value !== undefined) : [];
  const values = Object.fromEntries(
    beside.map((key) => {
      const { effect: _, ...entry } = held[key]!;
      return [key, entry];
    }),
  );
  const gone = keys.filter((key) => !beside.includes(key));
  return [
    ...(keys.length > 0 ? [drop.of({ keys: beside.length > 0 ? keys : gone })] : []),
    ...(beside.length > 0 ? [hold.of({ values })] : []),
  ];
}

/** Holds what a pad gives: a palette for the selection, an effect for its own fixtures or the selection. */
export function beginPad(session: Session, placed: Placed) {
  const { show, hands } = session.store.getState().world;
  if (placed.what === "palette") return session.hold((b) => applyPalette(b, placed.id));
  const effect = show.effects[placed.id];
  if (!effect) return undefined;
  const items = effect.cast ?? hands.selection;
  return session.hold((b) => holdEffect(b, effectCalled(show, effect.number), items), false, items);
}
