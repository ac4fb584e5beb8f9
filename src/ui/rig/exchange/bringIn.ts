/** Bringing read rows into the show, in pieces that make one step of undo, so that no frame is held up. */
import { importFixtures } from "@/core/exchange/importIntent";
import type { ReadRow } from "@/core/exchange/patchTable";
import { isRefusal } from "@/core/show/refusal";
import type { Session } from "@/session/session";

const ROWS_A_PIECE = 150;
const nextFrame = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 0));

/**
 * @param progress told how many rows are in; returns false to stop, and then everything is taken back.
 * @returns whether all came in.
 */
export async function bringIn(session: Session, rows: readonly ReadRow[], says: string, progress: (done: number) => boolean): Promise<boolean> {
  // Changed fixtures may change places among themselves: they go together.
  const changed = rows.filter((r) => r.updates !== null);
  const fresh = rows.filter((r) => r.updates === null);
  const pieces = [...(changed.length > 0 ? [changed] : []), ...Array.from({ length: Math.ceil(fresh.length / ROWS_A_PIECE) }, (_, i) => fresh.slice(i * ROWS_A_PIECE, (i + 1) * ROWS_A_PIECE))];
  let done = 0;
  for (const [i, piece] of pieces.entries()) {
    const made = session.act([importFixtures.of({ rows: piece.map(({ updates, fixture }) => ({ updates, fixture })) as never })], says, i > 0);
    const stopped = isRefusal(made) || !progress((done += piece.length));
    if (stopped && i < pieces.length - 1) {
      if (!isRefusal(made) || i > 0) await session.run("undo");
      return false;
    }
    if (isRefusal(made)) return false;
    await nextFrame();
  }
  return pieces.length > 0;
}
