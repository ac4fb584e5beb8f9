/** Opening a show for use, and taking over one that another window had. */
import { isRefusal, type Refusal } from "@/core/show/refusal";
import type { World } from "@/core/show/world";
import { readAside } from "./reader/readAside";
import { journal, lastSeq, openShow, type Entry, type Opened } from "./storage/shows";

/** Read and checked beside the page, however large. */
export async function openForUse(id: string): Promise<Opened | Refusal | "stopped"> {
  const opened = await readAside<"open">({ kind: "open", id });
  if (opened !== "stopped" && !isRefusal(opened)) void navigator.storage?.persist?.();
  return opened;
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
