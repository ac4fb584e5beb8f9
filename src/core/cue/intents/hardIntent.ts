/** A cue that keeps what palettes give it now, whatever becomes of them: an intent. */
import { hardValue } from "../../palette/keep";
import { plainShow } from "../../palette/intents";
import { paletteText } from "../../palette/words";
import { defineIntent } from "../../show/change/intent";
import { IdSchema } from "../../show/ids";
import { cueText } from "../../show/words/lineText";
import { fail } from "../../show/refusal";
import type { Show } from "../../show/schema";
import { isLink } from "../../show/value";
import { cuesOf } from "../../show/world";
import { cueIn, cueLabel, keepingLooks, listIn } from "./cueDraft";
import { allInForce } from "../tracking";

/** The parameters a palette gives a cue, stored there or tracked in. */
export function givenIn(show: Show, list: string, cue: string, palette: string): string[] {
  const owner = show.lists[list];
  if (!owner) return [];
  const all = allInForce(
    owner,
    cuesOf(owner).findIndex((c) => c.id === cue),
    show,
  );
  return [...all].flatMap(([key, { entry }]) =>
    typeof entry.value === "object" && isLink(entry.value) && entry.value.palette === palette ? [key] : [],
  );
}

/** Stores what a palette gives a cue now as numbers; the next cue goes on following it. */
export const hardenCue = defineIntent({
  kind: "hardenCue",
  fields: { list: IdSchema, cue: IdSchema, palette: IdSchema },
  apply(world, { list: listId, cue: id, palette }) {
    const cue = cueIn(world, listId, id);
    const list = listIn(world, listId);
    const show = plainShow(world);
    const keys = givenIn(show, listId, id, palette);
    if (keys.length === 0) fail(`cue ${cue.number} follows ${paletteText({ show }, palette)} nowhere`);
    const edit = () => {
      for (const key of keys) {
        const hard = hardValue(show, palette, key);
        if (hard) cue.entries[key] = { ...cue.entries[key], ...hard };
      }
    };
    keepingLooks(world, list, [id], edit, { number: cue.number, touched: keys });
  },
  says: (world, { list, cue, palette }) =>
    `${cueLabel(world, list, cue)} keeps what ${paletteText(world, palette)} gives it now, as ${givenIn(world.show, list, cue, palette).length} numbers; the next cue goes on following`,
  lines: (world, { list, cue, palette }) => [
    `set ${cueText(world, list, cue)} hard palette ${world.show.palettes[palette]?.number ?? "?"}`,
  ],
});
