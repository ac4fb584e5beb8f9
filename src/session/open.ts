/** Opening a show for use: the demo comes from its file when it is asked for and nothing of it is there yet. */
import { OWN } from "@/core/dmx/consent";
import { MOST_BYTES } from "@/core/exchange/showFile";
import { DEMO_ID } from "@/core/show/showId";
import { isRefusal, refuse, type Refusal } from "@/core/show/refusal";
import { newHands, type World } from "@/core/show/world";
import { readInPieces } from "./readFile";
import { isKept, journal, keepShow, lastSeq, openShow, type Entry, type Opened } from "./storage/shows";

export async function openForUse(id: string): Promise<Opened | Refusal> {
  const missing = id === DEMO_ID ? await ensureDemo() : undefined;
  if (missing) return missing;
  const opened = await openShow(id);
  if (!isRefusal(opened)) void navigator.storage?.persist?.();
  return opened;
}

/** The demo show as a file, made when the app is built. */
const DEMO_FILE = "/demo.comet.zip";

/** Takes the demo show in where this browser has nothing of it. */
export async function ensureDemo(): Promise<Refusal | undefined> {
  if (await isKept(DEMO_ID)) return undefined;
  const file = await fetch(DEMO_FILE).then(
    (answer) => (answer.ok ? answer.blob() : undefined),
    () => undefined,
  );
  if (!file)
    return refuse("the demo show could not be fetched from the app", "See that the app runs, then open it again");
  const read = await readInPieces(file, MOST_BYTES, () => true);
  if (read === "stopped" || isRefusal(read))
    return refuse("the demo show of this build cannot be read", "Build the app again");
  await keepShow(DEMO_ID, { show: read.show, hands: newHands(read.show) }, 0, { fresh: true, consent: OWN });
  return undefined;
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
