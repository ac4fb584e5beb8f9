/**
 * Catches a list crossfaded by hand, or one on timecode, that comes to another stage than the words say beside a
 * cue list: the engine against the plain player over random stories.
 */
import fc from "fast-check";
import { newDesk, runLine, wait, type Desk } from "@/core/desk/desk";
import { stageValues } from "@/core/play/stage/look";
import { modelArrive, modelRelease, modelValue, newModel, type Contribution, type ModelPlayer } from "./model";
import { attributeOf, PARAMS, recordLists } from "./recordLists";
import { runs } from "@tests/setup/runs";

const [LIST, HAND, TIMED] = [0, 1, 2];
/** Timecode goes on this long between two timed cues: longer than any fade. */
const APART = 4;

const cues = fc.array(
  fc.record({
    entries: fc.dictionary(
      fc.constantFrom(...PARAMS),
      fc.oneof({ weight: 5, arbitrary: fc.nat(100) }, { weight: 1, arbitrary: fc.constant("release" as const) }),
      { minKeys: 1, maxKeys: 4 },
    ),
    fade: fc.nat(APART - 1),
  }),
  { minLength: 2, maxLength: 4 },
);
const given = fc.record({
  lists: fc.tuple(cues, cues, cues),
  priorities: fc.tuple(fc.nat(1), fc.nat(1), fc.nat(1)),
  releaseTime: fc.nat(3),
});
const step = fc.record({
  wait: fc.nat(20).map((n) => n / 8),
  what: fc.oneof(
    fc.constantFrom("go", "release"),
    fc.nat(3).map((n) => `jump ${n}`),
    fc.constantFrom("hand 0", "hand 100", "hand 100", "hand 0", "hand 30", "hand 50", "hand 80"),
    fc.nat(32).map((n) => `locate ${n / 2 + 1 / 3}`),
  ),
});
type Given = typeof given extends fc.Arbitrary<infer T> ? T : never;

function build(of: Given): { desk: Desk; model: ModelPlayer } {
  const desk = newDesk();
  const run = (line: string) => {
    const refusal = runLine(desk, line);
    if (refusal) throw new Error(`${line}: ${refusal.what}`);
  };
  const lists = of.lists.map((all) => all.map(({ entries, fade }) => ({ entries, up: fade, down: fade })));
  const model = recordLists(run, { ...of, lists });
  run(`set list ${HAND + 1} fader crossfade`);
  run(`set list ${TIMED + 1} timecode on`);
  of.lists[TIMED]!.forEach((_, k) => run(`set list ${TIMED + 1} cue ${k + 1} at 0:00:${String(1 + k * APART)}`));
  return { desk, model: newModel(model, PARAMS, ["d1", "d2"]) };
}

const without = (model: ModelPlayer, list: number) =>
  model.contributions.forEach((all, param) =>
    model.contributions.set(
      param,
      all.filter((c) => c.list !== list),
    ),
  );

/** The lane of a list by the words: the travel from one end to the other in place of time; right back, nothing has been. */
function byHand(model: ModelPlayer) {
  const { cues } = model.lists[HAND]!;
  let [level, end] = [100, 100];
  let way: { travel: number; before: Map<string, Contribution[]>; stood: number | null } | undefined;
  return (to: number, t: number) => {
    level = to;
    const travel = Math.abs(level - end) / 100;
    if (!way && travel === 0) return;
    if (!way) {
      const stood = model.standing[HAND]!;
      const next = stood === null ? 0 : stood + 1;
      if (next >= cues.length) {
        if (travel === 1) end = level;
        return;
      }
      const before = new Map(
        [...model.contributions].map(([param, all]) => [
          param,
          all.filter((c) => c.list === HAND).map((c) => ({ ...c })),
        ]),
      );
      const made = (way = { travel, before, stood });
      // Without a time the travel itself is the fade.
      const fade = cues[next]!.up || 1;
      modelArrive(model, HAND, next, t, false, fade);
      // Its time is the hand's.
      for (const c of [...model.contributions.values()].flat()) {
        if (c.list !== HAND) continue;
        const { own, weight } = c;
        c.own = () => own(t + fade * made.travel);
        c.weight = () => weight(t + fade * made.travel);
      }
    }
    way.travel = travel;
    if (travel === 0) {
      without(model, HAND);
      for (const [param, all] of way.before) model.contributions.get(param)!.push(...all);
      model.standing[HAND] = way.stood;
      way = undefined;
    } else if (travel === 1) {
      end = level;
      way = undefined;
    }
  };
}

test("a list, a list by hand and a list on timecode over each other", () => {
  fc.assert(
    fc.property(given, fc.array(step, { minLength: 1, maxLength: 14 }), (of, story) => {
      const { desk, model } = build(of);
      const log: string[] = [];
      const moveHand = byHand(model);
      /** Stage time at which timecode was, or would have been, at 0. */
      let [now, zero] = [0, 0];
      const timed = of.lists[TIMED]!.map((_, k) => 1 + k * APART);
      const does = (line: string) => {
        log.push(`${now}: ${line}`);
        const refusal = runLine(desk, line);
        if (refusal) throw new Error(`${refusal.what}\n${log.join("\n")}`);
      };
      does("timecode run");
      for (const { wait: time, what } of story) {
        wait(desk, time);
        for (const [k, at] of timed.entries())
          if (at > now - zero + 1e-9 && at <= now + time - zero + 1e-9) modelArrive(model, TIMED, k, zero + at, false);
        now += time;
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
        } else if (deed === "hand") {
          does(`level list 2 at ${n}`);
          moveHand(n, now);
        } else if (deed === "locate") {
          const frames = Math.round(n * 30);
          // So near it is no jump.
          if (Math.abs(frames / 30 - (now - zero)) < 0.1) continue;
          does(`timecode at 0:00:${Math.floor(frames / 30)}:${frames % 30}`);
          zero = now - frames / 30;
          // As it would stand had timecode run there from its start, its goes come now.
          without(model, TIMED);
          model.standing[TIMED] = null;
          for (const [k, at] of timed.entries())
            if (at <= frames / 30 + 1e-9) modelArrive(model, TIMED, k, zero + at, false);
        }
        for (const param of PARAMS) {
          const fixture = Object.values(desk.world.show.fixtures).find((f) => f.number === Number(param[1]))!.id;
          const got = stageValues(desk.player, fixture, attributeOf(param))[0]!;
          const wanted = modelValue(model, param, now);
          if (Math.abs(got - wanted) > 1e-6)
            throw new Error(
              `${param} at ${now}: engine ${got}, model ${wanted}\n${log.join("\n")}\n${JSON.stringify(of)}`,
            );
        }
      }
    }),
    { numRuns: runs(100) },
  );
});
