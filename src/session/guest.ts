/** A window beside the host's: the same show, in step; what it does is done by the host. */
import { createStore } from "zustand/vanilla";
import { perform } from "@/core/desk/perform";
import { applyDiff, writeDiff, type Diff } from "@/core/show/diff";
import type { History } from "@/core/show/history";
import { isRefusal, refuse, refusalText, type Refusal } from "@/core/show/refusal";
import type { Why } from "@/core/play/why";
import type { World } from "@/core/show/world";
import { frameBytes, openFrame, type Layout } from "@/engine/frame";
import { CLOCK_EVERY_MS, type Running } from "@/engine/messages";
import { viewOf, type StageView } from "@/engine/view";
import { createAsking } from "./asking";
import { browserId, consentOf } from "./consent";
import { startEngine, type EngineLink } from "./engineLink";
import { guarded, handsOn, stepWords } from "./hands";
import { workOut } from "./inPieces";
import { startLooks } from "./looksLink";
import { NO_WIRE, RESTING, type Session, type SessionState } from "./state";
import type { Entry } from "./storage/shows";
import {
  frameChannel,
  FrameMessageSchema,
  type FrameMessage,
  windowChannel,
  WindowMessageSchema,
  type Request,
  type Steps,
  type WindowMessage,
} from "./windowMessages";
import { NOTHING_WRONG, waysOf } from "./ways";
import { findWire } from "./wirePlaces";

/** What a guest goes on with when the host has gone. */
export interface Inheritance {
  world: World;
  running: Running | null;
  /** The last change heard of, and those not known to be written. */
  seq: number;
  unwritten: readonly Entry[];
  /** An engine that stood by, if this window had one. */
  engine: EngineLink | undefined;
}

export interface Guest {
  session: Session;
  /** Keeps an engine in step, so that this window can go on at once when the host closes. */
  warm(): void;
  inherit(): Inheritance;
}

interface Answer {
  refusal: Refusal | undefined;
  why: Why | null;
}

const PATIENCE_MS = 5000;
const historyOf = ({ done, undone }: Steps): History => ({
  done: done === null ? [] : [{ says: done, diff: [] }],
  undone: undone === null ? [] : [{ says: undone, diff: [] }],
});

/** A view before the first frame has come. */
const emptyView = (layout: Layout): StageView => viewOf(layout, openFrame(layout, new ArrayBuffer(frameBytes(layout))));

