/** Fixtures and cells as people write them. */
import type { Item } from "./ids";
import { itemText } from "./model";
import type { World } from "./world";

/** Items as a short text: "1 thru 5, 8". */
export function itemsText(world: World, items: readonly Item[]): string {
  if (items.length === 0) return "nothing";
  const texts = items.map((i) => itemText(world.show, i));
  const parts: string[] = [];
  for (let i = 0; i < texts.length;) {
    let end = i;
    while (end + 1 < texts.length && !texts[end]!.includes(".") && Number(texts[end + 1]) === Number(texts[end]) + 1)
      end += 1;
    parts.push(end - i >= 2 ? `${texts[i]} thru ${texts[end]}` : texts.slice(i, end + 1).join(", "));
    i = end + 1;
  }
  return parts.length > 6 ? `${parts.slice(0, 5).join(", ")} and more (${items.length})` : parts.join(", ");
}
