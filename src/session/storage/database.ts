/** The browser's storage: a show is a snapshot and a journal of diffs. */
import { openDB, type DBSchema, type IDBPDatabase } from "idb";
import { z } from "@/core/units/zod";
import type { Consent } from "@/core/dmx/consent";
import { HASH_START, hashOf } from "@/core/units/hash";
import { textPieces } from "@/core/units/pieces";

export const ShowCardSchema = z.object({
  id: z.string(),
  name: z.string(),
  fixtures: z.number().int(),
  cues: z.number().int(),
  /** Milliseconds since the epoch. */
  changed: z.number(),
  /** When it was put away; null for a show in use. */
  deleted: z.number().nullable(),
});
export type ShowCard = z.infer<typeof ShowCardSchema>;

/** What people agreed to for a show. */
export const ConsentSchema = z.object({
  imported: z.boolean(),
  given: z.array(z.string().max(100)).max(10_000).readonly(),
});

/** Text with a checksum, so that a torn write is found. */
export const SealedSchema = z.object({ text: z.string(), check: z.number().int() });
export type Sealed = z.infer<typeof SealedSchema>;

export interface StoredSnapshot extends Sealed {
  /** The journal goes on after this sequence number. */
  seq: number;
}

/** A show as it was at a named moment; sealed is the show alone. */
export interface StoredMoment extends Sealed {
  name: string;
  fixtures: number;
  cues: number;
  picture?: string;
  named?: boolean;
}

interface Shape extends DBSchema {
  cards: { key: string; value: ShowCard };
  snapshots: { key: string; value: StoredSnapshot };
  journal: { key: [string, number]; value: Sealed };
  /** How journal entries count for undo, by the same keys. */
  steps: { key: [string, number]; value: Sealed };
  playing: { key: string; value: Sealed };
  moments: { key: [string, number]; value: StoredMoment };
  consents: { key: string; value: Consent };
}
export type Database = IDBPDatabase<Shape>;
export const STORES = ["cards", "snapshots", "journal", "playing", "moments", "steps", "consents"] as const;

let opened: Promise<Database> | undefined;

/** The connection that is used, opened anew where there is none: one that was refused, or closed, is not kept. */
export function database(): Promise<Database> {
  if (opened) return opened;
  const forget = () => {
    if (opened === made) opened = undefined;
  };
  const made = openDB<Shape>("bold-comet", 4, {
    async upgrade(db, from, _, tx) {
      if (from < 1) {
        db.createObjectStore("cards", { keyPath: "id" });
        db.createObjectStore("snapshots");
        db.createObjectStore("journal");
        db.createObjectStore("playing");
      }
      if (from < 2) db.createObjectStore("moments");
      if (from < 3) db.createObjectStore("steps");
      if (from < 4) {
        const consents = db.createObjectStore("consents");
        for (const id of await tx.objectStore("cards").getAllKeys()) {
          const consent = keptBefore(id);
          if (consent) await consents.put(consent, id);
        }
      }
    },
    // A newer version in another tab must not wait for this one for ever.
    blocking(_, __, event) {
      forget();
      (event.target as IDBDatabase).close();
    },
    terminated: forget,
  }).catch((error: DOMException) => {
    forget();
    throw error.name === "VersionError"
      ? new Error("the shows of this browser are open in a newer Bold Comet: reload this page, or close the other one")
      : error;
  });
  opened = made;
  return made;
}

/** What was agreed to, as versions before 4 kept it; undefined where they kept nothing. */
function keptBefore(id: string): Consent | undefined {
  try {
    return ConsentSchema.safeParse(JSON.parse(localStorage.getItem(`bold-comet-consent-${id}`) ?? "null")).data;
  } catch {
    return undefined;
  }
}

/** Lets go of a connection that does not work: the next use opens another. */
export function dropConnection(): void {
  const last = opened;
  opened = undefined;
  last?.then((db) => db.close()).catch(() => undefined);
}

/** Stands for a record that is there and cannot be read: it counts as damaged. */
const UNREADABLE: Sealed = { text: "", check: -1 };
/** Of the connection, not of a record: who reads tries again. */
const OF_THE_CONNECTION = ["InvalidStateError", "AbortError", "TransactionInactiveError", "TimeoutError"];

type Store = (typeof STORES)[number];

/** A record; one that throws when it is read counts as damaged, and all others can be had. */
export async function readRecord<S extends Store>(db: Database, store: S, key: Shape[S]["key"]): Promise<unknown> {
  try {
    return await db.get(store, key);
  } catch (error) {
    if (OF_THE_CONNECTION.includes((error as Error).name)) throw error;
    return UNREADABLE;
  }
}

/** The records of a range with their keys: all at once, or one by one where that fails. */
export async function readRange<S extends Store>(
  db: Database,
  store: S,
  range?: IDBKeyRange,
): Promise<{ key: Shape[S]["key"]; value: unknown }[]> {
  const keys = await db.getAllKeys(store, range);
  const values = await db.getAll(store, range).catch(() => undefined);
  const whole = values?.length === keys.length ? values : undefined;
  return Promise.all(keys.map(async (key, i) => ({ key, value: whole ? whole[i] : await readRecord(db, store, key) })));
}

/** A transaction that is on the disk when it says done. */
export const strictly = (db: Database, stores: readonly (typeof STORES)[number][]) =>
  db.transaction(stores, "readwrite", { durability: "strict" });

/** Journal entries, steps or moments of a show: up to one, and all. */
export const entriesUpTo = (id: string, seq: number): IDBKeyRange => IDBKeyRange.bound([id, 0], [id, Math.max(0, seq)]);
export const entriesOf = (id: string): IDBKeyRange => IDBKeyRange.bound([id, 0], [id, Infinity]);

export const sealText = (text: string): Sealed => ({ text, check: hashOf(text) });
export const seal = (value: unknown): Sealed => sealText(JSON.stringify(value));

/** So long a page writes before it lets a hand be heard, milliseconds. */
const A_WHILE_MS = 8;

/** The same of what may be large: with pauses, so that no hand waits for it. */
export async function sealCalmly(value: unknown): Promise<Sealed> {
  const texts: string[] = [];
  let check = HASH_START;
  let until = performance.now() + A_WHILE_MS;
  for (const text of textPieces(value)) {
    texts.push(text);
    check = hashOf(text, check);
    if (performance.now() < until) continue;
    await new Promise((resolve) => setTimeout(resolve));
    until = performance.now() + A_WHILE_MS;
  }
  return { text: texts.join(""), check };
}

/** The text that was sealed, or undefined where it is damaged. */
export function unsealText(sealed: unknown): string | undefined {
  const parsed = SealedSchema.safeParse(sealed);
  return parsed.success && hashOf(parsed.data.text) === parsed.data.check ? parsed.data.text : undefined;
}

/** What was sealed, or undefined where it is damaged. */
export function unseal(sealed: unknown): unknown {
  const text = unsealText(sealed);
  if (text === undefined) return undefined;
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}
