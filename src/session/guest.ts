/** A window beside the host's: the same show, in step; what it does is done by the host. */
import { createStore } from "zustand/vanilla";
import { perform } from "@/core/command/perform";
import { applyDiff, writeDiff, type Diff } from "@/core/show/diff";
import type { History } from "@/core/show/history";
import { isRefusal, refuse, refusalText, type Refusal } from "@/core/show/refusal";
import type { Why } from "@/core/play/why";
import type { World } from "@/core/show/world";
import { frameBytes, openFrame, type Layout } from "@/engine/frame";
import type { Running } from "@/engine/messages";
import { viewOf, type StageView } from "./engineLink";
import { workOut } from "./inPieces";
import { startLooks } from "./looksLink";
import { handsOn, NO_WIRE, RESTING, type Session, type SessionState } from "./session";
import { frameChannel, FrameMessageSchema, windowChannel, WindowMessageSchema, type Request, type Steps, type WindowMessage } from "./windowMessages";

export interface Guest {
  session: Session;
  /** The running state last heard of, for taking over. */
  lastRunning(): Running | null;
}

const PATIENCE_MS = 5000;
const historyOf = ({ done, undone }: Steps): History => ({ done: done === null ? [] : [{ says: done, diff: [] }], undone: undone === null ? [] : [{ says: undone, diff: [] }] });

/** A view before the first frame has come. */
const emptyView = (layout: Layout): StageView => viewOf(layout, openFrame(layout, new ArrayBuffer(frameBytes(layout))));

/** Joins the window that hosts a show; resolves once it has answered. */
export function joinHost(id: string): Promise<Guest> {
  const me = crypto.randomUUID();
  const channel = new BroadcastChannel(windowChannel(id));
  const frames = new BroadcastChannel(frameChannel(id));
  const say = (message: WindowMessage) => channel.postMessage(message);
  const waiting = new Map<number, (answer: { refusal: Refusal | undefined; why: Why | null }) => void>();
  let count = 0;
  let running: Running | null = null;

  return new Promise((resolve) => {
    let guest: Guest | undefined;
    channel.addEventListener("message", ({ data }: MessageEvent) => {
      const parsed = WindowMessageSchema.safeParse(data);
      if (!parsed.success) return;
      const message = parsed.data;
      if (message.kind === "hosting") say({ kind: "join", from: me });
      else if (message.kind === "running") {
        if (message.saved !== undefined) running = { saved: message.saved, now: 0 };
        if (message.now !== undefined && running) running = { ...running, now: message.now };
      }
      else if (message.kind === "welcome" && message.to === me) {
        if (!guest) resolve((guest = make(message.world as World)));
        guest.session.store.setState({ world: message.world as World, playing: message.playing, saved: message.saved, history: historyOf(message.steps), ...(message.layout ? { view: emptyView(message.layout) } : {}) });
      } else if (message.kind === "answer" && message.to === me) {
        waiting.get(message.id)?.({ refusal: message.refusal ? refuse(message.refusal.what, message.refusal.cure) : undefined, why: message.why });
        waiting.delete(message.id);
      } else if (guest) follow(guest.session, message);
    });
    frames.addEventListener("message", ({ data }: MessageEvent) => {
      const parsed = FrameMessageSchema.safeParse(data);
      const view = guest?.session.store.getState().view;
      if (!parsed.success || !view || view.layout.generation !== parsed.data.generation || parsed.data.memory.byteLength !== frameBytes(view.layout)) return;
      guest!.session.store.setState({ view: viewOf(view.layout, openFrame(view.layout, parsed.data.memory)) });
    });
    say({ kind: "join", from: me });
  });

  function ask(request: Request): Promise<{ refusal: Refusal | undefined; why: Why | null }> {
    const number = ++count;
    return new Promise((done) => {
      const late = setTimeout(() => done({ refusal: refuse("the window that hosts this show does not answer", "Try again in a moment: another window takes over"), why: null }), PATIENCE_MS);
      waiting.set(number, (answer) => (clearTimeout(late), done(answer)));
      say({ kind: "request", from: me, id: number, request });
    });
  }

  function make(world: World): Guest {
    const store = createStore<SessionState>(() => ({ world, history: historyOf({ done: null, undone: null }), saved: "saved", playing: RESTING, wire: NO_WIRE, view: undefined, notices: [], lines: [], why: null }));
    const looks = startLooks(world);
    const hands = handsOn(store, looks);
    const leave = () => say({ kind: "leave", from: me });
    addEventListener("pagehide", leave);
    const session: Session = {
      id, store, ...hands,
      async run(line, join = false) {
        const found = hands.read(line);
        if (found === undefined) return undefined;
        if (isRefusal(found)) return hands.tell(refusalText(found), "refused"), found;
        if (found.why) return hands.showWhy(found.why[0] ?? null), undefined;
        const { refusal } = await ask({ kind: "line", line, join });
        if (refusal) hands.tell(refusalText(refusal), "refused");
        return refusal;
      },
      act(intents, says, join = false) {
        const tried = perform(store.getState(), { intents: [...intents], events: [] });
        if (isRefusal(tried)) return hands.tell(refusalText(tried), "refused"), tried;
        void ask({ kind: "intents", intents: [...intents], says, join }).then(({ refusal }) => refusal && hands.tell(refusalText(refusal), "refused"));
        return undefined;
      },
      async actInPieces(made) {
        const tried = await workOut(() => store.getState().world, made);
        if (tried === "stopped") return tried;
        const refusal = isRefusal(tried) ? tried : (await ask({ kind: "pieces", pieces: made.pieces.map((piece) => [...piece]), says: made.says })).refusal;
        if (refusal) hands.tell(refusalText(refusal), "refused");
        return refusal;
      },
      event: async (event) => void (await ask({ kind: "event", event })),
      askWire: (asked) => void ask({ kind: "wire", ask: asked }),
      whyOf: async (key) => (await ask({ kind: "why", key })).why,
      flush: async () => undefined,
      close() {
        leave();
        removeEventListener("pagehide", leave);
        looks.close();
        channel.close();
        frames.close();
      },
    };
    watched.set(session, (diff) => looks.diff(writeDiff(diff)));
    return { session, lastRunning: () => running };
  }
}

const watched = new WeakMap<Session, (diff: Diff) => void>();

function follow(session: Session, message: WindowMessage): void {
  const { store } = session;
  if (message.kind === "diff") {
    store.setState((s) => ({ world: applyDiff(s.world, message.diff as Diff), history: historyOf(message.steps) }));
    watched.get(session)?.(message.diff as Diff);
  } else if (message.kind === "layout") store.setState({ view: emptyView(message.layout) });
  else if (message.kind === "playing") store.setState({ playing: message.playing });
  else if (message.kind === "wire") store.setState({ wire: message.wire });
  else if (message.kind === "saved") store.setState({ saved: message.saved });
}
