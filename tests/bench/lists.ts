/** What a large list costs: 2,000 cues of 100 entries, 4,000 fixtures; in this process. */
import { driftsOf } from "@/core/cue/drift";
import { writeCue } from "@/core/cue/intents/writeCueIntent";
import { latesOf } from "@/core/cue/lateMoves";
import { allInForce } from "@/core/cue/tracking";
import { ripple } from "@/core/cue/looks";
import { perform } from "@/core/desk/perform";
import { fillLook, placesOf } from "@/core/play/stage/lookFrame";
import { planBlack } from "@/core/play/arrive/black/plan";
import { EMPTY_HISTORY } from "@/core/show/change/history";
import { isRefusal } from "@/core/show/refusal";
import { cuesOf, fixturesByNumber, listNumbered, type World } from "@/core/show/world";
import { frozen } from "@/core/units/frozen";
import { largeShow } from "./largeShow";

const [FIXTURES, CUES] = [Number(process.argv[2] ?? 4000), 2000];
let seed = 7;
const random = (n: number): number => (seed = (seed * 1_103_515_245 + 12_345) % 2 ** 31) % n;
// As a show is once it is open.
let world: World = frozen(largeShow(FIXTURES, CUES));
const fixtures = fixturesByNumber(world.show);
const list = listNumbered(world.show, 1)!;
const now = () => world.show.lists[list.id]!;

function times(name: string, n: number, work: (k: number) => void): void {
  const ms: number[] = [];
  for (let k = 0; k < n; k++) {
    const began = performance.now();
    work(k);
    ms.push(performance.now() - began);
  }
  ms.sort((a, b) => a - b);
  const at = (p: number) => ms[Math.floor((ms.length - 1) * p)]!.toFixed(1);
  console.log(`${name}: median ${at(0.5)} ms, most ${at(1)} ms`);
}
function edit(k: number): World {
  const { id } = fixtures[random(FIXTURES)]!;
  const done = perform(
    { world, history: EMPTY_HISTORY },
    {
      intents: [
        writeCue.of({
          list: list.id,
          cue: cuesOf(now())[(k * 61) % CUES]!.id,
          values: { [`${id}.0.Pan`]: { attribute: "Pan", value: k % 90 } },
          unset: [],
          looks: "track",
        }),
      ],
      events: [],
    },
  );
  if (isRefusal(done)) throw new Error(done.what);
  return done.world;
}

console.log(`${FIXTURES} fixtures, ${CUES} cues of 100 entries`);
times("the list read for the first time: the state of a cue", 1, () => void allInForce(now(), 1999, world.show));
times("the state of any cue", 60, (k) => void allInForce(now(), (k * 331) % CUES, world.show));
const size = placesOf(world.show).specs.length;
const frame = { value: new Float64Array(size), fn: new Uint8Array(size) };
times("a look as a frame, for its picture", 60, (k) => void fillLook(world.show, now(), (k * 331) % CUES, frame));
times("drift of the whole list", 1, () => console.log(`  ${driftsOf(world.show, now()).length} found`));
times("an edit of one cell", 20, (k) => void (world = edit(k)));
times("drift after an edit", 20, (k) => {
  world = edit(k + 50);
  driftsOf(world.show, now());
});
times("the ripple of an edit", 10, (k) => void ripple(world.show, edit(k + 90).show));
times("moves too late, on paper", 3, () => void latesOf(world.show, now()));
times("what moves in black from a cue on", 20, (k) => void planBlack(world.show, now(), (k * 331) % (CUES - 1), false));
