/** What changes of the rig cost: 2,000 fixtures swapped in a show of 500 cues, a rig of 4,000 as MVR; in this process. */
import { newDesk, runLine } from "@/core/desk/desk";
import { importFixtures } from "@/core/exchange/importIntent";
import { planMvr } from "@/core/exchange/mvr/plan";
import { readMvr } from "@/core/exchange/mvr/read";
import { writeMvr } from "@/core/exchange/mvr/write";
import { swapType } from "@/core/rig/swapIntent";
import { swapped } from "@/core/rig/swap";
import { applyIntents } from "@/core/show/change/intent";
import { INTENTS } from "@/core/intents";
import { isRefusal } from "@/core/show/refusal";
import { newHands, newShow } from "@/core/show/world";

const desk = newDesk();
const does = (...lines: string[]) => {
  for (const line of lines) {
    const refusal = runLine(desk, line);
    if (refusal) throw new Error(`${line}: ${refusal.what}`);
  }
};
function timed<T>(name: string, work: () => T): T {
  const began = performance.now();
  const made = work();
  console.log(`${name}: ${(performance.now() - began).toFixed(0)} ms`);
  return made;
}

does("patch 2000 petrel-spot as 1 unpatched", "1 thru 50 cyan at 30", "record palette 1 type only colour", "clear");
for (let k = 1; k <= 500; k++) {
  const first = ((k * 37) % 1900) + 1;
  does(`${first} thru ${first + 24} at ${k % 100}`, `${first} thru ${first + 24} pan at ${k % 200}`);
  does(`${first} thru ${first + 24} magenta at ${k % 100}`, `${first} thru ${first + 24} gobo at ${(k % 7) + 1}`);
  does(`record cue ${k} fade 1`, "clear");
}
const fixtures = Object.keys(desk.world.show.fixtures);
const request = { fixtures, type: "kelp-wash", mode: "standard", at: "auto" as const };
timed("2,000 fixtures swapped in 500 cues of 100 entries, worked out", () =>
  swapped(desk.world.show, desk.world.hands, request),
);
const done = timed("then done as an edit, with its undo step", () =>
  applyIntents(INTENTS, desk.world, [swapType.of(request)]),
);
if (isRefusal(done)) throw new Error(done.what);
timed("and back", () =>
  applyIntents(INTENTS, done.world, [swapType.of({ ...request, type: "petrel-spot", at: "unpatched" })]),
);

const big = newDesk();
for (const line of ["patch 2000 petrel-spot as 1", "patch 2000 kelp-wash as 3001"]) runLine(big, line);
const { bytes } = timed("4,000 fixtures written as MVR", () => writeMvr(big.world.show));
const fresh = newShow("Fresh");
const read = timed("read", () => readMvr(bytes, fresh));
if (isRefusal(read)) throw new Error(read.what);
const plan = timed("compared", () => planMvr(fresh, read, "add"));
const came = timed("brought in, with its undo step", () =>
  applyIntents(INTENTS, { show: fresh, hands: newHands(fresh) }, [
    importFixtures.of({ rows: plan.rows.map(({ updates, fixture }) => ({ updates, fixture })), types: plan.types }),
  ]),
);
if (isRefusal(came)) throw new Error(came.what);
if (Object.keys(came.world.show.fixtures).length !== 4000) throw new Error("some are missing");
