/** A running show in this window: the show, the hands, the engine and the storage held together. */
import { createStore, type StoreApi } from "zustand/vanilla";
import type { ReadContext } from "@/core/command/command";
import { perform, sayReading } from "@/core/command/perform";
import { readLine, type Read } from "@/core/command/read";
import type { Rippled } from "@/core/cue/looks";
import type { Why } from "@/core/play/why";
import { isLitBy } from "@/core/play/look";
import type { PlayEvent } from "@/core/play/events";
import { applyIntents, type Intent } from "@/core/show/intent";
import { writeDiff, type Diff } from "@/core/show/diff";
import { EMPTY_HISTORY, extendLast, isRemembered, remember, type History } from "@/core/show/history";
import { isRefusal, refusalText, type Refusal } from "@/core/show/refusal";
import { INTENTS } from "@/core/show/registry";
import type { World } from "@/core/show/world";
import type { Playing, WireAsk, WireState } from "@/engine/messages";
import { workOut, type Pieces } from "./inPieces";
import { findWire } from "./wirePlaces";
import { hostWindows, type Host } from "./host";
import { frameChannel } from "./windowMessages";
import { halfOf, startEngine, type EngineLink, type StageView } from "./engineLink";
import { startLooks, type LooksLink } from "./looksLink";
import { keepMoment } from "./storage/moments";
import { createKeeper, type Keeper, type SavedState } from "./storage/keeper";
import type { Opened } from "./storage/shows";
import { loadHistory, type StepKept } from "./storage/steps";

export interface Notice {
  id: number;
  text: string;
  tone: "plain" | "refused";
}

export interface SessionState {
  world: World;
  history: History;
  saved: SavedState;
  playing: Playing;
  wire: WireState;
  /** The stage's memory; a new object whenever its layout changes. */
  view: StageView | undefined;
  notices: readonly Notice[];
  /** The parameter whose stack is shown; null for none. */
  why: string | null;
  /** Lines typed in the Ask bar, the last one last. */
  lines: readonly string[];
}

export interface Session {
  id: string;
  store: StoreApi<SessionState>;
  /** Reads and does a line; a refusal changes nothing and is shown. With `join`, part of the step before (a drag). */
  run(line: string, join?: boolean): Promise<Refusal | undefined>;
  /** What a line would do, in words; its refusal; undefined for an empty line. */
  preview(line: string): { says: string } | Refusal | undefined;
  /** The other cues whose look a line would change, without doing it. */
  ripple(line: string): Promise<Rippled[]>;
  /** The stack behind a parameter. */
  whyOf(key: string): Promise<Why | null>;
  /** Shows or hides the stack behind a parameter. */
  showWhy(key: string | null): void;
  /** Does intents as one step; with `join`, as part of the step before (a drag). */
  act(intents: readonly Intent[], says: string, join?: boolean): Refusal | undefined;
  /** Does many intents as one step, worked out between frames; a refusal is shown, and then nothing changed. */
  actInPieces(pieces: Pieces): Promise<Refusal | "stopped" | undefined>;
  event(event: PlayEvent): Promise<void>;
  /** Asks something of the wire. */
  askWire(ask: WireAsk): void;
  context(): ReadContext;
  noteLine(line: string): void;
  tell(text: string, tone?: Notice["tone"]): void;
  dismiss(id: number): void;
  flush(): Promise<void>;
  close(): void;
}

export const NO_WIRE: WireState = { bridge: null, tests: {} };
export const RESTING: Playing = { runs: {}, grand: 100, blackout: false };
const MOST_LINES = 200;
const MOMENT_EVERY_MS = 10 * 60_000;
let noticeCount = 0;

/** What a window does by itself, hosting or not: reading lines, previews, notices. */
export function handsOn(store: StoreApi<SessionState>, looks: LooksLink) {
  const context = (): ReadContext => {
    const { world, view } = store.getState();
    const half = view && halfOf(view);
    return {
      world,
      stage(key) {
        const p = view?.index.get(key);
        return p === undefined ? undefined : { value: half!.raw[p]!, attribute: view!.layout.attributes[p]![half!.fn[p]!]! };
      },
      isLit: (fixture) => view !== undefined && isLitBy((key) => {
        const p = view.index.get(key);
        return p === undefined ? undefined : half!.value[p]!;
      }, fixture),
    };
  };
  const read = (line: string): Read | Refusal | undefined => readLine(line, context(), { abbreviate: true });
  return {
    context, read,
    tell: (text: string, tone: Notice["tone"] = "plain") => store.setState((s) => ({ notices: [...s.notices.slice(-3), { id: ++noticeCount, text, tone }] })),
    preview(line: string) {
      const found = read(line);
      if (found === undefined || isRefusal(found)) return found;
      const done = perform(store.getState(), found);
      return isRefusal(done) ? done : { says: sayReading(store.getState(), found) };
    },
    async ripple(line: string) {
      const found = read(line);
      if (found === undefined || isRefusal(found) || found.intents.length === 0) return [];
      const done = perform(store.getState(), found);
      if (isRefusal(done) || !done.diff.some((c) => c.path[0] === "show")) return [];
      return looks.ripple(done.diff);
    },
    showWhy: (why: string | null) => store.setState({ why }),
    noteLine: (line: string) => store.setState((s) => ({ lines: [...s.lines.filter((l) => l !== line), line].slice(-MOST_LINES) })),
    dismiss: (gone: number) => store.setState((s) => ({ notices: s.notices.filter((n) => n.id !== gone) })),
  };
}

