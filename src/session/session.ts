/** A running show in the window that hosts it: the show, the hands, the engine and the storage held together. */
import { frozen } from "@/core/units/frozen";
import { createStore } from "zustand/vanilla";
import { foreseenFault, macroLines, type Rest } from "@/core/desk/macros";
import { perform, type Performed } from "@/core/desk/perform";
import type { PlayEvent } from "@/core/play/events";
import { setHighlight } from "@/core/program/intents";
import { diffOf, writeDiff, type Diff } from "@/core/show/change/diff";
import { isRemembered, remember, type History } from "@/core/show/change/history";
import { isRefusal, refusalText, refuse, type Refusal } from "@/core/show/refusal";
import type { World } from "@/core/show/world";
import { browserId } from "./browserId";
import { followConsent } from "./consenting";
import { startEngine, type EngineLink } from "./engineLink";
import { createGathering } from "./gather";
import { guarded, handsOn, stepWords } from "./hands";
import { hostWindows, type Host } from "./host";
import { workOut } from "./inPieces";
import { startLooks, type LooksLink } from "./looksLink";
import { NOTHING_WRONG, waysOf } from "./ways";
import { followWire } from "./wirePlaces";
import { canRepeat, frameChannel, HOST_LEFT, type Request } from "./windowMessages";
import { momentPicture } from "./momentPicture";
import { runRest } from "./macros";
import { keepMoment } from "./storage/moments";
import { createKeeper, NO_KEEPER, type Keeper } from "./storage/keeper";
import type { Opened } from "./storage/shows";
import { loadHistory, type StepKept } from "./storage/steps";
import { newState, type Quietly, type Session, type SessionState } from "./state";

const MOMENT_EVERY_MS = 10 * 60_000;

const after = (before: History, since: History): History => ({
  done: [...before.done, ...since.done],
  undone: since.done.length + since.undone.length > 0 ? since.undone : before.undone,
});

export interface SessionWays {
  /** Of an engine that stood by for a window that has gone: it goes on at once. */
  engine?: EngineLink;
  /** Settles what of a window that has gone is in storage; until then nothing is written. Tells the sequence number to go on from, and the show where storage has a newer one. */
  settled?: Promise<{ seq: number; newer: World | null }>;
  /** Of a host that has gone: requests it did, and this window's own that are open. */
  inherited?: { did: readonly string[]; open: readonly Request[] };
  /** In words: an earlier version to look at. Nothing is written, nothing is sent. */
  readOnly?: string;
}

