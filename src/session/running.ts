/**
 * The show that runs in this window, outside of what draws it: a fault of the interface takes neither its
 * engine nor its storage nor its wire along. One window hosts a show; the others are in step with it, and
 * the next of them stands by.
 */
import { isRefusal, refusalText } from "@/core/show/refusal";
import { joinHost, type Guest } from "./guest";
import { openForUse, settle } from "./open";
import { startSession } from "./session";
import type { Session } from "./state";
import { isKept } from "./storage/shows";
import { openVersion, type Version } from "./storage/versions";

export type Status =
  | { kind: "opening" }
  /** @param rescue whether earlier versions of it may open. */
  | { kind: "failed"; why: string; rescue: boolean }
  | { kind: "open"; session: Session };

export interface RunningShow {
  id: string;
  status(): Status;
  subscribe(tell: () => void): () => void;
  close(): void;
}

const hostLock = (id: string): string => `bold-comet-show-${id}`;
const nextLock = (id: string): string => `bold-comet-next-${id}`;

/** Whether some window hosts a show now. */
export async function isHosted(id: string): Promise<boolean> {
  const { held } = await navigator.locks.query();
  return held?.some((lock) => lock.name === hostLock(id)) ?? false;
}

function create(id: string, version: { version: Version; says: string } | null): RunningShow {
  const stop = new AbortController();
  const { signal } = stop;
  const listeners = new Set<() => void>();
  let status: Status = { kind: "opening" };
  let session: Session | undefined;
  let guest: Guest | undefined;

  const put = (next: Status) => {
    if (signal.aborted) return;
    status = next;
    for (const tell of listeners) tell();
  };
  const failed = async (error: unknown) =>
    put({
      kind: "failed",
      why: error instanceof Error ? error.message : String(error),
      rescue: await isKept(id).catch(() => false),
    });

  /** Shown once its stage is there: nothing looks released that is not, and a hand-over leaves the place as it is. */
  function show(made: Session, then: () => void = () => undefined): void {
    session = made;
    if (signal.aborted) return made.close();
    const now = () => {
      put({ kind: "open", session: made });
      then();
    };
    if (made.store.getState().view) return now();
    const unwatch = made.store.subscribe(({ view, gone }) => {
      if (!view && gone === null) return;
      unwatch();
      if (view) now();
      else void failed(new Error(gone!));
    });
  }

  async function host(): Promise<void> {
    const left = guest;
    guest = undefined;
    if (left) {
      const { world, running, seq, unwritten, did, open, engine } = left.inherit();
      show(
        startSession(
          id,
          { world, running, seq, notice: null },
          { settled: settle(id, world, seq, unwritten), inherited: { did, open }, ...(engine ? { engine } : {}) },
        ),
        () => left.session.close(),
      );
    } else {
      const opened = await openForUse(id);
      if (signal.aborted || opened === "stopped") return;
      if (isRefusal(opened)) return failed(refusalText(opened));
      show(startSession(id, opened));
    }
    await new Promise<void>((resolve) => signal.addEventListener("abort", () => resolve()));
    await session!.flush().catch(() => undefined);
    session!.close();
  }

  async function begin(): Promise<void> {
    const hosted = await navigator.locks.request(hostLock(id), { ifAvailable: true }, async (lock) => {
      if (!lock) return false;
      await host();
      return true;
    });
    if (hosted || signal.aborted) return;
    let isNext = false;
    joinHost(id).then((joined) => {
      // A host that went before it answered has been followed already.
      if (session || signal.aborted) return joined.session.close();
      guest = joined;
      show(joined.session);
      if (isNext) joined.warm();
    }, failed);
    // One of the guests is the next: it keeps an engine warm and waits for the host to go.
    let hosting: Promise<unknown> = Promise.resolve();
    await navigator.locks.request(
      nextLock(id),
      { signal },
      () =>
        new Promise<void>((release) => {
          isNext = true;
          guest?.warm();
          hosting = navigator.locks.request(hostLock(id), { signal }, async () => {
            release();
            await host();
          });
          hosting.catch(() => release());
        }),
    );
    await hosting;
  }

  async function lookAt({ version: which, says }: { version: Version; says: string }): Promise<void> {
    const world = await openVersion(id, which);
    if (isRefusal(world)) return failed(refusalText(world));
    show(startSession(id, { world, running: null, seq: 0, notice: null }, { readOnly: says }));
  }

  (version ? lookAt(version) : begin()).catch((error) => void (signal.aborted || failed(error)));
  return {
    id,
    status: () => status,
    subscribe(tell) {
      listeners.add(tell);
      return () => void listeners.delete(tell);
    },
    close() {
      stop.abort();
      guest?.session.close();
      if (version) session?.close();
    },
  };
}

/** A page that a browser puts aside and brings back has let its engine go: it starts anew. */
if (typeof addEventListener === "function")
  addEventListener("pageshow", (event) => (event as PageTransitionEvent).persisted && location.reload());

let now: { key: string; show: RunningShow } | undefined;

/** The show of this window; another one that ran here is closed. @param version an earlier one to look at, with its words. */
export function runShow(id: string, version: { version: Version; says: string } | null = null): RunningShow {
  const key = `${id} ${JSON.stringify(version)}`;
  if (now?.key === key) return now.show;
  now?.show.close();
  now = { key, show: create(id, version) };
  return now.show;
}

/** Closes a show that runs in this window: its pages were left. */
export function leaveShow(id: string): void {
  if (now?.show.id !== id) return;
  now.show.close();
  now = undefined;
}
