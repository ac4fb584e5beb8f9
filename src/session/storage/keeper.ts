/** Keeps a running show: groups its changes, writes them, says when they are safe, tries again on failure. */
import type { World } from "@/core/show/world";
import type { Running } from "@/engine/messages";
import type { StepKept } from "./steps";
import { dropConnection } from "./database";
import { journal, keepPlaying, keepShow, type Entry } from "./shows";

export type SavedState = "saved" | "saving" | "failed";

const GROUP_MS = 50;
const RETRY_MS = 2000;
/** A new snapshot after this many journal entries keeps opening quick. */
const SNAPSHOT_EVERY = 500;

export interface Keeper {
  /** @param diff as text. @param step how it counts for undo, null where it does not. */
  change(world: World, diff: string, step: StepKept | null): void;
  playing(change: Partial<Running>): void;
  /** Sequence number of the last change handed in. */
  seq(): number;
  /** Who is told up to which sequence number all is written. */
  onSaved(tell: (seq: number) => void): void;
  /** Resolves when all that was handed in is written. */
  flush(): Promise<void>;
  close(): void;
}

/** Keeps nothing: for a look at an earlier version. */
export const NO_KEEPER: Keeper = {
  change: () => undefined,
  playing: () => undefined,
  seq: () => 0,
  onSaved: () => undefined,
  flush: async () => undefined,
  close: () => undefined,
};

/** @param settled resolves once it is known what storage holds: nothing is written before. It tells from where numbers go on. */
export function createKeeper(
  id: string,
  startSeq: number,
  tell: (state: SavedState) => void,
  settled: Promise<{ seq: number }> = Promise.resolve({ seq: startSeq }),
): Keeper {
  let seq = startSeq;
  let pending: Entry[] = [];
  let world: World | undefined;
  let playing: Partial<Running> | undefined;
  let sinceSnapshot = 0;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let writing: Promise<void> | undefined;
  let closed = false;
  /** It was said that something could not be written. */
  let failing = false;
  let written: (seq: number) => void = () => undefined;

  // Where storage has come further than was known, what waits is numbered after it.
  const ready = settled.then(({ seq: from }) => {
    const shift = Math.max(0, from - startSeq);
    seq += shift;
    pending = pending.map((entry) => ({ ...entry, seq: entry.seq + shift }));
  });

  const schedule = (ms: number) => {
    if (timer === undefined && !closed) timer = setTimeout(() => ((timer = undefined), void write()), ms);
  };

  async function writeOnce(): Promise<void> {
    let entries: Entry[] = [];
    let state: Partial<Running> | undefined;
    try {
      await ready;
      entries = pending;
      state = playing;
      pending = [];
      playing = undefined;
      if (entries.length > 0 && world) {
        const kept = world;
        await journal(id, kept, entries);
        written(entries.at(-1)!.seq);
        sinceSnapshot += entries.length;
        if (sinceSnapshot >= SNAPSHOT_EVERY) {
          await keepShow(id, kept, entries.at(-1)!.seq);
          sinceSnapshot = 0;
        }
      }
      if (state) await keepPlaying(id, state);
      if (pending.length === 0 && (entries.length > 0 || failing)) tell("saved");
      failing = false;
    } catch {
      pending = [...entries, ...pending];
      playing = Object.assign({}, state, playing);
      failing = true;
      // It may be the connection that is at fault: the next try has one of its own.
      dropConnection();
      tell("failed");
      schedule(RETRY_MS);
    }
  }

  async function write(): Promise<void> {
    await writing;
    writing = writeOnce();
    await writing;
  }

  return {
    change(next, diff, step) {
      world = next;
      pending.push({ seq: ++seq, diff, step });
      tell("saving");
      schedule(GROUP_MS);
    },
    playing(change) {
      // A time belongs to the save before it.
      playing = change.saved === undefined ? { ...playing, ...change } : change;
      schedule(GROUP_MS);
    },
    seq: () => seq,
    onSaved: (to) => (written = to),
    async flush() {
      if (timer !== undefined) clearTimeout(timer);
      timer = undefined;
      await write();
    },
    close() {
      closed = true;
      if (timer !== undefined) clearTimeout(timer);
      timer = undefined;
      void write();
    },
  };
}
