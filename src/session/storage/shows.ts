/** The shows of this browser: listing, opening, keeping, copying and putting away. */
import { z } from "@/core/units/zod";
import type { Consent } from "@/core/dmx/consent";
import { HandsSchema } from "@/core/show/hands";
import { readShow } from "@/core/show/checking/check";
import { applyDiff, DiffSchema, writeDiff, type Diff } from "@/core/show/change/diff";
import { isRefusal, refuse, type Refusal } from "@/core/show/refusal";
import { SHOW_VERSION } from "@/core/show/schema";
import { newHands, type World } from "@/core/show/world";
import type { Running } from "@/engine/messages";
import { readConsent } from "./consents";
import type { StepKept } from "./steps";
import {
  database,
  entriesOf,
  entriesUpTo,
  readRange,
  readRecord,
  seal,
  SealedSchema,
  sealCalmly,
  sealText,
  ShowCardSchema,
  STORES,
  strictly,
  unseal,
  unsealText,
  type Database,
  type ShowCard,
} from "./database";

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

/** All shows, those put away included, the last changed first. A show whose card is gone or damaged gets a new one: its data counts. */
export async function listShows(): Promise<ShowCard[]> {
  const db = await database();
  const cards = (await readRange(db, "cards")).flatMap(({ value }) => {
    const parsed = ShowCardSchema.safeParse(value);
    return parsed.success ? [parsed.data] : [];
  });
  const known = new Set(cards.map((card) => card.id));
  const ids = new Set((await db.getAllKeys("snapshots")).map((key) => key.split(" ")[0]!));
  for (const id of ids) if (!known.has(id)) cards.push(await mendCard(id));
  return cards.sort((a, b) => b.changed - a.changed);
}

async function mendCard(id: string): Promise<ShowCard> {
  // Whatever one show does, the others are listed.
  const opened = await openShow(id).catch(() => damaged());
  const card = isRefusal(opened)
    ? { id, name: "A show that does not open", fixtures: 0, cues: 0, changed: 0, deleted: null }
    : cardOf(id, opened.world, Date.now());
  const tx = strictly(await database(), ["cards"]);
  await Promise.all([tx.objectStore("cards").put(card), tx.done]);
  return card;
}

/** So many entries before a snapshot are kept to be undone. */
const UNDOABLE = 400;
/** Where the snapshot before the last one is. */
export const beforeOf = (id: string): string => `${id} before`;

/**
 * Keeps a whole show as a new snapshot. The one before it stays, and so does the journal since then, so
 * that a damaged byte costs nothing. @param fresh begins anew: both snapshots are this one, and no journal is left.
 */
export async function keepShow(
  id: string,
  world: World,
  seq = 0,
  { fresh = false, consent, now = Date.now() }: { fresh?: boolean; consent?: Consent; now?: number } = {},
): Promise<void> {
  const db = await database();
  const made = { ...(await sealCalmly(world)), seq };
  // Before the transaction: one that cannot be read would end it.
  const old = SnapshotSchema.safeParse(await readRecord(db, "snapshots", id)).data;
  const tx = strictly(db, ["cards", "snapshots", "journal", "steps", "consents"]);
  const snapshots = tx.objectStore("snapshots");
  const before = fresh || !old || old.seq > seq || unsealText(old) === undefined ? made : old;
  const gone = fresh ? entriesOf(id) : entriesUpTo(id, Math.min(before.seq, seq - UNDOABLE));
  await Promise.all([
    tx.objectStore("cards").put(cardOf(id, world, now)),
    ...(consent ? [tx.objectStore("consents").put(consent, id)] : []),
    snapshots.put(before, beforeOf(id)),
    snapshots.put(made, id),
    tx.objectStore("journal").delete(gone),
    tx.objectStore("steps").delete(gone),
    tx.done,
  ]);
}

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
  const puts = entries.flatMap(({ seq, diff, step }) => [
    diffs.put(sealText(diff), [id, seq]),
    ...(step ? [steps.put(seal(step), [id, seq])] : []),
  ]);
  await Promise.all([...puts, tx.objectStore("cards").put(cardOf(id, world, now)), tx.done]);
}

const clockOf = (id: string): string => `${id} clock`;

