/** Values set in a cue itself, nothing held. */
import { z } from "../../units/zod";
import { plainShow } from "../../palette/intents";
import { itemsOfKeys } from "../../program/holdLines";
import { defineIntent } from "../../show/change/intent";
import { IdSchema, ParamKeySchema, type ParamKey } from "../../show/ids";
import { cueText, exact, selText, unsaid } from "../../show/words/lineText";
import { asItWas } from "../../show/change/plainly";
import { fail } from "../../show/refusal";
import { EntriesSchema, isRelease, type Entry } from "../../show/value";
import { grouped } from "../../units/grouped";
import { cueIn, cueLabel, keepingAs, listIn, LOOKS, looksText, snapshot } from "./cueDraft";
import { storeEntries } from "../effects";
import { plural } from "../../units/plural";

/** Stores entries in a cue, or takes stored ones out; own timing stays unless another is given. */
export const writeCue = defineIntent({
  kind: "writeCue",
  fields: {
    list: IdSchema,
    cue: IdSchema,
    values: EntriesSchema,
    unset: z.array(ParamKeySchema).max(200_000),
    /** Stored parameters whose own timing goes: the cue's times are theirs again. */
    untimed: z.array(ParamKeySchema).max(200_000).optional(),
    looks: z.enum(LOOKS),
  },
  apply(world, { list: listId, cue: id, values, unset, untimed = [], looks }) {
    const show = plainShow(world);
    const list = listIn(world, listId);
    const cue = cueIn(world, listId, id);
    const keys = [...Object.keys(values), ...unset, ...untimed];
    if (keys.length === 0) fail("there is nothing to set in that cue");
    if (unset.length > 0 && Object.keys(values).length === 0 && !unset.some((key) => cue.entries[key]))
      fail(`cue ${exact(cue.number)} stores none of that`);
    const edit = () => {
      for (const key of unset) delete cue.entries[key];
      for (const key of untimed) delete cue.entries[key]?.time;
      const timed = Object.entries(values).map(([key, entry]): [ParamKey, Entry] => {
        const time = entry.time ?? cue.entries[key]?.time;
        return [key, time ? { ...entry, time } : entry];
      });
      storeEntries(show, list, cue, Object.fromEntries(timed), snapshot, asItWas(list));
    };
    keepingAs(looks, world, list, id, edit, () => ({ number: cue.number, touched: keys }));
  },
  says: (world, { list, cue, values, unset, untimed = [], looks }) =>
    `${cueLabel(world, list, cue)}: ${[
      Object.keys(values).length > 0 && `sets ${plural(Object.keys(values).length, "value")}`,
      unset.length > 0 && `takes ${plural(unset.length, "value")} out, so that what tracks in shows`,
      untimed.length > 0 && `${plural(untimed.length, "value")} by the cue's times`,
    ]
      .filter(Boolean)
      .join(", ")}${looksText(looks)}`,
  lines(world, { list, cue, values, unset, untimed = [], looks }) {
    const stored = world.show.lists[list]?.cues[cue]?.entries ?? {};
    const end = looks === "track" ? "" : ` ${looks}`;
    const texts = Object.entries(values).flatMap(([key, { attribute, value, time }]): [ParamKey, string][] => {
      const was = stored[key];
      const same = was?.attribute === attribute && JSON.stringify(was.value) === JSON.stringify(value);
      const set: [ParamKey, string][] = same
        ? []
        : typeof value === "number"
          ? [[key, `${attribute} at ${exact(value)}`]]
          : value !== undefined && isRelease(value)
            ? [[key, `${attribute} released`]]
            : [[key, ""]];
      const own = [
        time?.delay !== undefined && `delay ${exact(time.delay)}`,
        time?.fade !== undefined && `fade ${exact(time.fade)}`,
      ].filter(Boolean);
      return own.length > 0 ? [...set, [key, `${attribute} ${own.join(" ")}`]] : set;
    });
    if (texts.some(([, text]) => text === "")) return [unsaid("sets values in a cue that no line can say")];
    texts.push(...unset.map((key): [ParamKey, string] => [key, `${key.split(".")[2]!} unset`]));
    texts.push(...untimed.map((key): [ParamKey, string] => [key, `${key.split(".")[2]!} cue time`]));
    return [...grouped(texts, ([, text]) => text)].map(
      ([text, of]) =>
        `set ${cueText(world, list, cue)} ${selText(world.show, itemsOfKeys(of.map(([key]) => key)))} ${text}${end}`,
    );
  },
});
