/** Swapping the type of fixtures, as an intent. */
import { current } from "immer";
import { z } from "../units/zod";
import { fixtureIds } from "../patch/intents";
import { TypeIdSchema } from "../fixture/type";
import type { Hands } from "../show/hands";
import { defineIntent } from "../show/change/intent";
import { itemsText } from "../show/words/itemsText";
import { quote, selText } from "../show/words/lineText";
import { attempt, isRefusal } from "../show/refusal";
import { addressText } from "../show/address";
import { AddressSchema, type Show } from "../show/schema";
import { plain } from "../units/units";
import { swapped, type FateRow } from "./swap";

export const swapType = defineIntent({
  kind: "swapType",
  fields: {
    fixtures: fixtureIds,
    type: TypeIdSchema,
    mode: z.string().max(60).optional(),
    at: z.union([z.enum(["keep", "auto", "unpatched"]), AddressSchema]),
  },
  apply(world, request) {
    // On plain records: thousands of entries are slow through a draft.
    const made = swapped(current<Show>(world.show), current<Hands>(world.hands), request);
    // Frozen, they are not walked again in search of drafts.
    for (const part of ["types", "fixtures", "palettes", "lists"] as const)
      (world.show as Show)[part] = Object.freeze(made.show[part]) as never;
    world.hands.held = made.hands.held;
    world.hands.parked = made.hands.parked;
  },
  says({ show, hands }, request) {
    const made = attempt(() => swapped(show, hands, request));
    if (isRefusal(made)) return made.what;
    const moved = made.moved.length > 0 ? `; ${made.moved.length} of them at another address` : "";
    return `makes ${itemsText({ show, hands }, request.fixtures)} ${made.type.model} (${made.mode.name})${moved}; ${fatesText(made.rows)}`;
  },
  lines: ({ show }, { fixtures, type, mode, at }) => [
    [
      `swap type ${selText(show, fixtures)} ${quote(type)}`,
      mode !== undefined && `mode ${quote(mode)}`,
      at !== "keep" && (at === "unpatched" ? at : `at ${at === "auto" ? at : addressText(at)}`),
    ]
      .filter(Boolean)
      .join(" "),
  ],
});

/** What a table of fates says in a line. */
export function fatesText(rows: readonly FateRow[]): string {
  const of = (kind: FateRow["kind"]) => rows.filter((r) => r.kind === kind);
  const sum = (some: readonly FateRow[]) => some.reduce((n, r) => n + r.entries, 0);
  const names = (some: readonly FateRow[]) => [...new Set(some.map((r) => r.attribute))].join(", ");
  const [same, near, lost] = [of("same"), of("near"), of("lost")];
  const off = Math.max(0, ...near.map((r) => r.off));
  const parts = [
    same.length > 0 && `${sum(same)} stored values carry over`,
    near.length > 0 &&
      `${sum(near)} nearly (${names(near)}${off > 0 ? `, colours up to ${plain(off, 3)} off in u'v'` : ""})`,
    lost.length > 0 && `${sum(lost)} it cannot do are kept inactive (${names(lost)})`,
  ].filter(Boolean);
  return parts.length > 0 ? parts.join("; ") : "nothing is stored for them";
}