/** Keeps the running state, or only the time it has come to. */
export async function keepPlaying(id: string, { saved, now }: Partial<Running>): Promise<void> {
  const tx = strictly(await database(), ["playing"]);
  const store = tx.objectStore("playing");
  await Promise.all([
    ...(saved === undefined ? [] : [store.put(sealText(saved), id)]),
    ...(now === undefined
      ? saved === undefined
        ? []
        : [store.delete(clockOf(id))]
      : [store.put(seal(now), clockOf(id))]),
    tx.done,
  ]);
}

async function lastRunning(db: Database, id: string): Promise<{ running: Running | null; lost: string | null }> {
  const kept = await readRecord(db, "playing", id);
  const saved = unsealText(kept);
  const now = z.number().safeParse(unseal(await readRecord(db, "playing", clockOf(id))));
  return {
    running: saved === undefined ? null : { saved, now: now.success ? now.data : 0 },
    lost:
      kept !== undefined && saved === undefined
        ? "how the lists stood was damaged, so the stage came back released: give the lists a go where they should stand"
        : null,
  };
}

const damaged = (): Refusal =>
  refuse("this show's storage is damaged", "Open an earlier version of it, or import a file of it");

/** A show of any version as it was kept, not checked yet. */
export interface Replayed {
  world: World;
  seq: number;
}

/** What is kept of a show: its snapshots, the newest first, as far as they can be read; and its journal. */
async function kept(db: Database, id: string): Promise<{ there: boolean; bases: Replayed[]; newest: number }> {
  const raw = [await readRecord(db, "snapshots", id), await readRecord(db, "snapshots", beforeOf(id))];
  const bases = raw.flatMap((stored): Replayed[] => {
    const snapshot = SnapshotSchema.safeParse(stored);
    const parked = snapshot.success ? ParkedWorldSchema.safeParse(unseal(snapshot.data)) : undefined;
    return parked?.success ? [{ world: parked.data as World, seq: snapshot.data!.seq }] : [];
  });
  const first = SnapshotSchema.safeParse(raw[0]).data?.seq ?? 0;
  return { there: raw.some((r) => r !== undefined), bases, newest: first };
}

/** Every state from a base on that the journal leads to without a gap, the base first; and how many entries could not be followed. */
export async function replayAll(
  db: Database,
  id: string,
  base: Replayed,
  upTo = Infinity,
): Promise<{ states: Replayed[]; cut: number; of: number }> {
  const since = IDBKeyRange.bound([id, base.seq + 1], [id, upTo]);
  const entries = await readRange(db, "journal", since);
  const states = [base];
  for (const [i, { key, value }] of entries.entries()) {
    const { world, seq } = states.at(-1)!;
    const next = key[1] === seq + 1 ? replay(world, value) : undefined;
    if (!next) return { states, cut: entries.length - i, of: entries.length };
    states.push({ world: next, seq: key[1] });
  }
  return { states, cut: 0, of: entries.length };
}

/** Bases of a show, newest first. */
export const basesOf = async (id: string): Promise<Replayed[]> => (await kept(await database(), id)).bases;

/** A kept world, checked and of the present version. */
export function worldOf(parked: unknown): World | Refusal {
  const parsed = ParkedWorldSchema.safeParse(parked);
  if (!parsed.success) return damaged();
  const show = readShow(parsed.data.show);
  if (isRefusal(show)) return show;
  const hands = HandsSchema.safeParse(parsed.data.hands);
  return { show, hands: hands.success ? hands.data : newHands(show) };
}

