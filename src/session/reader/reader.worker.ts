/** Reads one thing for a page and is ended with it: whatever it takes, the page goes on. */
import { refuse } from "@/core/show/refusal";
import { ToReaderSchema, type FromReader } from "./messages";
import { piecesOf } from "@/core/units/pieces";
import { withShow } from "./messages";
import { read } from "./reading";

const say = (message: FromReader): void => postMessage(message);

addEventListener("message", ({ data }: MessageEvent) => {
  const asked = ToReaderSchema.safeParse(data);
  if (!asked.success) return say({ kind: "read", answer: refuse("what to read was not understood") });
  read(asked.data, (share) => say({ kind: "share", share })).then(
    (answer) => {
      // A whole show would hold the page up while it is taken in.
      const show = "world" in answer ? answer.world.show : "show" in answer ? answer.show : undefined;
      if (show) for (const piece of piecesOf(show)) say({ kind: "piece", piece: [...piece] });
      say({ kind: "read", answer: withShow(answer, show && null) });
    },
    (error: Error) =>
      say({ kind: "read", answer: refuse(`it cannot be read (${error.message})`, "Choose another copy of it") }),
  );
});
