/** The window's side of the engine. */
import type { Consent } from "@/core/dmx/consent";
import type { PlayEvent } from "@/core/play/events";
import type { Why } from "@/core/play/why";
import type { Diff } from "@/core/show/change/diff";
import { createTeller, type Onward } from "@/core/show/change/followed";
import type { World } from "@/core/show/world";
import { openFrame } from "@/engine/frame";
import {
  FromEngineSchema,
  type Playing,
  type Running,
  type ToEngine,
  type WireAsk,
  type WireState,
} from "@/engine/messages";
import { openWorker, type Posting } from "./posting";
import { createAsking } from "./asking";
import { viewOf, type StageView } from "@/engine/view";

export interface EngineListener {
  layout(view: StageView): void;
  playing(playing: Playing): void;
  /** The running state was saved, or only its time has passed. */
  running(change: Partial<Running>): void;
  wire(state: WireState): void;
  trouble(text: string): void;
  /** It keeps dying and is not started again. */
  gone(text: string): void;
  /** What is left of a macro from the first line that edits. */
  runs(rest: { macro: number; lines: string[] }): void;
  /** Open Sound Control came in. */
  osc(address: string, value: number): void;
  /** A frame came as a copy: memory could not be shared. */
  copied(view: StageView): void;
  /** The show as it is, for an engine that is started again. */
  world(): World;
}

export interface EngineLink {
  /** Who is told what the engine says. */
  listen(listener: EngineListener): void;
  change(diff: Diff): void;
  /** @param text of a diff that is written already. */
  diff(text: string): void;
  /** Does a playing event now; resolves to the refusal, null when done. */
  event(event: PlayEvent): Promise<string | null>;
  /** The stack behind a parameter; null for one that does not exist. */
  why(key: string): Promise<Why | null>;
  /** Whether other windows look on and want frames. */
  audience(on: boolean): void;
  /** Tells the engine where the bridge is, and what this show is called there. */
  bridge(port: number, token: string, show: string): void;
  consent(consent: Consent): void;
  /** Whoever edits in several steps tells it when they begin, and after they were taken back. */
  step(is: "begun" | "back"): void;
  wire(ask: WireAsk): void;
  /** On standby: the running state as the other window saves it. */
  running(change: Partial<Running>): void;
  /** Ends the standby. @param since seconds the other engine went on for after it was last heard of. */
  begin(running: Running | null, since?: number): void;
  view(): StageView | undefined;
  close(): void;
}

/** An engine that says nothing for this long has died or hangs. It is looked at this often. */
const SILENT_MS = 1500;
/** One that was just told of a show may take its time with it; a change so many characters long takes a millisecond at least. */
const OPENING_MS = 60_000;
const CHARACTERS_A_MS = 300;
const NUMBER_CHARACTERS = 20;
const LOOK_MS = 400;
/** One that dies this often in a minute is started without what was running, which may be what kills it; and is not started again. */
const DEATHS_RUNNING = 2;
const MOST_DEATHS = 5;

