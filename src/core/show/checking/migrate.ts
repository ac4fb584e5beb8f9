/** Numbered migrations: each takes a document from its version to the next. */
import { refuse, type Refusal } from "../refusal";
import { SHOW_FORMAT, SHOW_VERSION } from "../schema";
import { NEW_TIMECODE } from "../deckSchema";
import { NEW_WIRE } from "../world";

type Document = Record<string, unknown>;
export interface Migration {
  from: number;
  run(document: Document): Document;
}

const isDocument = (value: unknown): value is Document =>
  typeof value === "object" && value !== null && !Array.isArray(value);

const eachRecord = (of: unknown, make: (value: Document) => Document): unknown =>
  isDocument(of) ? Object.fromEntries(Object.entries(of).map(([k, v]) => [k, isDocument(v) ? make(v) : v])) : of;

/** The entries of all cues, changed. */
const eachEntry = (lists: unknown, change: (entry: Document) => Document): unknown =>
  eachRecord(lists, (list) => ({
    ...list,
    cues: eachRecord(list.cues, (cue) => ({ ...cue, entries: eachRecord(cue.entries, change) })),
  }));

/** So many turns tell every place in a cycle there was apart. */
const FINE = 20_000;

function voiced(entry: Document): Document {
  if (!isDocument(entry.effect) || !("wave" in entry.effect)) return entry;
  const { place, low, high, ...phasing } = entry.effect;
  return {
    ...entry,
    effect: {
      plays: {
        attribute: entry.attribute,
        range: { low, high },
        spread: { mirror: 1, bunch: 1, repeat: 0, by: "order" },
        ...phasing,
      },
      at: Math.min(FINE - 1, Math.round(Number(place) * FINE)),
      of: FINE,
    },
  };
}

const MIGRATIONS: readonly Migration[] = [
  {
    // Fixtures have notes; a show has outputs, and scenery on its plan.
    from: 1,
    run(document) {
      const fixtures = isDocument(document.fixtures) ? document.fixtures : {};
      return {
        outputs: {},
        wire: NEW_WIRE,
        scenery: {},
        ...document,
        fixtures: Object.fromEntries(
          Object.entries(fixtures).map(([id, fixture]) => [
            id,
            isDocument(fixture) ? { note: "", ...fixture } : fixture,
          ]),
        ),
      };
    },
  },
  // A reach may be of so many more cues than there are; nothing that was stored changes.
  { from: 2, run: (document) => document },
  // A show has palettes.
  { from: 3, run: (document) => ({ palettes: {}, ...document }) },
  // Effects are voices, of the show or of an entry: a wave that an entry had is its own voice.
  {
    from: 4,
    run: (document) => ({ effects: {}, waves: {}, ...document, lists: eachEntry(document.lists, voiced) }),
  },
  {
    // Lists move in the dark and are ready. One that did not goes on as it was: its show is played as it was made.
    from: 5,
    run: (document) => ({
      ...document,
      lists: eachRecord(document.lists, (list) => ({ blackMoves: false, blackTime: 3, ready: false, ...list })),
    }),
  },
  // A show has macros, pages and views, and counts timecode.
  { from: 6, run: (document) => ({ macros: {}, pages: {}, views: {}, timecode: NEW_TIMECODE, ...document }) },
  // Types and fixtures may say more; nothing that was stored changes.
  { from: 7, run: (document) => document },
];

/** Takes a document of any known version to the present one. */
export function migrate(
  data: unknown,
  migrations: readonly Migration[] = MIGRATIONS,
  target: number = SHOW_VERSION,
): { document: Document } | Refusal {
  if (typeof data !== "object" || data === null || Array.isArray(data))
    return refuse("this is not a Bold Comet show", "Choose a file that ends in .comet.zip");
  let document = data as Document;
  if (document.format !== SHOW_FORMAT)
    return refuse("this is not a Bold Comet show", "Choose a file that ends in .comet.zip");
  const version = document.version;
  if (typeof version !== "number" || !Number.isInteger(version) || version < 1)
    return refuse("this show does not say which version it is");
  if (version > target)
    return refuse(
      `this show is of version ${version}, made by a newer Bold Comet; this one reads up to ${target}`,
      "Open it with the newer one",
    );
  for (let at = version; at < target; at++) {
    const step = migrations.find((m) => m.from === at);
    if (!step) throw new Error(`no migration from version ${at}`);
    document = { ...step.run(document), version: at + 1 };
  }
  return { document };
}
