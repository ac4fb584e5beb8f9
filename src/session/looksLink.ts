/** The window's side of the looks worker: what lines would do, and which looks they would change. */
import type { StepWords, Unfinished } from "@/core/desk/foresee";
import type { Finding } from "@/core/check/finding";
import type { Transition } from "@/core/play/arrive/transition";
import type { Rippled } from "@/core/cue/looks";
import { refuse, type Refusal } from "@/core/show/refusal";
import { diffOf, writeDiff } from "@/core/show/change/diff";
import type { Intent } from "@/core/show/change/intent";
import type { Show } from "@/core/show/schema";
import type { World } from "@/core/show/world";
import { FromLooksSchema, type Asked, type ToLooks } from "@/engine/looksMessages";
import { openWorker, type Posting } from "./posting";
import { createRestarts } from "./restarts";
import type { StageView } from "@/engine/view";

export interface CueAt {
  list: string;
  cue: string;
}

/** What Check has found, and by cue the fixtures that have moved there in the dark. */
export interface Checked {
  findings: readonly Finding[];
  moons: Readonly<Record<string, readonly string[]>>;
}

/** What it would do, in words; and the same with later looks kept, where it lets them change. */
export interface Told {
  says: string;
  keeps: readonly Intent[] | null;
  /** The palettes it would change. */
  palettes: readonly string[];
}

/** Whoever asks what a line would do is told its words, then the looks it would change. */
export interface Foreseer {
  words(found: Told | Unfinished | Refusal | undefined): void;
  /** @param signed cues whose signed-off look would be broken. */
  ripple(found: readonly Rippled[], signed: readonly CueAt[]): void;
}

/** The picture of a cue's look as it is, or after the line that `foresee` was last asked about. */
export type PictureOf = Omit<Extract<ToLooks, { kind: "picture" }>, "kind" | "id" | "after" | "version"> & {
  then: boolean;
  /** Another version of the show. */
  show?: Show;
};
/** Told the picture; null where it is the one that is there. Without content there is no such cue. */
export type Pictured = (content: string, bitmap: ImageBitmap | null) => void;

export interface LooksLink {
  /** @param diff as text. */
  diff(diff: string): void;
  /** The stage lines are read against. */
  stage(view: StageView): void;
  /** Asks what a line would do, without doing it. A newer question takes its place. */
  foresee(asked: Asked, to: Foreseer): void;
  /** Asks for the picture of a look. @returns a way to ask no longer. */
  picture(of: PictureOf, told: Pictured): () => void;
  /** How the stage gets into a cue; null where it cannot be told. */
  timeline(list: string, cue: string, told: (transition: Transition | null) => void): void;
  close(): void;
}

/** A line that takes longer than this to work out is not worth waiting for: the worker is started anew. */
export const PATIENCE_MS = 3000;

const STOPPED = refuse("what lines would do cannot be told just now", "Enter does it anyway");

/**
 * @param now the show, what undo would take back, and the stage, for a worker that starts or starts anew.
 * @param ended told, in words, when the worker is not started any more. @param settle hands on what has changed and was not yet told: before each question.
 */