/** Joins the window that hosts a show; resolves once it has answered. */
export function joinHost(id: string): Promise<Guest> {
  const me = crypto.randomUUID();
  const channel = new BroadcastChannel(windowChannel(id));
  const frames = new BroadcastChannel(frameChannel(id));
  const say = (message: WindowMessage) => channel.postMessage(message);
  const asking = createAsking<Answer>({
    after: PATIENCE_MS,
    answer: () => ({
      refusal: refuse(
        "the window that hosts this show does not answer",
        "Try again in a moment: another window takes over",
      ),
      why: null,
    }),
  });
  const ask = (request: Request) => asking.ask((number) => say({ kind: "request", from: me, id: number, request }));
  let running: Running | null = null;
  let heardAt = 0;
  let seq = 0;
  let unwritten: Entry[] = [];
  let engine: EngineLink | undefined;

  return new Promise((resolve) => {
    let guest: (Guest & { follow(diff: Diff): void }) | undefined;
    /** The last frame, which comes by a way of its own: it may be here before what it is laid out by. */
    let frame: FrameMessage | undefined;
    const showFrame = () => {
      const view = guest?.session.store.getState().view;
      if (!frame || !view || view.layout.generation !== frame.generation) return;
      if (frame.memory.byteLength !== frameBytes(view.layout)) return;
      guest!.session.store.setState({ view: viewOf(view.layout, openFrame(view.layout, frame.memory)) });
    };
    const lay = (layout: Layout) => {
      guest?.session.store.setState({ view: emptyView(layout) });
      showFrame();
    };
    const welcome = (message: Extract<WindowMessage, { kind: "welcome" }>) => {
      const world = message.world as World;
      seq = message.seq;
      unwritten = [];
      const first = !guest;
      guest ??= make(world);
      guest.session.store.setState({
        world,
        playing: message.playing,
        saved: message.saved,
        wire: message.wire,
        history: historyOf(message.steps),
      });
      if (message.layout) lay(message.layout);
      if (first) resolve(guest);
    };
    const hear = (message: WindowMessage) => {
      switch (message.kind) {
        case "hosting":
          return say({ kind: "join", from: me });
        case "welcome":
          return message.to === me ? welcome(message) : undefined;
        case "answer":
          if (message.to !== me) return;
          return asking.answer(message.id, {
            refusal: message.refusal ? refuse(message.refusal.what, message.refusal.cure) : undefined,
            why: message.why,
          });
        case "leaving":
          return engine?.begin(running, Math.min(performance.now() - heardAt, CLOCK_EVERY_MS) / 1000);
        case "running":
          heardAt = performance.now();
          if (message.saved !== undefined) running = { saved: message.saved, now: 0 };
          if (message.now !== undefined && running) running = { ...running, now: message.now };
          return engine?.running(message.saved === undefined ? {} : { saved: message.saved });
        case "written":
          unwritten = unwritten.filter((entry) => entry.seq > message.seq);
          return;
      }
      if (!guest) return;
      const { store } = guest.session;
      switch (message.kind) {
        case "diff":
          seq = message.seq;
          unwritten.push({ seq, diff: writeDiff(message.diff), step: message.step });
          store.setState((s) => ({
            world: applyDiff(s.world, message.diff as Diff),
            history: historyOf(message.steps),
          }));
          return guest.follow(message.diff);
        case "layout":
          return lay(message.layout);
        case "playing":
          return store.setState({ playing: message.playing });
        case "wire":
          return store.setState({ wire: message.wire });
        case "saved":
          return store.setState({ saved: message.saved });
      }
    };
    channel.addEventListener("message", ({ data }: MessageEvent) => {
      const parsed = WindowMessageSchema.safeParse(data);
      if (parsed.success) hear(parsed.data);
    });
    frames.addEventListener("message", ({ data }: MessageEvent) => {
      const parsed = FrameMessageSchema.safeParse(data);
      if (!parsed.success) return;
      frame = parsed.data;
      showFrame();
    });
    say({ kind: "join", from: me });
  });

  function make(world: World): Guest & { follow(diff: Diff): void } {
    const store = createStore<SessionState>(() => ({
      world,
      history: historyOf({ done: null, undone: null }),
      saved: "saved",
      playing: RESTING,
      wire: NO_WIRE,
      view: undefined,
      notices: [],
      lines: [],
      why: null,
    }));
    const looks = startLooks(() => ({
      world: store.getState().world,
      steps: stepWords(store.getState().history),
      view: store.getState().view,
    }));
    const hands = handsOn(store, looks);
    const leave = () => say({ kind: "leave", from: me });
    addEventListener("pagehide", leave);
    const told = (refusal: Refusal): Refusal => (hands.tell(refusalText(refusal), "refused"), refusal);
    const agree: Session["agree"] = (destinations) => void ask({ kind: "agree", destinations: [...destinations] });
    const session: Session = {
      id,
      store,
      readOnly: null,
      quietly: null,
      hosts: false,
      ...hands,
      ...waysOf(
        hands,
        (doing) => {
          // Undo and redo are the host's alone: only it has the steps.
          const tried = doing.control ? undefined : guarded(() => perform(store.getState(), doing));
          if (tried && isRefusal(tried)) return { ...NOTHING_WRONG, now: tried };
          const end = ask({ kind: "do", ...doing, says: doing.says ?? null, join: doing.join ?? false });
          return { now: undefined, end: end.then(({ refusal }) => refusal) };
        },
        agree,
      ),
      async actInPieces(made) {
        const tried = await workOut(() => store.getState().world, made);
        if (tried === "stopped") return tried;
        const refusal = isRefusal(tried)
          ? tried
          : (await ask({ kind: "pieces", pieces: made.pieces.map((piece) => [...piece]), says: made.says })).refusal;
        return refusal && told(refusal);
      },
      askWire: (asked) => void ask({ kind: "wire", ask: asked }),
      agree,
      whyOf: async (key) => (await ask({ kind: "why", key })).why,
      flush: async () => undefined,
      close() {
        leave();
        removeEventListener("pagehide", leave);
        looks.close();
        engine?.close();
        channel.close();
        frames.close();
      },
    };
    return {
      session,
      follow(diff) {
        const text = writeDiff(diff);
        looks.diff(text);
        engine?.diff(text);
      },
      warm() {
        if (engine) return;
        const made = startEngine(store.getState().world, null, frameChannel(id), true);
        engine = made;
        if (running) made.running({ saved: running.saved });
        made.consent(consentOf(id));
        void findWire().then(
          (places) =>
            places?.bridge && engine === made && made.bridge(places.bridge, places.token, `${browserId()} ${id}`),
        );
      },
      inherit() {
        const given = engine;
        engine = undefined;
        return { world: store.getState().world, running, seq, unwritten, engine: given };
      },
    };
  }
}