const after = (before: History, since: History): History => ({
  done: [...before.done, ...since.done], undone: since.done.length + since.undone.length > 0 ? since.undone : before.undone,
});

export function startSession(id: string, opened: Opened): Session {
  const store = createStore<SessionState>(() => ({
    world: opened.world, history: EMPTY_HISTORY, saved: "saved", playing: RESTING, wire: NO_WIRE, view: undefined, notices: [], lines: [], why: null,
  }));
  const keeper: Keeper = createKeeper(id, opened.seq, (saved) => store.setState({ saved }));
  const looks: LooksLink = startLooks(opened.world);
  const hands = handsOn(store, looks);
  const engine: EngineLink = startEngine(opened.world, opened.running, frameChannel(id), {
    layout: (view) => store.setState({ view }),
    copied: (view) => store.setState({ view }),
    playing: (playing) => store.setState({ playing }),
    running: (change) => {
      keeper.playing(change);
      host.running(change);
    },
    wire: (wire) => store.setState({ wire }),
    trouble: (text) => hands.tell(text, "refused"),
  });
  void findWire().then((places) => places?.bridge && engine.bridge(places.bridge, places.token));
  // What was done before it was opened can still be undone; what was done since comes after it.
  void loadHistory(id, opened.seq).then((before) => store.setState(({ history }) => ({ history: after(before, history) })), () => undefined);
  if (opened.notice) hands.tell(opened.notice, "refused");

  const commit = (world: World, history: History, diff: Diff, step: StepKept): void => {
    store.setState({ world, history });
    if (diff.length === 0) return;
    const text = writeDiff(diff);
    engine.diff(text);
    looks.diff(text);
    keeper.change(world, text, diff.some(isRemembered) ? step : null);
    host.diff(diff);
  };
  const event: Session["event"] = async (made) => {
    const refusal = await engine.event(made);
    if (refusal) hands.tell(refusal, "refused");
  };

  const session: Session = {
    id, store, event, ...hands,
    async run(line, join = false) {
      const found = hands.read(line);
      if (found === undefined) return undefined;
      if (isRefusal(found)) return hands.tell(refusalText(found), "refused"), found;
      const done = perform(store.getState(), found);
      if (isRefusal(done)) return hands.tell(refusalText(done), "refused"), done;
      const how = found.control === "undo" ? "undone" : found.control === "redo" ? "redone" : join ? "joined" : "done";
      commit(done.world, how === "joined" ? extendLast(store.getState().history, done.diff) : done.history, done.diff, { how, says: done.says });
      if (found.why) hands.showWhy(found.why[0] ?? null);
      for (const made of done.events) await event(made);
      return undefined;
    },
    whyOf: (key) => engine.why(key),
    askWire: (ask) => engine.wire(ask),
    act(intents, says, join = false) {
      const { world, history } = store.getState();
      const done = applyIntents(INTENTS, world, intents);
      if (isRefusal(done)) return hands.tell(refusalText(done), "refused"), done;
      commit(done.world, join ? extendLast(history, done.diff) : remember(history, says, done.diff), done.diff, { how: join ? "joined" : "done", says });
      return undefined;
    },
    async actInPieces(made) {
      const done = await workOut(() => store.getState().world, made);
      if (done === "stopped") return done;
      if (isRefusal(done)) return hands.tell(refusalText(done), "refused"), done;
      commit(done.world, remember(store.getState().history, made.says, done.diff), done.diff, { how: "done", says: made.says });
      return undefined;
    },
    flush: () => keeper.flush(),
    close() {
      clearInterval(moments);
      host.close();
      keeper.close();
      engine.close();
      looks.close();
    },
  };
  const keepNow = (name: string) => void keepMoment(id, name, store.getState().world.show).catch(() => undefined);
  keepNow("When it was opened");
  const moments = setInterval(() => keepNow("By the clock"), MOMENT_EVERY_MS);
  const host: Host = hostWindows(session, (on) => engine.audience(on));
  return session;
}
