/** What the schema alone cannot say of a show: references that lead somewhere, numbers that are unique. */
import { modeOf, parametersOf } from "../fixture/parameters";
import { fits, inTheWay, occupy, type Occupancy, addressText } from "../patch/address";
import { footprint } from "../fixture/type";
import { migrate } from "./migrate";
import { refuse, type Refusal } from "./refusal";
import { foulIn, keepUnknown } from "./untrusted";
import { ShowSchema, type Show } from "./schema";

export interface Checked {
  show: Show;
  /** Fields this version does not know, kept as they are. */
  unknown: string[];
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
    return refuse(`this show is damaged at ${issue.path.join(" / ") || "its root"}: ${issue.message.toLowerCase()}`, "Open another copy of it, or an earlier moment");
  }
  const problem = tooMany(parsed.data) ?? problemIn(parsed.data);
  if (problem) return refuse(`this show is damaged: ${problem}`, "Open another copy of it, or an earlier moment");
  return { show: parsed.data, unknown: keepUnknown(migrated.document, parsed.data) };
}

/** The show alone, or what is wrong and where. */
export function readShow(data: unknown): Show | Refusal {
  const checked = checkShow(data);
  return "refused" in checked ? checked : checked.show;
}

const MOST = { fixtures: 20_000, groups: 10_000, lists: 1000, cues: 20_000, entries: 4_000_000 };

/** Counts that no show reaches and that would only bring the browser down. */
function tooMany(show: Show): string | undefined {
  const lists = Object.values(show.lists);
  const cues = lists.flatMap((list) => Object.values(list.cues));
  const counts = { fixtures: Object.keys(show.fixtures).length, groups: Object.keys(show.groups).length, lists: lists.length, cues: cues.length, entries: cues.reduce((n, c) => n + Object.keys(c.entries).length, 0) };
  const over = (Object.keys(MOST) as (keyof typeof MOST)[]).find((what) => counts[what] > MOST[what]);
  return over && `it has ${counts[over].toLocaleString("en")} ${over}; ${MOST[over].toLocaleString("en")} is the most`;
}

function problemIn(show: Show): string | undefined {
  const taken: Occupancy = new Map();
  const numbers = new Set<number>();
  for (const [id, fixture] of Object.entries(show.fixtures)) {
    if (fixture.id !== id) return `fixture ${fixture.number} has two ids`;
    if (numbers.has(fixture.number)) return `two fixtures have the number ${fixture.number}`;
    numbers.add(fixture.number);
    const type = show.types[fixture.type];
    const mode = type && modeOf(type, fixture.mode);
    if (!mode) return `fixture ${fixture.number} is of a type or mode the file lacks (${fixture.type}, ${fixture.mode})`;
    parametersOf(mode, fixture.virtualDimmer);
    const size = footprint(mode);
    for (const address of fixture.addresses) {
      if (!fits(address, size)) return `fixture ${fixture.number} does not fit at ${addressText(address)}`;
      if (inTheWay(taken, address, size) !== null) return `fixture ${fixture.number} lies on another at ${addressText(address)}`;
      occupy(taken, address, size, id);
    }
  }
  for (const [id, piece] of Object.entries(show.scenery)) if (piece.id !== id) return "a set piece has two ids";
  for (const records of [show.groups, show.lists]) {
    const seen = new Set<number>();
    for (const [id, record] of Object.entries(records)) {
      if (record.id !== id || seen.has(record.number)) return `two records share the number ${record.number}`;
      seen.add(record.number);
    }
  }
  const counts = [...Object.keys(show.fixtures), ...Object.keys(show.groups), ...Object.keys(show.scenery), ...Object.keys(show.lists), ...Object.values(show.lists).flatMap((l) => Object.keys(l.cues))];
  if (counts.some((id) => Number(id.slice(1)) >= show.nextId)) return "its count of records is wrong";
  return undefined;
}
