/** Bringing read rows into the show as one step. */
import { importFixtures } from "@/core/exchange/importIntent";
import type { ReadRow } from "@/core/exchange/patchTable";
import type { Session } from "@/session/state";

const ROWS_A_PIECE = 250;

/**
 * @param progress told how many rows are worked out; returns false to stop, and then nothing has changed.
 * @returns whether all came in.
 */
export async function bringIn(
  session: Session,
  rows: readonly ReadRow[],
  says: string,
  progress: (done: number) => boolean,
): Promise<boolean> {
  // Changed fixtures may change places among themselves: they go together.
  const changed = rows.filter((r) => r.updates !== null);
  const fresh = rows.filter((r) => r.updates === null);
  const pieces = [
    ...(changed.length > 0 ? [changed] : []),
    ...Array.from({ length: Math.ceil(fresh.length / ROWS_A_PIECE) }, (_, i) =>
      fresh.slice(i * ROWS_A_PIECE, (i + 1) * ROWS_A_PIECE),
    ),
  ];
  const worked = pieces.map((_, i) => pieces.slice(0, i + 1).reduce((n, piece) => n + piece.length, 0));
  const refused = await session.actInPieces({
    pieces: pieces.map((piece) => [
      importFixtures.of({ rows: piece.map(({ updates, fixture }) => ({ updates, fixture })) }),
    ]),
    says,
    progress: (done) => progress(worked[done - 1]!),
  });
  return refused === undefined;
}
