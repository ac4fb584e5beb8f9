/** Playing events, done (SEMANTICS 5, 6 and 9). */
import { isRefusal, refuse, type Refusal } from "../../show/refusal";
import type { CueList } from "../../show/schema";
import { stageTime, type StageTime } from "../../units/units";
import { watchBlack } from "../arrive/black/move";
import { repace } from "./beats";
import { changeClock, listTimeAt } from "./clock";
import { control } from "../stage/control";
import { carryOut, flash } from "./deeds";
import { advance } from "./due";
import type { PlayEvent } from "../events";
import type { Answer } from "./kinds/kind";
import { kindOf } from "./kinds/kinds";
import { noSuchCue } from "./kinds/words";
import { resync, resyncHeld } from "./cycles";
import { tapTogether } from "./tap";
import { moveTimecode } from "./timecode/follow";
import { release } from "./leave";
import { setTime } from "../player";
import { goTo, setGrand } from "./ramps";
import { placeOfCue, type ListRun } from "./run";
import type { Player } from "../state";

/**
 * Does a playing event at stage time `at` (not before the player's time). What is due before happens first.
 * @returns a refusal where it cannot be done; then nothing changed.
 */
export function play(player: Player, event: PlayEvent, at: StageTime): Refusal | undefined {
  do advance(player, at);
  while (player.unfinished);
  const refusal = act(player, event);
  if (!refusal) {
    setTime(player, player.now);
    watchBlack(player);
  }
  return refusal;
}

const MOST_WAITING = 1000;

function act(player: Player, event: PlayEvent): Refusal | undefined {
  const { stage } = player;
  if (event.kind === "grand") return void goTo(player, null, event.value, event.over);
  if (event.kind === "blackout") {
    stage.blackout = event.on;
    return void setGrand(player, stage.grand * 100);
  }
  if (event.kind === "release" && event.list === null) {
    for (const run of player.runs.values()) {
      const list = player.world.show.lists[run.id];
      if (list && kindOf(list).goes) release(player, run);
    }
    return undefined;
  }
  if (event.kind === "later") {
    if (player.waiting.length >= MOST_WAITING) return refuse("too many macros wait already", "Let some of them end");
    const { after, macro, lines } = event;
    player.waiting.push({ at: stageTime(player.now + after), macro, lines });
    return undefined;
  }
  if (event.kind === "timecode") return moveTimecode(player, event);
  if (event.kind === "control") return control(player, event.fixtures, event.does);
  if (event.kind === "resync" && event.list === null) {
    resyncHeld(player.stage);
    return undefined;
  }
  const list = player.world.show.lists[event.list as string];
  const run = list && player.runs.get(list.id);
  return list && run ? actOn(player, list, run, event) : refuse("that list does not exist");
}

function actOn(player: Player, list: CueList, run: ListRun, event: PlayEvent): Refusal | undefined {
  const kind = kindOf(list);
  switch (event.kind) {
    case "go":
      return carryOut(player, run, takingTime(kind.go(list, run, event.cue), event.over));
    case "next":
      if (placeOfCue(list, event.cue) < 0) return noSuchCue(list);
      run.next = event.cue;
      run.since = listTimeAt(run.clock, player.now);
      return undefined;
    case "back":
      return carryOut(player, run, kind.back(list, run));
    case "pause":
      return carryOut(player, run, kind.pause(list, run));
    case "assert":
      return carryOut(player, run, kind.assert(list, run));
    case "release":
      return void release(player, run);
    case "level":
      return void goTo(player, run.id, event.value, event.over);
    case "flash":
      return flash(player, list, run, event.on);
    case "effectRate":
      run.effects = changeClock(run.effects, player.now, { rate: event.value / 100 });
      return undefined;
    case "resync":
      return void resync(player, run);
    case "tap":
      return void tapTogether(player, list, run);
    case "bpm":
      run.bpm = null;
      repace(player, list, run);
      return undefined;
    case "rate":
      // An effect lane has nothing else that is timed.
      if (kind.mixes) run.effects = changeClock(run.effects, player.now, { rate: event.value / 100 });
      run.rate = event.value / 100;
      repace(player, list, run);
      return undefined;
    default:
      return undefined;
  }
}

/** An answer that takes so many seconds in place of its own times. */
function takingTime(answer: Answer, over: number | undefined): Answer {
  if (over === undefined || answer === undefined || isRefusal(answer)) return answer;
  if (answer.do === "arrive") return { ...answer, fade: over, seconds: true };
  return answer.do === "release" ? { ...answer, time: over } : answer;
}