/** A show as it was left: the last snapshot that can be read, then the journal up to the first damaged entry. */
export async function openShow(id: string): Promise<Opened | Refusal> {
  const db = await database();
  const { there, bases, newest } = await kept(db, id);
  if (!there) return refuse("there is no such show in this browser", "Choose one from the list of shows");
  const base = bases[0];
  if (!base) return damaged();
  // The journal belongs to the snapshot as it was written: both are brought to the present version together.
  const { states, cut, of } = await replayAll(db, id, base);
  const { world, seq } = states.at(-1)!;
  const checked = worldOf(world);
  if (isRefusal(checked)) return checked;
  const notices: string[] = [];
  const short = newest > seq;
  if (bases.length === 1 || short)
    notices.push(
      `one of two snapshots of this show was damaged; it was put together from the other${short ? `, and ${newest - seq} changes are missing` : ": nothing is missing"}`,
    );
  if (cut > 0)
    notices.push(`${cut} of the last ${of} changes were damaged and are left out; everything before them is here`);
  // What was cut off must not be taken up again by later entries.
  if (cut > 0) await cutJournal(id, seq);
  if (notices.length > 0 || (world.show as { version: number }).version !== SHOW_VERSION)
    await keepShow(id, checked, seq, { fresh: true });
  const { running, lost } = await lastRunning(db, id);
  if (lost) notices.push(lost);
  return { world: checked, running, seq, notice: notices.length > 0 ? notices.join("; ") : null };
}

/** Whether anything of a show is kept, however damaged. */
export async function isKept(id: string): Promise<boolean> {
  const db = await database();
  const { there } = await kept(db, id);
  return (
    there ||
    (await db.getKey("moments", entriesOf(id))) !== undefined ||
    (await db.getKey("journal", entriesOf(id))) !== undefined
  );
}

/** Sequence number of the last thing kept of a show. */
export async function lastSeq(id: string): Promise<number> {
  const db = await database();
  const keys = await db.getAllKeys("journal", entriesOf(id));
  return Math.max(
    keys.at(-1)?.[1] ?? 0,
    SnapshotSchema.safeParse(await readRecord(db, "snapshots", id)).data?.seq ?? 0,
  );
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
    tx.objectStore("cards").delete(id),
    tx.objectStore("snapshots").delete(id),
    tx.objectStore("snapshots").delete(beforeOf(id)),
    tx.objectStore("playing").delete(id),
    tx.objectStore("playing").delete(clockOf(id)),
    tx.objectStore("journal").delete(entriesOf(id)),
    tx.objectStore("steps").delete(entriesOf(id)),
    tx.objectStore("moments").delete(entriesOf(id)),
    tx.objectStore("consents").delete(id),
    tx.done,
  ]);
}

/** A new id for a show: where it lives in storage and in addresses. */
export const newShowId = (): string =>
  Array.from(crypto.getRandomValues(new Uint8Array(8)), (b) => b.toString(36).padStart(2, "0")).join("");

/** Keeps a world as a new show, with where it may send, and tells its id; refused where it could not be opened again. */
export async function addShow(world: World, consent: Consent): Promise<string | Refusal> {
  const checked = readShow(JSON.parse(JSON.stringify(world.show)));
  if (isRefusal(checked)) return checked;
  const id = newShowId();
  await keepShow(id, world, 0, { fresh: true, consent });
  return id;
}

const LONGEST_NAME = 200;

/** Names a show that is not open: a change in its journal like any other. */
export async function renameShow(id: string, name: string): Promise<Refusal | undefined> {
  const wrong = nameFault(name);
  if (wrong) return wrong;
  const opened = await openShow(id);
  if (isRefusal(opened)) return opened;
  const world = { ...opened.world, show: { ...opened.world.show, name } };
  const diff = [{ path: ["show", "name"], from: opened.world.show.name, to: name }];
  await journal(id, world, [
    { seq: opened.seq + 1, diff: writeDiff(diff), step: { how: "done", says: `names the show "${name}"` } },
  ]);
  return undefined;
}

/** What is wrong with the name of a show; undefined where nothing is. */
export function nameFault(name: string): Refusal | undefined {
  if (name.trim() === "") return refuse("a show needs a name", "Type one");
  return name.length > LONGEST_NAME
    ? refuse(`this name has ${name.length} characters; ${LONGEST_NAME} is the most`, "Choose a shorter one")
    : undefined;
}

/** A copy of a show may send where the show may. */
export async function duplicateShow(id: string): Promise<string | Refusal> {
  const opened = await openShow(id);
  if (isRefusal(opened)) return opened;
  const name = `${opened.world.show.name.slice(0, LONGEST_NAME - " copy".length)} copy`;
  return addShow({ ...opened.world, show: { ...opened.world.show, name } }, await readConsent(id));
}
