/** What a first go would otherwise wait for, done beforehand: how lists track, and code that has run before. */
import { trackingOf } from "../cue/tracking";
import { newCue } from "../cue/cueDraft";
import { rangeOf } from "../fixture/parameters";
import { paramKey } from "../show/ids";
import { modelOf } from "../show/model";
import type { Cue, Show } from "../show/schema";
import { fixturesByNumber, newHands, newList, type World } from "../show/world";
import { stageTime } from "../units/units";
import { play } from "./act";
import { advance } from "./due";
import { compute, createPlayer } from "./player";
import { restorePlay, savePlay } from "./saved";

/** Works out how every list tracks: an edit changes only what it touches. */
export function prepareLists(show: Pick<Show, "lists">): void {
  for (const list of Object.values(show.lists)) trackingOf(list);
}

const FIXTURES = 6;

/** A small show of some of the fixtures, with two cues that move everything. */
function rehearsal(show: Show): World | undefined {
  const fixtures = fixturesByNumber(show).slice(0, FIXTURES);
  if (fixtures.length === 0) return undefined;
  const cue = (id: string, number: number, share: number): Cue => ({
    ...newCue(id, number),
    entries: Object.fromEntries(
      fixtures.flatMap((fixture) =>
        modelOf(show, fixture).specs.map((spec) => {
          const [low, high] = rangeOf(spec.functions[0]!);
          return [
            paramKey(fixture.id, spec.cell, spec.head),
            { attribute: spec.head, value: low + (high - low) * share },
          ];
        }),
      ),
    ),
  });
  const list = { ...newList("l1", 1), cues: { c1: cue("c1", 1, 0.2), c2: cue("c2", 2, 0.8) } };
  const small = { ...show, fixtures: Object.fromEntries(fixtures.map((f) => [f.id, f])), lists: { l1: list } };
  return { show: small, hands: newHands(small) };
}

/**
 * Plays a rehearsal again and again, so that the code of a go is compiled before the first one counts. Each
 * step is short; whoever asks goes on until it is done.
 */
export function* rehearse(show: Show, times = 150): Generator<undefined> {
  const world = rehearsal(show);
  if (!world) return;
  const player = createPlayer(world);
  let now = 0;
  for (let i = 0; i < times; i++) {
    play(player, { kind: "go", list: "l1", cue: i % 2 === 0 ? "c1" : "c2" }, stageTime(now));
    compute(player);
    yield;
    for (const pause of [0.5, 4]) {
      advance(player, stageTime((now += pause)));
      compute(player);
    }
    yield;
    // Going on from where another engine was left is rehearsed, too.
    if (i % 4 === 0) restorePlay(createPlayer(world, stageTime(now)), savePlay(player));
  }
}
