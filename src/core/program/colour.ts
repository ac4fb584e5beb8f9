/** A picked colour as values of a fixture's own colour parameters (SEMANTICS 1, "Colour"). */
import { converter } from "culori";
import { isEmitter, isFilter } from "../fixture/attribute";
import { allTargets, type Target } from "../show/model";
import type { Item, ParamKey } from "../show/ids";
import type { Show } from "../show/schema";
import type { Entry } from "../show/value";

const toXyz = converter("xyz65");

/** CIE 1976 u'v' of an sRGB colour (u' = 4X / (X + 15Y + 3Z), v' = 9Y / (X + 15Y + 3Z)). */
function uvOf(hex: string): [number, number] {
  const { x, y, z } = toXyz(hex)!;
  const sum = x + 15 * y + 3 * z;
  return sum < 1e-9 ? [0.1978, 0.4683] : [(4 * x) / sum, (9 * y) / sum];
}

const CHANNELS: Record<string, number> = {
  ColorAdd_R: 0,
  ColorAdd_G: 1,
  ColorAdd_B: 2,
  ColorSub_C: 0,
  ColorSub_M: 1,
  ColorSub_Y: 2,
};

/**
 * Values that show `#rrggbb` with the type's own primaries: channel / 255 in percent, the complement
 * on filters, other emitters 0; on a wheel alone the nearest slot in u'v'. Empty where it has no colour.
 */
export function colourValues(show: Show, item: Item, hex: string): Record<ParamKey, Entry> {
  const parts = [1, 3, 5].map((i) => (parseInt(hex.slice(i, i + 2), 16) / 255) * 100);
  const targets = allTargets(show, item);
  const mixing = targets.filter((t) => isEmitter(t.attribute) || isFilter(t.attribute));
  const chosen =
    mixing.length > 0 ? mixing.map((t): [Target, number] => [t, mixed(t.attribute, parts)]) : wheels(targets, hex);
  return Object.fromEntries(chosen.map(([t, value]) => [t.key, { attribute: t.attribute, value }]));
}

function mixed(attribute: string, parts: number[]): number {
  const channel = CHANNELS[attribute];
  if (channel === undefined) return 0;
  return isFilter(attribute) ? 100 - parts[channel]! : parts[channel]!;
}

function wheels(targets: Target[], hex: string): [Target, number][] {
  const [u, v] = uvOf(hex);
  return targets.flatMap((t): [Target, number][] => {
    const slots = t.attribute === "Color1" ? (t.fn.steps ?? []).filter((s) => s.colour) : [];
    const distance = (colour: string) => Math.hypot(uvOf(colour)[0] - u, uvOf(colour)[1] - v);
    const best = slots.reduce<(typeof slots)[number] | undefined>(
      (a, b) => (a && distance(a.colour!) <= distance(b.colour!) ? a : b),
      undefined,
    );
    return best ? [[t, best.value]] : [];
  });
}
