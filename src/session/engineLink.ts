/** The window's side of the engine. */
import type { Consent } from "@/core/dmx/consent";
import type { PlayEvent } from "@/core/play/events";
import type { Why } from "@/core/play/why";
import type { World } from "@/core/show/world";
import { openFrame } from "@/engine/frame";
import { FromEngineSchema, type Playing, type Running, type ToEngine, type WireAsk, type WireState } from "@/engine/messages";
import { viewOf, type StageView } from "@/engine/view";

export interface EngineListener {
  layout(view: StageView): void;
  playing(playing: Playing): void;
  /** The running state was saved, or only its time has passed. */
  running(change: Partial<Running>): void;
  wire(state: WireState): void;
  trouble(text: string): void;
  /** A frame came as a copy: memory could not be shared. */
  copied(view: StageView): void;
}

export interface EngineLink {
  /** Who is told what the engine says. */
  listen(listener: EngineListener): void;
  /** @param diff as text. */
  diff(diff: string): void;
  /** Does a playing event now; resolves to the refusal, null when done. */
  event(event: PlayEvent): Promise<string | null>;
  /** The stack behind a parameter; null for one that does not exist. */
  why(key: string): Promise<Why | null>;
  /** Whether other windows look on and want frames. */
  audience(on: boolean): void;
  /** Tells the engine where the bridge is, and what this show is called there. */
  bridge(port: number, token: string, show: string): void;
  consent(consent: Consent): void;
  wire(ask: WireAsk): void;
  /** On standby: the running state as the other window saves it. */
  running(change: Partial<Running>): void;
  /** Ends the standby. */
  begin(running: Running | null): void;
  view(): StageView | undefined;
  close(): void;
}

/** @param standby whether it only keeps in step, ready to go on for another window. */
export function startEngine(world: World, running: Running | null, frames: string, standby = false): EngineLink {
  const worker = new Worker(new URL("../engine/worker.ts", import.meta.url), { type: "module" });
  const waiting = new Map<number, (refusal: string | null) => void>();
  const reasons = new Map<number, (why: Why | null) => void>();
  let listener: EngineListener | undefined;
  let view: StageView | undefined;
  let count = 0;
  const say = (message: ToEngine) => worker.postMessage(message);
  worker.addEventListener("message", ({ data }: MessageEvent) => {
    const parsed = FromEngineSchema.safeParse(data);
    if (!parsed.success) return listener?.trouble("the engine said something that is not understood");
    const message = parsed.data;
    switch (message.kind) {
      case "layout":
        view = viewOf(message.layout, openFrame(message.layout, message.memory));
        return listener?.layout(view);
      case "frame":
        if (!view || view.layout.generation !== message.generation) return;
        view = viewOf(view.layout, openFrame(view.layout, message.memory));
        return listener?.copied(view);
      case "playing": return listener?.playing(message.playing);
      case "saved": return listener?.running({ saved: message.saved });
      case "wire": return listener?.wire(message.wire);
      case "clock": return listener?.running({ now: message.now });
      case "trouble": return listener?.trouble(message.text);
      case "because":
        reasons.get(message.id)?.(message.why);
        reasons.delete(message.id);
        return;
      case "done":
        waiting.get(message.id)?.(message.refusal);
        waiting.delete(message.id);
    }
  });
  worker.addEventListener("error", () => listener?.trouble("the engine stopped; reload the page to start it again"));
  say({ kind: "open", world: world as never, running, frames, standby });
  return {
    listen: (to) => (listener = to),
    diff: (diff) => say({ kind: "diff", diff }),
    event: (event) => new Promise((resolve) => {
      const id = ++count;
      waiting.set(id, resolve);
      say({ kind: "event", event, at: performance.timeOrigin + performance.now(), id });
    }),
    why: (key) => new Promise((resolve) => {
      const id = ++count;
      reasons.set(id, resolve);
      say({ kind: "why", key, id });
    }),
    bridge: (port, token, show) => say({ kind: "bridge", port, token, show }),
    consent: ({ imported, given }) => say({ kind: "consent", consent: { imported, given: [...given] } }),
    wire: (ask) => say({ kind: "wire", ask }),
    running: (change) => say({ kind: "running", ...change }),
    begin: (running) => say({ kind: "begin", running }),
    audience: (on) => say({ kind: "audience", on }),
    view: () => view,
    close: () => worker.terminate(),
  };
}
