/** What the tiles of the shelf show: what each palette would do to the selection. */
import type { PALETTE_TABS } from "@/ui/base/preferences/registry";
import { familiesOf } from "@/core/palette/families";
import { askerOf } from "@/core/palette/lookup";
import type { Item, ParamKey } from "@/core/show/ids";
import { linksIn } from "@/core/show/checking/links";
import { own } from "@/core/show/hasOwn";
import { allTargets } from "@/core/show/model";
import type { Palette } from "@/core/show/paletteSchema";
import type { Show } from "@/core/show/schema";
import { isLink } from "@/core/show/value";
import { palettesByNumber, type World } from "@/core/show/world";

export type Tab = (typeof PALETTE_TABS)[number];

/** The tab a palette lies on: its family, or Mixed where it has several. */
export function tabOf(palette: Palette): Tab {
  const own = familiesOf(palette);
  if (own.length !== 1) return "Mixed";
  return own[0] === "Shapers" ? "Beam" : (own[0] as Tab);
}

/** The palettes of a tab, by number; in all tabs where something is searched for. */
export function palettesOn(show: Show, tab: Tab, search: string): Palette[] {
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  const all = palettesByNumber(show);
  if (words.length > 0) return all.filter((p) => words.every((w) => `${p.number} ${p.name}`.toLowerCase().includes(w)));
  return inOrder(all.filter((p) => !p.offShelf && tabOf(p) === tab));
}

/** Those of a tab that have no tile. */
export const offShelf = (show: Show, tab: Tab): Palette[] =>
  palettesByNumber(show).filter((p) => p.offShelf && tabOf(p) === tab);

/** As hands have put them; what came since lies behind, by number. */
const inOrder = (palettes: readonly Palette[]): Palette[] =>
  [...palettes].sort((a, b) => (a.shelf ?? Infinity) - (b.shelf ?? Infinity) || a.number - b.number);

export interface TileState {
  /** How many of the selected fixtures it has something for. */
  has: number;
  of: number;
  /** All the selected it has something for hold it. */
  stands: boolean;
}

const MOST_ASKED = 400;

/** For how many of the items a palette has something, and which parameters that is. */
export interface Reach {
  has: number;
  of: number;
  keys: readonly ParamKey[];
}

export function reachOf(show: Show, selection: readonly Item[], palette: Palette): Reach {
  const items = selection.slice(0, MOST_ASKED);
  const saidOf = askerOf(show, palette.id);
  const keys: ParamKey[] = [];
  let has = 0;
  for (const i of items) {
    const before = keys.length;
    for (const { key, spec } of allTargets(show, i)) if (saidOf(key, spec)) keys.push(key);
    if (keys.length > before) has += 1;
  }
  return { has, of: items.length, keys };
}

/** How a palette stands to what is held. */
export function stateOf(held: World["hands"]["held"], palette: Palette, { has, of, keys }: Reach): TileState {
  const links = linksIn(held).get(palette.id) ?? 0;
  const stands =
    has > 0 &&
    links >= keys.length &&
    keys.every((key) => {
      const value = own(held, key)?.value;
      return typeof value === "object" && isLink(value) && value.palette === palette.id;
    });
  return { has, of, stands };
}

/** A short word on the selected items a palette leaves out. */
export const lacksText = ({ has, of }: TileState): string =>
  of === 0 || has === of ? "" : has === 0 ? "nothing for these" : `${has} of ${of}`;
