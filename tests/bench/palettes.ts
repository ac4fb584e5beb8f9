/** What palettes cost: 500 of them, 2,000 washes, 300 cues that follow one; in this process. */
import { builtIntents, hold, newBuilding, palette } from "@/core/command/building";
import { ripple } from "@/core/cue/looks";
import { contextOf, newDesk, runLine } from "@/core/desk/desk";
import { perform } from "@/core/desk/perform";
import { updatePalette } from "@/core/palette/intents";
import { setWorld } from "@/core/play/edit/edit";
import { compute } from "@/core/play/player";
import { EMPTY_HISTORY } from "@/core/show/change/history";
import type { Intent } from "@/core/show/change/intent";
import { isRefusal } from "@/core/show/refusal";
import { palettesByNumber } from "@/core/show/world";

const desk = newDesk();
const does = (...lines: string[]) => {
  for (const line of lines) {
    const refusal = runLine(desk, line);
    if (refusal) throw new Error(`${line}: ${refusal.what}`);
  }
};
does("patch 2000 kelp-wash as 1");
for (let k = 1; k <= 500; k++) {
  const hex = (0x101010 + k * 27_481).toString(16).slice(0, 6);
  does(`1 colour at #${hex}`, `record palette ${k} ${k % 2 ? "any" : "type"} only colour`, "clear");
}
for (let k = 1; k <= 300; k++) {
  const first = ((k * 13) % 1800) + 1;
  does(`${first} thru ${first + 99} at ${k % 100} palette ${k % 3 ? 2 : 1}`, `record cue ${k} fade 0`, "clear");
}
does("go list 1 cue 300");

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

function act(intents: Intent[]): void {
  const done = perform({ world: desk.world, history: EMPTY_HISTORY }, { intents, events: [] });
  if (isRefusal(done)) throw new Error(done.what);
  desk.world = done.world;
  const held: string[] = [];
  for (const { path } of done.diff) if (path[0] === "hands" && path[1] === "held") held.push(path[2]!);
  setWorld(desk.player, done.world, held);
  compute(desk.player);
}
const built = (ids: readonly string[], build: (b: ReturnType<typeof newBuilding>) => void): Intent[] => {
  const b = newBuilding(ids, contextOf(desk));
  build(b);
  return builtIntents(b, false);
};

const all = Object.keys(desk.world.show.fixtures);
const palettes = palettesByNumber(desk.world.show);
const hundred = all.slice(0, 100);
times("applied to 100", 60, (k) => act(built(hundred, (b) => palette(b, palettes[k]!.id))));
times("applied to all 2,000", 150, (k) => act(built(all, (b) => palette(b, palettes[k]!.id))));
does("clear");
const used = palettes[1]!;
const [first] = all;
times("one used by 200 cues edited for its type, seen on stage", 40, (k) => {
  act(built([first!], (b) => hold(b, "ColorAdd_G", [k + 1], false)));
  const before = performance.now();
  act([updatePalette.of({ palette: used.id, type: true })]);
  if (k === 39) console.log(`  of which the edit alone ${(performance.now() - before).toFixed(1)} ms`);
});
times("its ripple", 10, (k) => {
  const done = perform(
    { world: { ...desk.world, hands: { ...desk.world.hands, held: {} } }, history: EMPTY_HISTORY },
    {
      intents: [
        ...built([first!], (b) => hold(b, "ColorAdd_B", [k + 1], false)),
        updatePalette.of({ palette: used.id, type: true }),
      ],
      events: [],
    },
  );
  if (isRefusal(done)) throw new Error(done.what);
  if (ripple(desk.world.show, done.world.show).length < 100) throw new Error("it ripples to fewer cues than it should");
});
