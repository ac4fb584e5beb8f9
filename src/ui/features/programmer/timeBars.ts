/** Own times of what is held, for each of the selected. */
import { attributeInfo, type Family } from "@/core/fixture/attribute";
import { allTargets } from "@/core/show/model";
import type { Item } from "@/core/show/ids";
import type { World } from "@/core/show/world";

export interface TimeBar {
  item: Item;
  /** Seconds; 0 where it has none of its own. */
  delay: number;
  /** Seconds; undefined where the cue's holds. */
  fade: number | undefined;
  /** Whether anything of it has own timing. */
  own: boolean;
}

const MOST = 200;

/** The longest own times of a family, of each selected item that has something of it held. */
export function timeBars({ show, hands }: World, family: Family): TimeBar[] {
  return hands.selection.slice(0, MOST).flatMap((item): TimeBar[] => {
    const entries = allTargets(show, item).flatMap((t) => {
      const entry = hands.held[t.key];
      return entry && attributeInfo(entry.attribute).family === family ? [entry] : [];
    });
    if (entries.length === 0) return [];
    const fades = entries.flatMap((e) => e.time?.fade ?? []);
    return [
      {
        item,
        delay: Math.max(0, ...entries.map((e) => e.time?.delay ?? 0)),
        fade: fades.length > 0 ? Math.max(...fades) : undefined,
        own: entries.some((e) => e.time),
      },
    ];
  });
}
