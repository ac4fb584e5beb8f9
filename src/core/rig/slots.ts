/** Which slot of one wheel stands for a slot of another. */
import { apart, xyOfHex } from "../colour/chromaticity";
import type { ChannelFunction, Step } from "../fixture/type";

export interface SlotFound {
  value: number;
  /** How far its colour is from the one wanted, in u'v'; 0 where it is the same by name, null where only the number was left to go by. */
  off: number | null;
}

const plain = (name: string): string => name.trim().toLowerCase();

/** Whether two functions have the same slots: their numbers, names and colours. */
export const sameSlots = (a: ChannelFunction, b: ChannelFunction): boolean =>
  (a.steps?.length ?? 0) === (b.steps?.length ?? 0) &&
  (a.steps ?? []).every((step, k) => {
    const other = b.steps![k]!;
    return step.value === other.value && plain(step.name) === plain(other.name) && step.colour === other.colour;
  });

/** The slot by its name, else the nearest by colour; undefined where neither says anything. */
export function nearestSlot(from: ChannelFunction, to: ChannelFunction, value: number): SlotFound | undefined {
  const slot = from.steps?.find((s) => s.value === Math.round(value));
  const steps = to.steps ?? [];
  if (!slot || steps.length === 0) return undefined;
  const named = steps.find((s) => plain(s.name) === plain(slot.name));
  if (named) return { value: named.value, off: 0 };
  if (!slot.colour) return undefined;
  const wanted = xyOfHex(slot.colour);
  const off = (s: Step) => apart(xyOfHex(s.colour!), wanted);
  const best = steps.filter((s) => s.colour).sort((a, b) => off(a) - off(b))[0];
  return best && { value: best.value, off: off(best) };
}
