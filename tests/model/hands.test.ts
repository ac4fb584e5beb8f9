/** Catches a chase or a morph beside a cue list that comes to another stage than the words say: the engine against the plain player over random stories. */
import fc from "fast-check";
import { newDesk, runLine, wait, type Desk } from "@/core/desk/desk";
import { stageValues } from "@/core/play/stage/look";
import { modelArrive, modelInForce, modelRelease, modelValue, newModel, type ModelPlayer } from "./model";
import { attributeOf, PARAMS, recordLists } from "./recordLists";
import { runs } from "@tests/setup/runs";

const [LIST, CHASE, MORPH] = [0, 1, 2];

const cue = fc.record({
  entries: fc.dictionary(
    fc.constantFrom(...PARAMS),
    fc.oneof({ weight: 5, arbitrary: fc.nat(100) }, { weight: 1, arbitrary: fc.constant("release" as const) }),
    { minKeys: 1, maxKeys: 4 },
  ),
  up: fc.nat(4),
  down: fc.nat(4),
});
const cues = fc.array(cue, { minLength: 2, maxLength: 4 });
const given = fc.record({
  lists: fc.tuple(cues, cues, cues),
  priorities: fc.tuple(fc.nat(1), fc.nat(1), fc.nat(1)),
  releaseTime: fc.nat(3),
  bpm: fc.constantFrom(30, 60, 120, 150),
  share: fc.constantFrom(0, 40, 100),
});
const step = fc.record({
  wait: fc.nat(20).map((n) => n / 8),
  what: fc.oneof(
    fc.constantFrom("go", "release", "step", "step", "against", "end"),
    fc.nat(3).map((n) => `jump ${n}`),
    fc.nat(10).map((n) => `morph ${n * 10}`),
    fc.nat(4).map((n) => `level ${n * 25}`),
  ),
});
type Given = typeof given extends fc.Arbitrary<infer T> ? T : never;

function build(of: Given): { desk: Desk; model: ModelPlayer } {
  const desk = newDesk();
  const run = (line: string) => {
    const refusal = runLine(desk, line);
    if (refusal) throw new Error(`${line}: ${refusal.what}`);
  };
  const model = recordLists(run, of);
  for (const line of ["kind chase", `bpm ${of.bpm}`, `share ${of.share}`]) run(`set list ${CHASE + 1} ${line}`);
  run(`set list ${MORPH + 1} kind morph`);
  return { desk, model: newModel(model, PARAMS, ["d1", "d2"]) };
}

/** A morph by the words: where the level lies between two looks, each parameter a share of both. */
function modelMorph(model: ModelPlayer, level: number): void {
  const list = model.lists[MORPH]!;
  const n = list.cues.length;
  const leaves = model.standing[MORPH] === null && level > 0;
  if (leaves) model.lastGo[MORPH] = model.stamp += 1;
  model.standing[MORPH] = level > 0 ? 0 : null;
  const place = (level / 100) * n - 1;
  const [from, to] = place >= n - 1 - 1e-9 ? [n - 1, n - 1] : [Math.floor(place + 1e-9), Math.floor(place + 1e-9) + 1];
  const share = to === from ? 0 : place - from;
  for (const [param, all] of model.contributions) {
    const others = all.filter((c) => c.list !== MORPH);
    const [a, b] = [from, to].map((k) => (k < 0 ? undefined : modelInForce(list, k, param)?.value));
    const value = a !== undefined && b !== undefined ? a + (b - a) * share : (a ?? b);
    const weight = a !== undefined && b !== undefined ? 1 : a !== undefined ? 1 - share : share;
    if (level > 0 && value !== undefined)
      others.push({
        list: MORPH,
        priority: list.priority,
        stamp: model.lastGo[MORPH]!,
        own: () => value,
        weight: () => weight,
        leaving: false,
      });
    model.contributions.set(param, others);
  }
}

test("a list, a chase and a morph over each other", () => {
  fc.assert(
    fc.property(given, fc.array(step, { minLength: 1, maxLength: 14 }), (of, story) => {
      const { desk, model } = build(of);
      const log: string[] = [];
      const beat = 60 / of.bpm;
      const fade = (of.share / 100) * beat;
      const steps = of.lists[CHASE]!.length;
      let [now, beatAt] = [0, Infinity];
      const walk = (by: number, t: number, all: boolean) => {
        const at = model.standing[CHASE];
        modelArrive(model, CHASE, at === null ? 0 : (at! + by + steps) % steps, t, all, fade);
      };
      const does = (line: string) => {
        log.push(`${now}: ${line}`);
        const refusal = runLine(desk, line);
        if (refusal) throw new Error(`${refusal.what}\n${log.join("\n")}`);
      };
      for (const { wait: time, what } of story) {
        wait(desk, time);
        now += time;
        for (; beatAt + beat <= now + 1e-9;) walk(1, (beatAt += beat), false);
        const [deed, n] = [what.split(" ")[0], Number(what.split(" ")[1])];
        const stands = model.standing[LIST]!;
        const last = of.lists[LIST]!.length - 1;
        if (deed === "go" && (stands ?? -1) < last) {
          does("go list 1");
          modelArrive(model, LIST, stands === null ? 0 : stands + 1, now, false);
        } else if (deed === "jump" && n <= last) {
          does(`go list 1 cue ${n + 1}`);
          modelArrive(model, LIST, n, now, true);
        } else if (deed === "release" && stands !== null) {
          does("release list 1");
          modelRelease(model, LIST, now);
        } else if (deed === "step") {
          does("go list 2");
          walk(1, now, false);
          beatAt = now;
        } else if (deed === "against" && model.standing[CHASE] !== null) {
          does("back list 2");
          walk(-1, now, true);
          beatAt = now;
        } else if (deed === "end" && model.standing[CHASE] !== null) {
          does("release list 2");
          modelRelease(model, CHASE, now);
          beatAt = Infinity;
        } else if (deed === "morph") {
          does(`level list 3 at ${n}`);
          modelMorph(model, n);
        } else if (deed === "level") {
          does(`level list 2 at ${n}`);
          model.level[CHASE] = n / 100;
        }
        for (const param of PARAMS) {
          const fixture = Object.values(desk.world.show.fixtures).find((f) => f.number === Number(param[1]))!.id;
          const got = stageValues(desk.player, fixture, attributeOf(param))[0]!;
          const wanted = modelValue(model, param, now);
          if (Math.abs(got - wanted) > 1e-6)
            throw new Error(`${param} at ${now}: engine ${got}, model ${wanted}\n${log.join("\n")}`);
        }
      }
    }),
    { numRuns: runs(100) },
  );
});
