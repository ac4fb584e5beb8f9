/** Parts of lines of the command language, as an intent's own line writes them. */
import type { Item } from "../ids";
import { itemText } from "../model";
import type { Show } from "../schema";
import type { World } from "../world";

/** A name in quotes, a quote inside doubled. */
export const quote = (text: string): string => `"${text.replaceAll('"', '""')}"`;

const PLAIN = new Intl.NumberFormat("en", { useGrouping: false, maximumFractionDigits: 20 });

/** A number to its last digit, without an exponent. */
export function exact(value: number): string {
  const text = String(value);
  return text.includes("e") ? PLAIN.format(value) : text;
}

/** A switch as it is typed. */
export const onOff = (on: boolean): string => (on ? "on" : "off");

/** Items as a SEL, all of them and in their order: "1 thru 5 + 9 + 71.1 thru 71.12"; "none" where there are none. */
export function selText(show: Pick<Show, "fixtures">, items: readonly Item[]): string {
  const texts = items.map((i) => itemText(show, i));
  const numbers = new Set(Object.values(show.fixtures).map((f) => f.number));
  const parts: string[] = [];
  for (let i = 0; i < texts.length;) {
    let end = i;
    while (end + 1 < texts.length && follows(texts[end]!, texts[end + 1]!, numbers)) end += 1;
    parts.push(...(end - i >= 2 ? [`${texts[i]} thru ${texts[end]}`] : texts.slice(i, end + 1)));
    i = end + 1;
  }
  return parts.join(" + ") || "none";
}

/** Whether a range from one to the other has nothing between: the next cell, or the next fixture there is. */
function follows(text: string, next: string, numbers: ReadonlySet<number>): boolean {
  const [fixture, cell] = text.split(".").map(Number) as [number, number?];
  const [nextFixture, nextCell] = next.split(".").map(Number) as [number, number?];
  if (cell !== undefined) return nextFixture === fixture && nextCell === cell + 1;
  if (nextCell !== undefined || nextFixture <= fixture || nextFixture - fixture > MOST_GAP) return false;
  for (let between = fixture + 1; between < nextFixture; between++) if (numbers.has(between)) return false;
  return true;
}
const MOST_GAP = 1000;

/** A list as it is typed: "list 1". */
export const listText = ({ show }: World, list: string): string => `list ${show.lists[list]?.number ?? "?"}`;
/** A cue as it is typed: "list 1 cue 4.5". */
export const cueText = (world: World, list: string, cue: string): string =>
  `${listText(world, list)} cue ${exact(world.show.lists[list]?.cues[cue]?.number ?? 0)}`;

/** What no line can say, told as a comment: it does nothing when it is read. */
export const unsaid = (words: string): string => `// ${words.replace(/\s+/g, " ")}`;
