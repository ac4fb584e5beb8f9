/** Opening a show for use: the demo is made when it is asked for and not there yet. */
import { makeDemo } from "@/core/demo/saltLantern";
import { DEMO_ID } from "@/core/show/showId";
import { diffOf } from "@/core/show/diff";
import { isRefusal, type Refusal } from "@/core/show/refusal";
import type { Guest } from "./guest";
import { keepShow, listShows, openShow, type Opened } from "./storage/shows";

export async function openForUse(id: string): Promise<Opened | Refusal> {
  if (id === DEMO_ID) await ensureDemo();
  const opened = await openShow(id);
  if (!isRefusal(opened)) void navigator.storage?.persist?.();
  return opened;
}

/**
 * What a guest goes on with when the host has closed: the show as it has it in memory, which may be a
 * moment newer than what was written, and the running state it last heard of.
 */
export async function takeOver(id: string, guest: Guest): Promise<Opened | Refusal> {
  const opened = await openShow(id);
  if (isRefusal(opened)) return opened;
  const { world } = guest.session.store.getState();
  // What was not written is; where all was, what can be undone stays.
  if (diffOf(opened.world, world).length > 0) await keepShow(id, world, opened.seq);
  return { ...opened, world, notice: null, running: guest.lastRunning() ?? opened.running };
}

/** Makes the demo show where this browser does not have it. */
export async function ensureDemo(): Promise<void> {
  const cards = await listShows();
  if (!cards.some((card) => card.id === DEMO_ID)) await keepShow(DEMO_ID, makeDemo());
}
