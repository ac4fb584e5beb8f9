/** Numbered migrations: each takes a document from its version to the next. */
import { refuse, type Refusal } from "./refusal";
import { SHOW_FORMAT, SHOW_VERSION } from "./schema";
import { NEW_WIRE } from "./world";

type Document = Record<string, unknown>;
export interface Migration {
  from: number;
  run(document: Document): Document;
}

const isDocument = (value: unknown): value is Document =>
  typeof value === "object" && value !== null && !Array.isArray(value);

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
