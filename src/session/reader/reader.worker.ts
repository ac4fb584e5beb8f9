/** Reads one thing for a page and is ended with it: whatever it takes, the page goes on. */
import { refuse } from "@/core/show/refusal";
import { piecesOf, type Part } from "@/core/units/pieces";
import { MoreSchema, ToReaderSchema, withShow, type FromReader } from "./messages";
import { read } from "./reading";

/** Pieces on their way to the page at once: one that it takes in, and one that it finds when it has. More would stand before all that it is to do besides. */
const ON_THE_WAY = 2;

const say = (message: FromReader): void => postMessage(message);
let pieces: Iterator<readonly Part[], void> | undefined;
let last: FromReader | undefined;

function sendNext(): void {
  const next = pieces?.next();
  if (next && !next.done) return say({ kind: "piece", piece: [...next.value] });
  if (last) say(last);
  [pieces, last] = [undefined, undefined];
}

addEventListener("message", ({ data }: MessageEvent) => {
  if (MoreSchema.safeParse(data).success) return sendNext();
  const asked = ToReaderSchema.safeParse(data);
  if (!asked.success) return say({ kind: "read", answer: refuse("what to read was not understood") });
  read(asked.data, (share) => say({ kind: "share", share })).then(
    (answer) => {
      // A whole show would hold the page up while it is taken in.
      const show = "world" in answer ? answer.world.show : "show" in answer ? answer.show : undefined;
      last = { kind: "read", answer: withShow(answer, show && null) };
      if (show) pieces = piecesOf(show);
      for (let i = 0; i < (show ? ON_THE_WAY : 1); i++) sendNext();
    },
    (error: Error) =>
      say({ kind: "read", answer: refuse(`it cannot be read (${error.message})`, "Choose another copy of it") }),
  );
});
