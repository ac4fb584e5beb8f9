/** The shows of this browser: listing, opening, keeping, copying and putting away. */
import { z } from "@/core/units/zod";
import { HandsSchema } from "@/core/program/hands";
import { readShow } from "@/core/show/check";
import { applyDiff, DiffSchema, type Diff } from "@/core/show/diff";
import { isRefusal, refuse, type Refusal } from "@/core/show/refusal";
import { SHOW_VERSION } from "@/core/show/schema";
import { newHands, type World } from "@/core/show/world";
import type { Running } from "@/engine/messages";
import type { StepKept } from "./steps";
import { database, seal, SealedSchema, sealText, ShowCardSchema, STORES, strictly, unseal, unsealText, type Database, type ShowCard } from "./database";

const SnapshotSchema = SealedSchema.extend({ seq: z.number().int() });
const ParkedWorldSchema = z.object({ show: z.unknown(), hands: z.unknown() });

export interface Opened {
  world: World;
  running: Running | null;
  /** Sequence number of the last journal entry. */
  seq: number;
  /** What was lost, said to the user; null where nothing was. */
  notice: string | null;
}

export function cardOf(id: string, world: World, changed: number): ShowCard {
  const cues = Object.values(world.show.lists).reduce((sum, list) => sum + Object.keys(list.cues).length, 0);
  return { id, name: world.show.name, fixtures: Object.keys(world.show.fixtures).length, cues, changed, deleted: null };
}

/** All shows, those put away included, the last changed first. */
export async function listShows(): Promise<ShowCard[]> {
  const db = await database();
  const cards = (await db.getAll("cards")).flatMap((card) => {
    const parsed = ShowCardSchema.safeParse(card);
    return parsed.success ? [parsed.data] : [];
  });
  return cards.sort((a, b) => b.changed - a.changed);
}

/** Keeps a whole show as a new snapshot; its journal starts afresh, but for what `undoable` entries before it are kept to undo. */
export async function keepShow(id: string, world: World, seq = 0, undoable = 0, now = Date.now()): Promise<void> {
  const tx = strictly(await database(), ["cards", "snapshots", "journal", "steps"]);
  const gone = undoable > 0 ? entriesUpTo(id, seq - undoable) : entriesOf(id);
  await Promise.all([
    tx.objectStore("cards").put(cardOf(id, world, now)),
    tx.objectStore("snapshots").put({ ...seal(world), seq }, id),
    tx.objectStore("journal").delete(gone),
    tx.objectStore("steps").delete(gone),
    tx.done,
  ]);
}

export const entriesUpTo = (id: string, seq: number): IDBKeyRange => IDBKeyRange.bound([id, 0], [id, Math.max(0, seq)]);
export const entriesOf = (id: string): IDBKeyRange => IDBKeyRange.bound([id, 0], [id, Infinity]);

/** A diff, as text, on its way to the journal, and how it counts for undo; null where it does not. */
export interface Entry {
  seq: number;
  diff: string;
  step: StepKept | null;
}

/** Appends diffs to a show's journal. Durable when the promise resolves. */
export async function journal(id: string, world: World, entries: readonly Entry[], now = Date.now()): Promise<void> {
  const tx = strictly(await database(), ["cards", "journal", "steps"]);
  const [diffs, steps] = [tx.objectStore("journal"), tx.objectStore("steps")];
  const puts = entries.flatMap(({ seq, diff, step }) => [diffs.put(sealText(diff), [id, seq]), ...(step ? [steps.put(seal(step), [id, seq])] : [])]);
  await Promise.all([...puts, tx.objectStore("cards").put(cardOf(id, world, now)), tx.done]);
}

const clockOf = (id: string): string => `${id} clock`;

/** Keeps the running state, or only the time it has come to. */
export async function keepPlaying(id: string, { saved, now }: Partial<Running>): Promise<void> {
  const tx = strictly(await database(), ["playing"]);
  const store = tx.objectStore("playing");
  await Promise.all([
    ...(saved === undefined ? [] : [store.put(sealText(saved), id)]),
    ...(now === undefined ? (saved === undefined ? [] : [store.delete(clockOf(id))]) : [store.put(seal(now), clockOf(id))]),
    tx.done,
  ]);
}

async function lastRunning(db: Database, id: string): Promise<Running | null> {
  const saved = unsealText(await db.get("playing", id));
  const now = z.number().safeParse(unseal(await db.get("playing", clockOf(id))));
  return saved === undefined ? null : { saved, now: now.success ? now.data : 0 };
}

const damaged = (): Refusal => refuse("this show's storage is damaged", "Open another show, or import a file of it");

