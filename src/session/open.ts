/** Opening a show for use: the demo is made when it is asked for and nothing of it is there yet. */
import { makeDemo } from "@/core/demo/saltLantern";
import { DEMO_ID } from "@/core/show/showId";
import { isRefusal, type Refusal } from "@/core/show/refusal";
import type { World } from "@/core/show/world";
import { isKept, journal, keepShow, lastSeq, openShow, type Entry, type Opened } from "./storage/shows";

export async function openForUse(id: string): Promise<Opened | Refusal> {
  if (id === DEMO_ID) await ensureDemo();
  const opened = await openShow(id);
  if (!isRefusal(opened)) void navigator.storage?.persist?.();
  return opened;
}

/** Makes the demo show where this browser has nothing of it. */
export async function ensureDemo(): Promise<void> {
  if (!(await isKept(DEMO_ID))) await keepShow(DEMO_ID, makeDemo(), 0, { fresh: true });
}

const AGAIN_MS = 1000;

/**
 * Settles what of a window that has gone is in storage: what it never wrote is written, and what it wrote
 * unheard is told. Tries until storage answers: nothing may be written before.
 * @param seq the last change heard of. @param unwritten changes not known to be written.
 */
export async function settle(
  id: string,
  world: World,
  seq: number,
  unwritten: readonly Entry[],
): Promise<{ seq: number; newer: World | null }> {
  for (;;) {
    try {
      const last = await lastSeq(id);
      const missing = unwritten.filter((entry) => entry.seq > last);
      if (missing.length > 0) await journal(id, world, missing);
      if (last <= seq) return { seq, newer: null };
      const opened = await openShow(id);
      return isRefusal(opened) ? { seq: last, newer: null } : { seq: opened.seq, newer: opened.world };
    } catch {
      await new Promise((resolve) => setTimeout(resolve, AGAIN_MS));
    }
  }
}
