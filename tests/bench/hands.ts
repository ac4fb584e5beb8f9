/** What a hand on a large selection costs: a spread dragged, a selection, the step of a trial; in this process, beside a bare loop. */
import { newBuilding, builtIntents, hold } from "@/core/command/building";
import { colour } from "@/core/command/buildingColour";
import { contextOf, newDesk, runLine } from "@/core/desk/desk";
import { perform } from "@/core/desk/perform";
import { setWorld } from "@/core/play/edit/edit";
import { compute } from "@/core/play/player";
import { select } from "@/core/select/intents";
import { EMPTY_HISTORY } from "@/core/show/change/history";
import { isRefusal } from "@/core/show/refusal";

const desk = newDesk();
for (const line of ["patch 2000 kelp-wash as 1", "1 thru 2000", "at 50"]) {
  const refusal = runLine(desk, line);
  if (refusal) throw new Error(refusal.what);
}

function times(name: string, n: number, work: (k: number) => void): void {
  const ms: number[] = [];
  for (let k = 0; k < n; k++) {
    const began = performance.now();
    work(k);
    ms.push(performance.now() - began);
  }
  ms.sort((a, b) => a - b);
  const at = (p: number) => ms[Math.floor((ms.length - 1) * p)]!.toFixed(1);
  console.log(`${name}: median ${at(0.5)} ms, p95 ${at(0.95)} ms, most ${at(1)} ms`);
}

function act(build: (b: ReturnType<typeof newBuilding>) => void): void {
  const b = newBuilding(desk.world.hands.selection, contextOf(desk));
  build(b);
  const done = perform({ world: desk.world, history: EMPTY_HISTORY }, { intents: builtIntents(b, false), events: [] });
  if (isRefusal(done)) throw new Error(done.what);
  desk.world = done.world;
  const keys = done.diff.flatMap((c) => (c.path[1] === "held" ? [String(c.path[2])] : []));
  setWorld(desk.player, done.world, keys);
  compute(desk.player);
}

times("a spread of pan over 2,000 dragged", 60, (k) => act((b) => hold(b, "Pan", [-60 + k, 60], false)));
times("intensity of 2,000 scrubbed", 60, () => act((b) => hold(b, "Dimmer", [0.2], true)));
times("a colour of 2,000 picked", 40, (k) => act((b) => colour(b, [`#${(0x100000 + k * 4099).toString(16)}`])));
const all = Object.keys(desk.world.show.fixtures);
times("2,000 selected", 40, (k) => {
  const done = perform(
    { world: desk.world, history: EMPTY_HISTORY },
    { intents: [select.of({ items: k % 2 ? all : [...all].reverse() })], events: [] },
  );
  if (isRefusal(done)) throw new Error(done.what);
  desk.world = done.world;
});