export function startSession(id: string, opened: Opened, ways: SessionWays = {}): Session {
  const { readOnly = null } = ways;
  const store = createStore<SessionState>(() => newState(frozen(opened.world)));
  const keeper: Keeper =
    readOnly === null
      ? createKeeper(
          id,
          opened.seq,
          (saved) => store.setState({ saved: saved === "saved" && gathering.waits() ? "saving" : saved }),
          ways.settled,
        )
      : NO_KEEPER;
  const looks: LooksLink = startLooks(
    () => ({
      world: store.getState().world,
      steps: stepWords(store.getState().history),
      view: store.getState().view,
    }),
    (checked) => store.setState({ checked }),
    (text) => hands.tell(text, "refused"),
    () => gathering.settle(),
  );
  const hands = handsOn(store, looks);
  const engine: EngineLink =
    ways.engine ??
    startEngine(opened.world, opened.running, frameChannel(readOnly === null ? id : crypto.randomUUID()));
  let host: Host | undefined;
  const ears = new Set<(address: string, value: number) => void>();
  engine.listen({
    layout: (view) => (store.setState({ view }), looks.stage(view)),
    copied: (view) => store.setState({ view }),
    playing: (playing) => store.setState({ playing }),
    running: (change) => {
      keeper.playing(change);
      host?.running(change);
    },
    wire: (wire) => store.setState({ wire }),
    trouble: (text) => hands.tell(text, "refused"),
    gone(text) {
      hands.tell(text, "refused");
      store.setState({ gone: text });
    },
    osc: (address, value) => ears.forEach((heard) => heard(address, value)),
    runs: (rest) => void runRest(rest, hands, quietly.do, hands.shows, engine.step).then(told),
    world: () => store.getState().world,
  });
  if (ways.engine) engine.begin(opened.running);
  const unfollow =
    readOnly === null
      ? followWire(
          () => store.getState().wire.bridge !== null,
          (port, token) => engine.bridge(port, token, `${browserId()} ${id}`),
        )
      : () => undefined;
  if (opened.notice) hands.tell(opened.notice, "refused");

  /** Hands a change on to everyone who follows, but for the engine. */
  const pass = (diff: Diff, text: string, step: StepKept | null): void => {
    looks.diff(text);
    host?.diff(diff, keeper.seq(), step);
  };
  const gathering = createGathering(({ world, diff, step }) => {
    const text = writeDiff(diff);
    keeper.change(world, text, step);
    pass(diff, text, step);
  });
  const commit = (done: Pick<Performed, "world" | "history" | "diff" | "how" | "says">) => {
    const { world, diff, how, says } = done;
    // The stage first: it works while the page draws.
    if (diff.length > 0) engine.change(diff);
    store.setState({ world, history: done.history });
    if (diff.length === 0) return;
    if (readOnly === null && store.getState().saved === "saved") store.setState({ saved: "saving" });
    gathering.take({ world, diff, step: diff.some(isRemembered) ? { how, says } : null });
  };
  /** Refused where an earlier version is only looked at. */
  const fixed = (diff: Diff): Refusal | undefined =>
    readOnly !== null && diff.some((c) => c.path[0] === "show")
      ? refuse(
          "this is an earlier version, to look at: nothing in it can be changed",
          "Keep it as a show of its own to go on with it",
        )
      : undefined;
  const told = <T extends Refusal | "stopped" | undefined>(result: T): T => {
    if (isRefusal(result)) hands.tell(refusalText(result), "refused");
    return result;
  };
  // An earlier version that is only looked at sends nothing.
  const agree =
    readOnly === null
      ? followConsent(
          id,
          (consent) => {
            engine.consent(consent);
            host?.consent(consent);
          },
          (text) => hands.tell(text, "refused"),
        )
      : () => undefined;

  // What was done before it was opened can still be undone; what was done since comes after it.
  const past = async () => {
    const settled = await ways.settled;
    if (settled?.newer) {
      gathering.settle();
      const diff = diffOf(store.getState().world, settled.newer);
      store.setState({ world: frozen(settled.newer) });
      const text = writeDiff(diff);
      engine.diff(text);
      pass(diff, text, null);
    }
    const before = await loadHistory(id, settled?.seq ?? opened.seq);
    store.setState(({ history }) => ({ history: after(before, history) }));
  };
  if (readOnly === null)
    past().catch(() =>
      hands.tell("What could be undone before could not be read; the show itself is whole", "refused"),
    );

  const play = async (events: readonly PlayEvent[]): Promise<Refusal | undefined> => {
    for (const event of events) {
      const refusal = await engine.event(event);
      if (refusal !== null) return refuse(refusal);
    }
    return undefined;
  };
  const quietly: Quietly = {
    do(doing) {
      const done = guarded(() => perform(store.getState(), doing));
      const no = isRefusal(done) ? done : fixed(done.diff);
      if (no || isRefusal(done)) return { ...NOTHING_WRONG, now: no };
      commit(done);
      return done.events.length === 0 ? NOTHING_WRONG : { now: undefined, end: play(done.events) };
    },
    async doInPieces(made) {
      const done = await workOut(() => store.getState().world, made);
      if (done === "stopped" || isRefusal(done)) return done;
      const no = fixed(done.diff);
      if (no) return no;
      const { says } = made;
      commit({ ...done, history: remember(store.getState().history, says, done.diff), how: "done", says });
      return undefined;
    },
  };

  const macro: Session["macro"] = async (of) => {
    const rest = macroLines(store.getState().world, of);
    const fault = isRefusal(rest) ? rest : foreseenFault(rest, hands.context());
    return fault ?? runRest(rest as Rest, hands, quietly.do, hands.shows, engine.step);
  };

  const session: Session = {
    id,
    store,
    agree,
    readOnly,
    quietly,
    hosts: readOnly === null,
    ...hands,
    ...waysOf(hands, quietly.do, agree, macro),
    macro,
    onOsc(heard) {
      ears.add(heard);
      return () => void ears.delete(heard);
    },
    actInPieces: async (made) => told(await quietly.doInPieces(made)),
    whyOf: (key) => engine.why(key),
    askWire: (ask) => engine.wire(ask),
    flush() {
      gathering.settle();
      return keeper.flush();
    },
    close() {
      gathering.settle();
      removeEventListener("pagehide", leaving);
      clearInterval(moments);
      unfollow();
      host?.close();
      keeper.close();
      engine.close();
      looks.close();
    },
  };
  // The engine stops before the next window's begins, so that the wire never hears two.
  const leaving = (): void => {
    gathering.settle();
    engine.close();
    host?.leaving();
  };
  /** What this window asked of a host that has gone, done here once it is known what that one had written. */
  const doOpen = async (by: Host, open: readonly Request[]) => {
    await ways.settled?.catch(() => undefined);
    for (const request of open) {
      const { refusal } = canRepeat(request) ? await by.answer(request) : { refusal: HOST_LEFT };
      if (refusal) hands.tell(refusalText(refuse(refusal.what, refusal.cure)), "refused");
    }
  };
  const keepNow = (name: string) => {
    const { show } = store.getState().world;
    void momentPicture(session)
      .then((picture) => keepMoment(id, name, show, { picture }))
      .catch(() => undefined);
  };
  if (readOnly === null) {
    keepNow("When it was opened");
    // Whoever turned it on is not there any more.
    if (opened.world.hands.highlight)
      quietly.do({ intents: [setHighlight.of({ on: false })], events: [], says: "highlight off" });
    host = hostWindows(session, {
      audience: (on) => engine.audience(on),
      seq: () => keeper.seq(),
      settle: () => gathering.settle(),
      did: ways.inherited?.did,
    });
    void doOpen(host, ways.inherited?.open ?? []);
    keeper.onSaved((seq) => host?.saved(seq));
    addEventListener("pagehide", leaving);
  }
  const moments = readOnly === null ? setInterval(() => keepNow("By the clock"), MOMENT_EVERY_MS) : undefined;
  return session;
}
