/** A show from data of unknown origin: checked whole before anything of it is used. */
import { migrate } from "./migrate";
import { refuse, type Refusal } from "../refusal";
import { withoutLostLinks } from "./links";
import { foulIn, keepUnknown } from "./untrusted";
import { ShowSchema, type Show } from "../schema";
import { problemIn } from "./references";

export interface Checked {
  show: Show;
  /** Fields this version does not know, kept as they are. */
  unknown: string[];
  /** How many values followed palettes that are not there: they were left out. */
  lost: number;
}

/**
 * A show from data of unknown origin: checked by Zod, migrated, and whole in itself. What a newer version
 * added is kept and told.
 */
export function checkShow(data: unknown): Checked | Refusal {
  const foul = foulIn(data);
  if (foul) return refuse(`this show is damaged or was made to do harm: ${foul}`, "Open another copy of it");
  const migrated = migrate(data);
  if ("refused" in migrated) return migrated;
  const parsed = ShowSchema.safeParse(migrated.document);
  if (!parsed.success) {
    const issue = parsed.error.issues[0]!;
    return refuse(
      `this show is damaged at ${issue.path.join(" / ") || "its root"}: ${issue.message.toLowerCase()}`,
      "Open another copy of it, or an earlier moment",
    );
  }
  const problem = problemIn(parsed.data);
  if (problem) return refuse(`this show is damaged: ${problem}`, "Open another copy of it, or an earlier moment");
  const unknown = keepUnknown(migrated.document, parsed.data);
  const { show, lost } = withoutLostLinks(parsed.data);
  return { show, unknown, lost };
}

/** The show alone, or what is wrong and where. */
export function readShow(data: unknown): Show | Refusal {
  const checked = checkShow(data);
  return "refused" in checked ? checked : checked.show;
}
