/** The hosting side: serves the other windows of this show. */
import type { Diff } from "@/core/show/diff";
import type { Running } from "@/engine/messages";
import { stepWords } from "./hands";
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
  /** Does what was asked of a host that has gone. */
  answer(request: Request): Promise<HostAnswer>;
  /** This window closes: the next goes on without waiting for its end. */
  leaving(): void;
  close(): void;
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
  const guests = new Set<string>();
  const say = (message: WindowMessage) => channel.postMessage(message);
  // What is refused is told in the window that asked.
  const doing = session.quietly;
  if (!doing) throw new Error("only a window that hosts serves others");
  let running: Partial<Running> = {};
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
      guests.add(message.from);
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
    } else if (message.kind === "leave") {
      guests.delete(message.from);
      audience(guests.size > 0);
    } else if (message.kind === "request") {
      const { from, id, request } = message;
      void answerOnce(request, requestRef(from, id)).then((made) => say({ kind: "answer", to: from, id, ...made }));
    }
  });
  // A window that joins is told everything; before that nobody listens.
  const unwatch = session.store.subscribe((now, before) => {
    if (guests.size === 0) return;
    if (now.playing !== before.playing) say({ kind: "playing", playing: now.playing });
    if (now.wire !== before.wire) say({ kind: "wire", wire: now.wire });
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
    answer: (request) => answer(request, null),
    leaving: () => say({ kind: "leaving" }),
    close() {
      unwatch();
      channel.close();
    },
  };
}
