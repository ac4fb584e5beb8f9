/** The hosting side: serves the other windows of this show. */
import type { Consent } from "@/core/dmx/consent";
import type { Diff } from "@/core/show/change/diff";
import type { Running } from "@/engine/messages";
import { setHighlight } from "@/core/program/intents";
import { stepWords } from "./hands";
import { whenGone } from "./presence";
import type { Session } from "./state";
import type { StepKept } from "./storage/steps";
import {
  MOST_REFS,
  requestRef,
  UnknownRequestSchema,
  windowChannel,
  WindowMessageSchema,
  type Request,
  type WindowMessage,
} from "./windowMessages";

export interface Host {
  /** @param seq the change's number in the journal. @param step how it counts for undo. */
  diff(diff: Diff, seq: number, step: StepKept | null): void;
  /** All up to this change is written. */
  saved(seq: number): void;
  running(change: Partial<Running>): void;
  consent(consent: Consent): void;
  /** Does what was asked of a host that has gone. */
  answer(request: Request): Promise<HostAnswer>;
  /** This window closes: the next goes on without waiting for its end. */
  leaving(): void;
  close(): void;
}

/** What a window holds: flashes, and the highlight it has turned on. */
interface Holds {
  lists: Set<string>;
  highlight: boolean;
  /** No longer waits for its end. */
  forget(): void;
}

function noteHolds(holds: Holds | undefined, { events, intents }: Extract<Request, { kind: "do" }>): void {
  if (!holds) return;
  for (const event of events) if (event.kind === "flash") holds.lists[event.on ? "add" : "delete"](event.list);
  for (const intent of intents) if (intent.kind === "highlight") holds.highlight = intent.on === true;
}

export interface HostAnswer {
  refusal: { what: string; cure?: string } | null;
  why: Awaited<ReturnType<Session["whyOf"]>>;
}

const NOT_UNDERSTOOD: HostAnswer = {
  refusal: { what: "the window that hosts this show does not understand that", cure: "Reload both windows" },
  why: null,
};
const DONE: HostAnswer = { refusal: null, why: null };

interface Served {
  /** Told whether any other window looks on. */
  audience(on: boolean): void;
  /** Number of the last change. */
  seq(): number;
  /** Hands on what has been done and was not yet told: before an answer to what it was done for. */
  settle(): void;
  /** Requests that are known to be done, by a host that has gone. */
  did?: readonly string[];
}

