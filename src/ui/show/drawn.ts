/**
 * What the interface is drawn from: the session's state, at once. While a hand drags over many fixtures the stage
 * and what is under the hand follow every movement, and the panels around it now and then: to draw them all each
 * time would hold the hand up.
 */
import type { StoreApi } from "zustand/vanilla";
import { namesIn } from "@/core/units/names";
import type { SessionState } from "@/session/state";

/** From so many selected on, drawing everything takes longer than a frame. */
const MANY = 200;
/** A show of so many fixtures is drawn in a task of its own. */
const THOUSANDS = 2000;
/** It is drawn once the hand has rested for so long, and at the latest after so long, milliseconds. */
const RESTS_MS = 120;
const LATEST_MS = 700;

/** What may wait: what is held and how it spreads, and what is told of it. Anything else is drawn at once, by itself. */
const WAITS: ReadonlySet<keyof SessionState> = new Set(["world", "history", "saved", "lines"]);
const HANDS_WAIT = new Set(["held", "spread", "keptOut", "cameFrom", "over"]);

const differ = <T extends object>(a: T, b: T): (keyof T)[] =>
  (Object.keys(b) as (keyof T)[]).filter((key) => a[key] !== b[key]);

/** Whether all that differs in the world may wait for the hand. */
const mayWait = (was: SessionState, now: SessionState): boolean =>
  was.world.show === now.world.show && differ(was.world.hands, now.world.hands).every((key) => HANDS_WAIT.has(key));

/** What differs and does not wait. */
function urgent(was: SessionState, now: SessionState): Partial<SessionState> | undefined {
  const keys = differ(was, now).filter((key) => !WAITS.has(key));
  return keys.length > 0 ? Object.fromEntries(keys.map((key) => [key, now[key]])) : undefined;
}

/** What a hand is doing in this window. */
interface Hand {
  down: boolean;
  /** When it last turned a wheel or repeated a key. */
  turnedAt: number;
}

let hand: Hand | undefined;
/** What waits for the hand to be lifted. */
const waiting = new Set<() => void>();

function handHere(): Hand {
  if (hand) return hand;
  const made: Hand = { down: false, turnedAt: -Infinity };
  const turned = () => (made.turnedAt = performance.now());
  const up = () => {
    made.down = false;
    waiting.forEach((draw) => draw());
  };
  addEventListener("pointerdown", () => (made.down = true), true);
  addEventListener("pointerup", up, true);
  addEventListener("pointercancel", up, true);
  addEventListener("wheel", turned, { capture: true, passive: true });
  window.addEventListener("keydown", (event) => void (event.repeat && turned()), true);
  return (hand = made);
}

type Listener = Parameters<StoreApi<SessionState>["subscribe"]>[0];
/** What is drawn, as a hook follows it. */
export type Drawn = Pick<StoreApi<SessionState>, "getState" | "getInitialState" | "subscribe">;

/** So many hear of it between one movement of the hand and the next. */
const SLICE = 12;

/** A state whose followers hear of a change at once, or a few at a time so that a hand is heard in between. */
export function createDrawn(start: SessionState) {
  let state = start;
  const listeners = new Set<Listener>();
  let timer: ReturnType<typeof setTimeout> | undefined;
  const put = (next: SessionState, tell: (was: SessionState) => void) => {
    clearTimeout(timer);
    const was = state;
    state = next;
    tell(was);
  };
  return {
    getState: () => state,
    getInitialState: () => start,
    subscribe(listener: Listener) {
      listeners.add(listener);
      return () => void listeners.delete(listener);
    },
    atOnce: (next: SessionState) => put(next, (was) => listeners.forEach((hears) => hears(next, was))),
    inSlices: (next: SessionState) =>
      put(next, (was) => {
        const left = [...listeners];
        const some = () => {
          for (const hears of left.splice(0, SLICE)) if (listeners.has(hears)) hears(next, was);
          if (left.length > 0) timer = setTimeout(some);
        };
        some();
      }),
  };
}

const drawn = new WeakMap<StoreApi<SessionState>, Drawn>();

/** The state that is drawn of a session. */
export function drawnOf(store: StoreApi<SessionState>): Drawn {
  const known = drawn.get(store);
  if (known) return known;
  const made = createDrawn(store.getState());
  drawn.set(store, made);
  const now = handHere();
  let drawnAt = -Infinity;
  let timer: ReturnType<typeof setTimeout> | undefined;
  const draw = () => {
    clearTimeout(timer);
    waiting.delete(draw);
    drawnAt = performance.now();
    if (made.getState() !== store.getState()) made.atOnce(store.getState());
  };
  /** In the midst of a drag: lines about thousands take long to write, and wait for its end. */
  const drawAmidst = () => {
    drawnAt = performance.now();
    made.inSlices({ ...store.getState(), lines: made.getState().lines });
  };
  /** Of thousands, what was done and what is drawn of it are two tasks: a hand is heard in between. */
  const drawSoon = () => {
    clearTimeout(timer);
    timer = setTimeout(draw);
  };
  store.subscribe((state) => {
    const at = performance.now();
    const busy = now.down || at - now.turnedAt < RESTS_MS;
    const many = state.world.hands.selection.length >= MANY;
    if (!busy || !many || !mayWait(made.getState(), state))
      return namesIn(state.world.show.fixtures).length >= THOUSANDS ? drawSoon() : draw();
    const pressing = urgent(made.getState(), state);
    if (pressing) made.atOnce({ ...made.getState(), ...pressing });
    if (at - drawnAt > LATEST_MS) drawAmidst();
    clearTimeout(timer);
    waiting.add(draw);
    timer = setTimeout(() => (now.down ? drawAmidst() : draw()), RESTS_MS);
  });
  return made;
}
