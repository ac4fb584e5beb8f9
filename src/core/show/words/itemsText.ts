/** Fixtures and cells as people write them. */
import { splitItem, type Item } from "../ids";
import { itemText } from "../model";
import type { World } from "../world";

/** Ranges in a short text. */
const MOST_PARTS = 6;

/** Items as a short text: "1 thru 5, 8". */
export function itemsText(world: World, items: readonly Item[]): string {
  if (items.length === 0) return "nothing";
  const { show } = world;
  const numberAt = (i: number): number => {
    const { fixture, cell } = splitItem(items[i]!);
    return cell > 0 ? NaN : (show.fixtures[fixture]?.number ?? NaN);
  };
  const parts: string[] = [];
  // Of thousands only those are looked at that are told.
  for (let i = 0; i < items.length && parts.length < MOST_PARTS + 1;) {
    let end = i;
    for (let number = numberAt(i); end + 1 < items.length && numberAt(end + 1) === number + 1; number += 1) end += 1;
    const text = (k: number) => itemText(show, items[k]!);
    parts.push(end - i >= 2 ? `${text(i)} thru ${text(end)}` : end > i ? `${text(i)}, ${text(end)}` : text(i));
    i = end + 1;
  }
  return parts.length > MOST_PARTS
    ? `${parts.slice(0, MOST_PARTS - 1).join(", ")} and more (${items.length})`
    : parts.join(", ");
}