export function hostWindows(session: Session, { audience, seq, settle, did = [] }: Served): Host {
  const channel = new BroadcastChannel(windowChannel(session.id));
  /** Windows that look on, each with what it holds: it is let go of when that window leaves or is lost. */
  const guests = new Map<string, Holds>();
  const say = (message: WindowMessage) => channel.postMessage(message);
  // What is refused is told in the window that asked.
  const doing = session.quietly;
  if (!doing) throw new Error("only a window that hosts serves others");
  let running: Partial<Running> = {};
  let consent: Consent | undefined;
  /** Answers by request: one that comes again is not done again. */
  const answers = new Map<string, Promise<HostAnswer>>(did.map((ref) => [ref, Promise.resolve(DONE)]));
  /** The request whose change is told of now. */
  let doingFor: string | null = null;
  const settleFor = (ref: string | null) => {
    doingFor = ref;
    settle();
    doingFor = null;
  };

  const answer = async (request: Request, ref: string | null): Promise<HostAnswer> => {
    const plain = (refusal: { what: string; cure?: string } | undefined) =>
      refusal ? { what: refusal.what, ...(refusal.cure ? { cure: refusal.cure } : {}) } : null;
    if (request.kind === "do") {
      const { now, end } = doing.do({ ...request, says: request.says ?? undefined });
      settleFor(ref);
      return { refusal: plain(now ?? (await end)), why: null };
    }
    if (request.kind === "pieces") {
      const done = await doing.doInPieces({
        pieces: request.pieces,
        says: request.says,
        progress: () => true,
      });
      settleFor(ref);
      return { refusal: done === "stopped" ? null : plain(done), why: null };
    }
    if (request.kind === "macro") return { refusal: plain(await session.macro(request.id)), why: null };
    if (request.kind === "wire") return (session.askWire(request.ask), DONE);
    if (request.kind === "agree") return (session.agree(request.destinations), DONE);
    return { refusal: null, why: await session.whyOf(request.key) };
  };
  const left = (guest: string) => {
    const holds = guests.get(guest);
    if (!holds) return;
    guests.delete(guest);
    holds.forget();
    audience(guests.size > 0);
    for (const list of holds.lists) void doing.do({ intents: [], events: [{ kind: "flash", list, on: false }] }).end;
    if (holds.highlight && session.store.getState().world.hands.highlight) {
      doing.do({ intents: [setHighlight.of({ on: false })], events: [], says: "highlight off" });
      settle();
    }
  };
  const answerOnce = (request: Request, ref: string): Promise<HostAnswer> => {
    const given =
      answers.get(ref) ??
      answer(request, ref).catch((error: Error) => ({
        refusal: { what: `that went wrong inside Bold Comet: ${error.message}`, cure: "Nothing was changed" },
        why: null,
      }));
    answers.set(ref, given);
    if (answers.size > MOST_REFS) answers.delete(answers.keys().next().value!);
    return given;
  };

  channel.addEventListener("message", ({ data }: MessageEvent) => {
    const parsed = WindowMessageSchema.safeParse(data);
    if (!parsed.success) {
      const asked = UnknownRequestSchema.safeParse(data).data;
      return asked && say({ kind: "answer", to: asked.from, id: asked.id, ...NOT_UNDERSTOOD });
    }
    const message = parsed.data;
    if (message.kind === "join") {
      const { from } = message;
      if (!guests.has(from))
        guests.set(from, { lists: new Set(), highlight: false, forget: whenGone(from, () => left(from)) });
      audience(true);
      settle();
      const { world, playing, view, saved, wire, history } = session.store.getState();
      say({
        kind: "welcome",
        to: message.from,
        world: world,
        playing,
        layout: view?.layout ?? null,
        saved,
        wire,
        steps: stepWords(history),
        seq: seq(),
      });
      if (running.saved !== undefined) say({ kind: "running", ...running });
      if (consent) say({ kind: "consent", consent });
      const { gone } = session.store.getState();
      if (gone !== null) say({ kind: "gone", gone });
    } else if (message.kind === "leave") {
      left(message.from);
    } else if (message.kind === "request") {
      const { from, id, request } = message;
      if (request.kind === "do") noteHolds(guests.get(from), request);
      void answerOnce(request, requestRef(from, id)).then((made) => say({ kind: "answer", to: from, id, ...made }));
    }
  });
  // A window that joins is told everything; before that nobody listens.
  const unwatch = session.store.subscribe((now, before) => {
    if (guests.size === 0) return;
    if (now.playing !== before.playing) say({ kind: "playing", playing: now.playing });
    if (now.wire !== before.wire) say({ kind: "wire", wire: now.wire });
    if (now.gone !== before.gone) say({ kind: "gone", gone: now.gone });
    if (now.saved !== before.saved) say({ kind: "saved", saved: now.saved });
    if (now.view && now.view.layout !== before.view?.layout) say({ kind: "layout", layout: now.view.layout });
  });
  say({ kind: "hosting" });
  return {
    diff: (diff, at, step) =>
      guests.size > 0 &&
      say({
        kind: "diff",
        diff: diff as never,
        steps: stepWords(session.store.getState().history),
        seq: at,
        step,
        did: doingFor,
      }),
    saved: (at) => guests.size > 0 && say({ kind: "written", seq: at }),
    running(change) {
      running = change.saved === undefined ? { ...running, ...change } : change;
      if (guests.size > 0) say({ kind: "running", ...change });
    },
    consent(now) {
      consent = now;
      if (guests.size > 0) say({ kind: "consent", consent: now });
    },
    answer: (request) => answer(request, null),
    leaving: () => say({ kind: "leaving" }),
    close() {
      unwatch();
      for (const { forget } of guests.values()) forget();
      channel.close();
    },
  };
}
