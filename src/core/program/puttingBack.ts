/** What ends a trial, or a pad that was held: the programmer as it was before. */
import type { Hands } from "../show/hands";
import type { Intent } from "../show/change/intent";
import { namesIn } from "../units/names";
import { drop, hold, keepOut } from "./intents";

type Kept = Pick<Hands, "held" | "keptOut">;

/**
 * The intents that bring back what was held before, where what was put there meanwhile is still held; what somebody has
 * changed since stays. @param during just after it began.
 */
export function puttingBack(before: Kept, during: Pick<Hands, "held">, now: Pick<Hands, "held">): Intent[] {
  const put = namesIn(during.held).filter(
    (key) => during.held[key] !== before.held[key] && now.held[key] === during.held[key],
  );
  const old = put.filter((key) => before.held[key]);
  const out = old.filter((key) => before.keptOut[key]);
  return [
    ...(put.length > 0 ? [drop.of({ keys: put })] : []),
    ...(old.length > 0 ? [hold.of({ values: Object.fromEntries(old.map((key) => [key, before.held[key]!])) })] : []),
    ...(out.length > 0 ? [keepOut.of({ keys: out, out: true })] : []),
  ];
}
