/** Reading beside the page: with progress, a way to stop, and an end. */
import { refuse, type Refusal } from "@/core/show/refusal";
import { gatherPieces } from "@/core/units/pieces";
import { FromReaderSchema, withShow, type Answers, type More, type ToReader } from "./messages";

/** What takes longer is not waited for, milliseconds. */
const PATIENCE_MS = 120_000;

/**
 * Reads in a worker of its own; its memory is given back with its end.
 * @param progress told the share done, 0 to 1. @param stop ends it: then it answers "stopped", and nothing was taken in.
 */
export function readAside<K extends ToReader["kind"]>(
  asked: Extract<ToReader, { kind: K }>,
  progress: (share: number) => void = () => undefined,
  stop?: AbortSignal,
): Promise<Answers[K] | Refusal | "stopped"> {
  if (stop?.aborted) return Promise.resolve("stopped");
  const worker = new Worker(new URL("./reader.worker.ts", import.meta.url), { type: "module", name: "reader" });
  const pieces = gatherPieces();
  return new Promise((resolve) => {
    const end = (answer: Answers[K] | Refusal | "stopped") => {
      clearTimeout(late);
      stop?.removeEventListener("abort", stopped);
      worker.terminate();
      resolve(answer);
    };
    const stopped = () => end("stopped");
    stop?.addEventListener("abort", stopped);
    const late = setTimeout(
      () =>
        end(
          refuse(`reading this took longer than ${PATIENCE_MS / 60_000} minutes and was ended`, "Nothing was taken in"),
        ),
      PATIENCE_MS,
    );
    worker.addEventListener("error", (event) => {
      event.preventDefault();
      end(
        refuse(
          "reading this failed, perhaps because memory ran out",
          "Nothing was taken in; close other pages and try again",
        ),
      );
    });
    worker.addEventListener("message", ({ data }: MessageEvent) => {
      const said = FromReaderSchema.safeParse(data);
      if (!said.success) return end(refuse("what was read is not understood", "Reload the page and try again"));
      if (said.data.kind === "share") progress(said.data.share);
      else if (said.data.kind === "piece") {
        pieces.take(said.data.piece);
        worker.postMessage({ kind: "more" } satisfies More);
      } else end(withShow(said.data.answer as Answers[K], pieces.document()));
    });
    worker.postMessage(asked);
  });
}