export function startLooks(
  now: () => { world: World; steps: StepWords; view: StageView | undefined },
  found: (checked: Checked) => void,
  ended: (text: string) => void,
  settle: () => void = () => undefined,
): LooksLink {
  let count = 0;
  let asking: { id: number; to: Foreseer; late: ReturnType<typeof setTimeout> } | undefined;
  const painting = new Map<number, { of: PictureOf; told: Pictured }>();
  const timing = new Map<number, (transition: Transition | null) => void>();
  /** Versions of the show the worker knows, by their number. */
  let versions = new WeakMap<Show, number>();
  const restarts = createRestarts();
  /** None while it waits to be started again, or has ended. */
  let posting!: Posting<ToLooks>;
  let worker: Worker | undefined = start();
  let again: ReturnType<typeof setTimeout> | undefined;
  const say = (message: ToLooks) => worker && posting.say(message);

  function start(): Worker {
    const made = new Worker(new URL("../engine/looks.worker.ts", import.meta.url), { type: "module", name: "looks" });
    made.addEventListener("message", ({ data }: MessageEvent) => hear(data));
    made.addEventListener("error", () => made === worker && died());
    posting = openWorker<ToLooks>(made, now().world, { kind: "open" });
    const { view } = now();
    if (view) posting.say({ kind: "stage", layout: view.layout, memory: view.frame.buffer as ArrayBuffer });
    return made;
  }
  /** What waits for an answer is told that there is none. */
  function giveUp(why: Refusal): void {
    posting.end();
    worker?.terminate();
    worker = undefined;
    const left = asking;
    asking = undefined;
    for (const told of timing.values()) told(null);
    timing.clear();
    if (!left) return;
    clearTimeout(left.late);
    left.to.words(why);
  }
  function startAnew(): void {
    worker = start();
    versions = new WeakMap();
    for (const [id, { of }] of painting) askPicture(id, of);
  }
  function late(): void {
    giveUp(refuse("what this would do takes too long to work out", "Enter does it anyway"));
    startAnew();
  }
  function died(): void {
    giveUp(STOPPED);
    const wait = restarts(performance.now());
    if (wait !== undefined) again = setTimeout(startAnew, wait);
    else
      ended(
        "what works out previews, pictures of looks and Check keeps stopping, so there are none; all else works. Reload the page to try again",
      );
  }
  function hear(data: unknown): void {
    const parsed = FromLooksSchema.safeParse(data);
    if (!parsed.success) return;
    if (parsed.data.kind === "found") return found({ findings: parsed.data.findings, moons: parsed.data.moons });
    if (parsed.data.kind === "timed") {
      timing.get(parsed.data.id)?.(parsed.data.transition);
      return void timing.delete(parsed.data.id);
    }
    if (parsed.data.kind === "pictured") {
      const { id, content, bitmap } = parsed.data;
      painting.get(id)?.told(content, bitmap);
      return void painting.delete(id);
    }
    if (parsed.data.id !== asking?.id) return;
    clearTimeout(asking.late);
    if (parsed.data.kind === "rippled") return asking.to.ripple(parsed.data.rippled, parsed.data.signed);
    const { says, refusal, follows, means, keeps, palettes } = parsed.data;
    asking.to.words(
      refusal
        ? refuse(refusal.what, refusal.cure)
        : follows !== null
          ? { follows, means }
          : says === null
            ? undefined
            : { says, keeps, palettes },
    );
  }
  function versionOf(show: Show): number {
    const known = versions.get(show);
    if (known !== undefined) return known;
    const id = ++count;
    versions.set(show, id);
    const { world } = now();
    say({ kind: "version", id, diff: writeDiff(diffOf(world, { ...world, show })) });
    return id;
  }
  function askPicture(id: number, { then, show, ...of }: PictureOf): void {
    const version = show ? { version: versionOf(show) } : {};
    say({ kind: "picture", id, ...of, ...version, after: then ? (asking?.id ?? 0) : null });
  }
  return {
    diff: (diff) => say({ kind: "diff", diff }),
    // A shared frame is posted once for each layout; a copy with every question.
    stage: (view) => say({ kind: "stage", layout: view.layout, memory: view.frame.buffer as ArrayBuffer }),
    foresee(asked, to) {
      settle();
      if (asking) clearTimeout(asking.late);
      const id = ++count;
      if (!worker) return to.words(STOPPED);
      asking = { id, to, late: setTimeout(late, PATIENCE_MS) };
      const { view, steps } = now();
      if (view && view.frame.buffer instanceof ArrayBuffer)
        say({ kind: "stage", layout: view.layout, memory: view.frame.buffer });
      say({ kind: "foresee", asked, steps, id });
    },
    picture(of, told) {
      settle();
      const id = ++count;
      painting.set(id, { of, told });
      askPicture(id, of);
      return () => {
        if (painting.delete(id)) say({ kind: "forget", id });
      };
    },
    timeline(list, cue, told) {
      settle();
      if (!worker) return told(null);
      const id = ++count;
      timing.set(id, told);
      say({ kind: "timeline", id, list, cue });
    },
    close() {
      if (asking) clearTimeout(asking.late);
      clearTimeout(again);
      posting.end();
      worker?.terminate();
    },
  };
}
