/** The demo show: from the file made when the app is built. */
import { OWN } from "@/core/dmx/consent";
import { MOST_BYTES, readShowFile } from "@/core/exchange/showFile";
import { DEMO_ID } from "@/core/show/showId";
import { isRefusal, refuse, type Refusal } from "@/core/show/refusal";
import { newHands } from "@/core/show/world";
import { isKept, keepShow } from "../storage/shows";

const DEMO_FILE = "/demo.comet.zip";

/** Takes the demo show in where this browser has nothing of it. */
export async function ensureDemo(): Promise<Refusal | undefined> {
  if (await isKept(DEMO_ID)) return undefined;
  const file = await fetch(DEMO_FILE).then(
    (answer) => (answer.ok ? answer.arrayBuffer() : undefined),
    () => undefined,
  );
  if (!file)
    return refuse("the demo show could not be fetched from the app", "See that the app runs, then open it again");
  const show = readShowFile(new Uint8Array(file), MOST_BYTES);
  if (isRefusal(show)) return refuse("the demo show of this build cannot be read", "Build the app again");
  await keepShow(DEMO_ID, { show, hands: newHands(show) }, 0, { fresh: true, consent: OWN });
  return undefined;
}