/** @param standby whether it only keeps in step, ready to go on for another window. */
export function startEngine(world: World, running: Running | null, frames: string, standby = false): EngineLink {
  const events = createAsking<string | null>();
  const reasons = createAsking<Why | null>();
  let listener: EngineListener | undefined;
  let view: StageView | undefined;
  let playing: Playing | undefined;
  let wire: WireState | undefined;
  /** What an engine that is started again is told. */
  const kept: {
    running: Running | null;
    standby: boolean;
    audience: boolean;
    bridge?: ToEngine;
    consent?: ToEngine;
    listen?: ToEngine;
  } = { running, standby, audience: false };
  let heardAt = performance.now();
  let lookedAt = heardAt;
  /** Until then it may say nothing: it has much to do. */
  let busyUntil = 0;
  /** Whether it has the stage. */
  let begun = false;
  let deaths: number[] = [];
  let tell = createTeller();
  let posting!: Posting<ToEngine>;
  let worker = start(world);
  const say = (message: ToEngine) => posting.say(message);

  function start(from: World): Worker {
    const made = new Worker(new URL("../engine/worker.ts", import.meta.url), { type: "module", name: "engine" });
    made.addEventListener("message", ({ data }: MessageEvent) => made === worker && hear(data));
    made.addEventListener("error", () => made === worker && startAgain());
    posting = openWorker<ToEngine>(made, from, {
      kind: "open",
      running: kept.running,
      frames,
      standby: kept.standby,
    });
    const messages = [kept.consent, kept.bridge, kept.listen];
    for (const message of messages) if (message) posting.say(message);
    if (kept.audience) posting.say({ kind: "audience", on: true });
    heardAt = performance.now();
    busyUntil = heardAt + OPENING_MS;
    begun = false;
    tell = createTeller();
    return made;
  }

  /** A dead or hanging engine is ended and goes on from the last saved state; who waits for it is told. */
  function startAgain(): void {
    posting.end();
    worker.terminate();
    events.end("the engine was started again and did not do this; try once more");
    reasons.end(null);
    deaths = [...deaths.filter((at) => performance.now() - at < 60_000), performance.now()];
    if (deaths.length > MOST_DEATHS) {
      clearInterval(watch);
      return listener?.gone("the engine keeps stopping; reload the page, or open an earlier moment of the show");
    }
    if (deaths.length > DEATHS_RUNNING) kept.running = null;
    listener?.trouble(
      kept.running === null && deaths.length > DEATHS_RUNNING
        ? "the engine stopped again and again, so it was started without what was running: nothing plays. Give the lists a go where they should stand"
        : "the engine had stopped and was started again where it was last saved",
    );
    worker = start(listener?.world() ?? world);
  }

  function hear(data: unknown): void {
    heardAt = performance.now();
    const parsed = FromEngineSchema.safeParse(data);
    if (!parsed.success) return listener?.trouble("the engine said something that is not understood");
    const message = parsed.data;
    if (message.kind === "layout" && !begun) {
      begun = true;
      busyUntil = heardAt;
    }
    switch (message.kind) {
      case "alive":
        return;
      case "layout":
        view = viewOf(message.layout, openFrame(message.layout, message.memory));
        return listener?.layout(view);
      case "frame":
        if (!view || view.layout.generation !== message.generation) return;
        view = viewOf(view.layout, openFrame(view.layout, message.memory));
        return listener?.copied(view);
      case "playing":
        return listener?.playing((playing = message.playing));
      case "saved":
        kept.running = { saved: message.saved, now: 0 };
        return listener?.running({ saved: message.saved });
      case "wire":
        return listener?.wire((wire = message.wire));
      case "clock":
        if (kept.running) kept.running = { ...kept.running, now: message.now };
        return listener?.running({ now: message.now });
      case "osc":
        return listener?.osc(message.address, message.value);
      case "runs":
        return listener?.runs(message);
      case "trouble":
        return listener?.trouble(message.text);
      case "because":
        return reasons.answer(message.id, message.why);
      case "done":
        return events.answer(message.id, message.refusal);
    }
  }

  const watch = setInterval(() => {
    const now = performance.now();
    // A page that was held up itself has not heard what was said meanwhile.
    const late = now - lookedAt > 2 * LOOK_MS;
    lookedAt = now;
    if (posting.opens()) busyUntil = Math.max(busyUntil, now + OPENING_MS);
    if (!late && now > busyUntil && now - heardAt > SILENT_MS) startAgain();
  }, LOOK_MS);

  const told = (onward: Onward) => {
    const much = onward.text.length + NUMBER_CHARACTERS * (onward.numbers?.length ?? 0);
    busyUntil = Math.max(busyUntil, performance.now() + much / CHARACTERS_A_MS);
    say({ kind: "diff", ...onward });
  };

  return {
    listen(to) {
      listener = to;
      // What an engine that has begun already said before anybody listened.
      if (view) to.layout(view);
      if (playing) to.playing(playing);
      if (wire) to.wire(wire);
      if (!kept.standby && kept.running) to.running(kept.running);
    },
    change: (diff) => told(tell(diff)),
    diff: (text) => told({ text }),
    event: (event) =>
      events.ask((id) => say({ kind: "event", event, at: performance.timeOrigin + performance.now(), id })),
    why: (key) => reasons.ask((id) => say({ kind: "why", key, id })),
    bridge: (port, token, show) => say((kept.bridge = { kind: "bridge", port, token, show })),
    consent: (consent) => say((kept.consent = { kind: "consent", consent })),
    step: (is) => say({ kind: "step", is }),
    wire(ask) {
      const asked: ToEngine = { kind: "wire", ask };
      if (typeof ask === "object" && "listen" in ask) kept.listen = asked;
      say(asked);
    },
    running: (change) => say({ kind: "running", ...change }),
    begin(from, since = 0) {
      if (!kept.standby) return;
      Object.assign(kept, { running: from, standby: false });
      say({ kind: "begin", running: from, since });
    },
    audience(on) {
      kept.audience = on;
      say({ kind: "audience", on });
    },
    view: () => view,
    close() {
      clearInterval(watch);
      events.end(null);
      reasons.end(null);
      posting.end();
      worker.terminate();
    },
  };
}
