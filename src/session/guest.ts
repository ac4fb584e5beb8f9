/** A window beside the host's: the same show, in step; what it does is done by the host. */
import { applyDiff, writeDiff, type Diff } from "@/core/show/change/diff";
import type { History } from "@/core/show/change/history";
import { refuse } from "@/core/show/refusal";
import type { World } from "@/core/show/world";
import { frameBytes, openFrame } from "@/engine/frame";
import type { Layout } from "@/engine/layout";
import type { Running } from "@/engine/messages";
import { viewOf, type StageView } from "@/engine/view";
import { createAsking } from "./asking";
import type { EngineLink } from "./engineLink";
import { guestSession, type Answer } from "./guestSession";
import { createStandby } from "./standby";
import { beThere } from "./presence";
import type { Session } from "./state";
import type { Entry } from "./storage/shows";
import {
  canRepeat,
  frameChannel,
  FrameMessageSchema,
  type FrameMessage,
  HOST_LEFT,
  MOST_REFS,
  requestRef,
  windowChannel,
  WindowMessageSchema,
  type Request,
  type Steps,
  type WindowMessage,
} from "./windowMessages";

/** What a guest goes on with when the host has gone. */
export interface Inheritance {
  world: World;
  running: Running | null;
  /** The last change heard of, and those not known to be written. */
  seq: number;
  unwritten: readonly Entry[];
  /** Requests known to be done, and those of this window that are open. */
  did: readonly string[];
  open: readonly Request[];
  /** An engine that stood by, if this window had one. */
  engine: EngineLink | undefined;
}

export interface Guest {
  session: Session;
  /** Keeps an engine in step, so that this window can go on at once when the host closes. */
  warm(): void;
  inherit(): Inheritance;
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
  /** Requests without an answer: another host is asked for them again. */
  const open = new Map<number, Request>();
  const did = new Set<string>();
  const isDone = (number: number) => did.has(requestRef(me, number));
  const send = (number: number, request: Request) => say({ kind: "request", from: me, id: number, request });
  const ask = (request: Request) => {
    let asked = 0;
    return asking
      .ask((number) => {
        asked = number;
        open.set(number, request);
        send(number, request);
      })
      .finally(() => open.delete(asked));
  };
  /** Another window hosts now: what was asked of the one before is asked again, or told as not known. */
  const askAgain = () => {
    for (const [number, request] of open) {
      if (isDone(number)) asking.answer(number, { refusal: undefined, why: null });
      else if (canRepeat(request)) send(number, request);
      else asking.answer(number, { refusal: HOST_LEFT, why: null });
    }
  };
  const standby = createStandby(id);
  let gone: () => void = () => undefined;
  let closed = false;
  let seq = 0;
  let unwritten: Entry[] = [];

  return new Promise((resolve) => {
    let guest: ReturnType<typeof join> | undefined;
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
      guest ??= join(world);
      guest.session.store.setState({
        world,
        playing: message.playing,
        saved: message.saved,
        wire: message.wire,
        history: historyOf(message.steps),
      });
      if (message.layout) lay(message.layout);
      if (first) resolve(guest);
      else askAgain();
    };
    const follow = (diff: Diff, steps: Steps, step: Entry["step"]) => {
      const text = writeDiff(diff);
      unwritten.push({ seq, diff: text, step });
      guest!.session.store.setState((s) => ({ world: applyDiff(s.world, diff), history: historyOf(steps) }));
      guest!.looks.diff(text);
      standby.diff(text);
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
          return standby.begin();
        case "running":
          return standby.heard(message);
        case "consent":
          return standby.agree(message.consent);
        case "written":
          unwritten = unwritten.filter((entry) => entry.seq > message.seq);
          return;
      }
      if (!guest) return;
      const { store } = guest.session;
      switch (message.kind) {
        case "diff":
          // One that was missed, or does not fit, leads to being told everything anew.
          if (message.seq !== seq + 1) return say({ kind: "join", from: me });
          seq = message.seq;
          if (message.did !== null) did.add(message.did);
          if (did.size > MOST_REFS) did.delete(did.values().next().value!);
          try {
            return follow(message.diff, message.steps, message.step);
          } catch {
            return say({ kind: "join", from: me });
          }
        case "layout":
          return lay(message.layout);
        case "playing":
          return store.setState({ playing: message.playing });
        case "wire":
          return store.setState({ wire: message.wire });
        case "gone":
          return store.setState({ gone: message.gone });
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
    // The host knows by it when this window is lost, too.
    void beThere(me).then((leave) => {
      gone = leave;
      if (closed) leave();
      else say({ kind: "join", from: me });
    });
  });

  function join(world: World) {
    const made = guestSession(id, world, ask, () => say({ kind: "leave", from: me }));
    const { store } = made.session;
    const session: Session = {
      ...made.session,
      close() {
        made.session.close();
        standby.close();
        channel.close();
        frames.close();
        closed = true;
        gone();
      },
    };
    return {
      session,
      looks: made.looks,
      warm: () => standby.warm(store.getState().world),
      inherit() {
        const asked = [...open].filter(([number]) => !isDone(number)).map(([, request]) => request);
        // This window answers them itself from here on.
        asking.end({ refusal: undefined, why: null });
        return {
          world: store.getState().world,
          seq,
          unwritten,
          did: [...did],
          open: asked,
          ...standby.inherit(),
        };
      },
    };
  }
}
