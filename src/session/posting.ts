/** Messages to a worker that begins with a world: a large one goes in pieces, between frames, and all else waits behind it. */
import type { World } from "@/core/show/world";
import { piecesOf } from "@/core/units/pieces";
import type { PieceMessage } from "@/engine/opening";

export interface Posting<M> {
  say(message: M): void;
  /** Whether the world is on its way still. */
  opens(): boolean;
  end(): void;
}

/** So long pieces go out before the page is let draw, milliseconds. */
const A_WHILE_MS = 6;

/** @param open the message that opens, without its world. */
export function openWorker<M extends { kind: string }>(
  worker: Pick<Worker, "postMessage">,
  world: World,
  open: Omit<Extract<M, { kind: "open" }>, "world">,
): Posting<M> {
  const work = piecesOf(world);
  const first = work.next().value!;
  const post = (message: M | PieceMessage | object) => worker.postMessage(message);
  let waiting: M[] | undefined;
  let timer: ReturnType<typeof setTimeout> | undefined;
  if (first.length === 1 && first[0]![0].length === 0 && work.next().done) post({ ...open, world });
  else {
    waiting = [];
    sendFrom(piecesOf(world));
  }
  function sendFrom(pieces: ReturnType<typeof piecesOf>): void {
    for (const until = performance.now() + A_WHILE_MS; performance.now() < until;) {
      const { done, value } = pieces.next();
      if (!done) {
        post({ kind: "piece", piece: [...value] } satisfies PieceMessage);
        continue;
      }
      post({ ...open, world: null });
      for (const message of waiting!) post(message);
      waiting = undefined;
      return;
    }
    timer = setTimeout(() => sendFrom(pieces));
  }
  return {
    say: (message) => (waiting ? void waiting.push(message) : post(message)),
    opens: () => waiting !== undefined,
    end: () => clearTimeout(timer),
  };
}
