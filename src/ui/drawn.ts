/**
 * What the interface is drawn from: the session's state, at once. While a hand drags over many fixtures the stage
 * and what is under the hand follow every movement, and the panels around it now and then: to draw them all each
 * time would hold the hand up.
 */
import { createStore, type StoreApi } from "zustand/vanilla";
import type { SessionState } from "@/session/state";

/** From so many selected on, drawing everything takes longer than a frame. */
const MANY = 200;
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

const drawn = new WeakMap<StoreApi<SessionState>, StoreApi<SessionState>>();

/** The state that is drawn of a session. */
export function drawnOf(store: StoreApi<SessionState>): StoreApi<SessionState> {
  const known = drawn.get(store);
  if (known) return known;
  const made = createStore<SessionState>(() => store.getState());
  drawn.set(store, made);
  const now = handHere();
  let drawnAt = -Infinity;
  let timer: ReturnType<typeof setTimeout> | undefined;
  const draw = () => {
    clearTimeout(timer);
    waiting.delete(draw);
    drawnAt = performance.now();
    if (made.getState() !== store.getState()) made.setState(store.getState(), true);
  };
  /** In the midst of a drag: lines about thousands take long to write, and wait for its end. */
  const drawAmidst = () => {
    drawnAt = performance.now();
    made.setState({ ...store.getState(), lines: made.getState().lines }, true);
  };
  store.subscribe((state) => {
    const at = performance.now();
    const busy = now.down || at - now.turnedAt < RESTS_MS;
    const many = state.world.hands.selection.length >= MANY;
    if (!busy || !many || !mayWait(made.getState(), state)) return draw();
    const pressing = urgent(made.getState(), state);
    if (pressing) made.setState(pressing);
    if (at - drawnAt > LATEST_MS) drawAmidst();
    clearTimeout(timer);
    waiting.add(draw);
    timer = setTimeout(() => (now.down ? drawAmidst() : draw()), RESTS_MS);
  });
  return made;
}
