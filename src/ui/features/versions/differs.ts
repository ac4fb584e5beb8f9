/** What differs between looks and versions, in words. */
import type { CueChange, Differs, RecordChange } from "@/core/cue/compare";
import { attributeInfo, withUnit } from "@/core/fixture/attribute";
import { splitKey } from "@/core/show/ids";
import type { Show, SignedValue } from "@/core/show/schema";
import { plain } from "@/core/units/units";
import { plural } from "@/core/units/plural";

const valueOf = ({ attribute, value, aim, effect }: SignedValue): string =>
  effect
    ? "an effect"
    : aim
      ? `at ${aim.map((m) => plain(m, 1)).join(" ")} m`
      : withUnit(Number(plain(value, 2)), attribute);

/** One parameter of a fixture that differs: "71.4 red 50 % to 80 %". */
export function valueText({ key, from, to }: Differs["values"][number]): string {
  const { cell } = splitKey(key);
  return `${cell > 0 ? `cell ${cell} ` : ""}${attributeInfo(to.attribute).label.toLowerCase()} ${valueOf(from)} to ${valueOf(to)}`;
}

/** One fixture that looks different. */
export function differsText(d: Differs, most = 6): string {
  if (d.how !== "values") return d.how === "dark" ? "goes dark" : "is lit";
  const parts = d.values.slice(0, most).map((v) => valueText(v));
  return `${parts.join(", ")}${d.values.length > most ? ` and ${d.values.length - most} more` : ""}`;
}

/** A cue that differs between two versions. */
export function changeText({ how, look, fields }: CueChange): string {
  if (how !== "changed") return how === "new" ? "added since" : "deleted since";
  const parts = [
    look.length > 0 &&
      `${plural(look.length, "fixture looks", "fixtures look")} different${fields.length > 0 ? "" : ", by what tracks in"}`,
    fields.length > 0 && `other ${fields.join(", ")}`,
  ].filter(Boolean);
  return parts.join("; ");
}

const WORDS: Record<RecordChange["what"], string> = {
  palettes: "palette",
  groups: "group",
  effects: "effect",
  waves: "wave",
  lists: "list",
  fixtures: "fixture",
};

/** A record that differs between two versions, as it was or as it is. */
export function recordText(before: Show, after: Show, { what, id, how }: RecordChange): string {
  const record = (after[what][id] ?? before[what][id]) as { number: number; name: string };
  const word = what === "lists" && how === "changed" ? "options of list" : WORDS[what];
  return `${word} ${record.number} ${record.name}: ${how === "new" ? "added since" : how === "gone" ? "deleted since" : "changed since"}`;
}