function worldOf(parked: unknown): World | Refusal {
  const parsed = ParkedWorldSchema.safeParse(parked);
  if (!parsed.success) return damaged();
  const show = readShow(parsed.data.show);
  if (isRefusal(show)) return show;
  const hands = HandsSchema.safeParse(parsed.data.hands);
  return { show, hands: hands.success ? hands.data : newHands(show) };
}

/** A show as it was left: snapshot, then journal up to the first damaged entry. */
export async function openShow(id: string): Promise<Opened | Refusal> {
  const db = await database();
  const stored = SnapshotSchema.safeParse(await db.get("snapshots", id));
  if (!stored.success) return refuse("there is no such show in this browser", "Choose one from the list of shows");
  const parked = ParkedWorldSchema.safeParse(unseal(stored.data));
  if (!parked.success) return damaged();
  // The journal belongs to the snapshot as it was written: both are brought to the present version together.
  let world = parked.data as World;
  let seq = stored.data.seq;
  let notice: string | null = null;
  const since = IDBKeyRange.bound([id, seq + 1], [id, Infinity]);
  const keys = await db.getAllKeys("journal", since);
  const entries = await db.getAll("journal", since);
  for (const [i, key] of keys.entries()) {
    const next = key[1] === seq + 1 ? replay(world, entries[i]) : undefined;
    if (!next) {
      notice = `${keys.length - i} of the last ${keys.length} changes were damaged and are left out; everything before them is here`;
      break;
    }
    world = next;
    seq = key[1];
  }
  // What was cut off must not be taken up again by later entries.
  if (notice) await cutJournal(id, seq);
  const checked = worldOf(world);
  if (isRefusal(checked)) return checked;
  if ((world.show as { version: number }).version !== SHOW_VERSION) await keepShow(id, checked, seq);
  return { world: checked, running: await lastRunning(db, id), seq, notice };
}

async function cutJournal(id: string, after: number): Promise<void> {
  const tx = strictly(await database(), ["journal", "steps"]);
  const cut = IDBKeyRange.bound([id, after + 1], [id, Infinity]);
  await Promise.all([tx.objectStore("journal").delete(cut), tx.objectStore("steps").delete(cut), tx.done]);
}

function replay(world: World, entry: unknown): World | undefined {
  const diff = DiffSchema.safeParse(unseal(entry));
  if (!diff.success) return undefined;
  try {
    return applyDiff(world, diff.data as Diff);
  } catch {
    return undefined;
  }
}

async function changeCard(id: string, change: Partial<ShowCard>): Promise<void> {
  const tx = strictly(await database(), ["cards"]);
  const card = await tx.objectStore("cards").get(id);
  await Promise.all([...(card ? [tx.objectStore("cards").put({ ...card, ...change })] : []), tx.done]);
}

/** Puts a show away; it can be brought back. */
export const putAway = (id: string, now = Date.now()): Promise<void> => changeCard(id, { deleted: now });
export const bringBack = (id: string): Promise<void> => changeCard(id, { deleted: null });

/** Removes a show for good. */
export async function removeForGood(id: string): Promise<void> {
  const db: Database = await database();
  const tx = strictly(db, STORES);
  await Promise.all([
    tx.objectStore("cards").delete(id), tx.objectStore("snapshots").delete(id), tx.objectStore("playing").delete(id), tx.objectStore("playing").delete(clockOf(id)),
    tx.objectStore("journal").delete(entriesOf(id)), tx.objectStore("steps").delete(entriesOf(id)), tx.objectStore("moments").delete(entriesOf(id)), tx.done,
  ]);
}

/** A new id for a show: where it lives in storage and in addresses. */
export const newShowId = (): string => Array.from(crypto.getRandomValues(new Uint8Array(8)), (b) => b.toString(36).padStart(2, "0")).join("");

/** Keeps a world as a new show and tells its id. */
export async function addShow(world: World): Promise<string> {
  const id = newShowId();
  await keepShow(id, world);
  return id;
}

/** Names a show that is not open: a change in its journal like any other. */
export async function renameShow(id: string, name: string): Promise<Refusal | undefined> {
  const opened = await openShow(id);
  if (isRefusal(opened)) return opened;
  await keepShow(id, { ...opened.world, show: { ...opened.world.show, name } }, opened.seq);
  return undefined;
}

export async function duplicateShow(id: string): Promise<string | Refusal> {
  const opened = await openShow(id);
  if (isRefusal(opened)) return opened;
  return addShow({ ...opened.world, show: { ...opened.world.show, name: `${opened.world.show.name} copy` } });
}
