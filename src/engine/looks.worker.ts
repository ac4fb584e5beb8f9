/** What lines would do, looks and ripple: away from the hands and from the engine's clock. */
import { foresee, foreseeIntents, isUnfinished, palettesIn } from "@/core/desk/foresee";
import { rippling } from "@/core/cue/looks";
import { transitionOf, type Transition } from "@/core/play/arrive/transition";
import { brokenLooks } from "@/core/cue/signed";
import { applyDiff, readDiff } from "@/core/show/change/diff";
import { isRefusal } from "@/core/show/refusal";
import type { Show } from "@/core/show/schema";
import type { World } from "@/core/show/world";
import { frozen } from "@/core/units/frozen";
import { openFrame } from "./frame";
import { ToLooksSchema, type FromLooks, type ToLooks } from "./looksMessages";
import { checks } from "./checks";
import { createOpening } from "./opening";
import { pictures } from "./pictures";
import { readContextOf, viewOf, type StageView } from "./view";

/** So long one piece of a ripple may keep the next question waiting, milliseconds. */
const PIECE_MS = 6;

let world: World | undefined;
let view: StageView | undefined;
/** The question being worked out; a newer one ends it. */
let asked = 0;
/** The show as the line last asked about would make it. */
let after: { id: number; show: Show } | undefined;
const say = (message: FromLooks): void => postMessage(message);
/** Other versions of the show that pictures are asked of, the latest last. */
const versions = new Map<number, Show>();
const MOST_VERSIONS = 8;
const painting = pictures(
  ({ after: id, version }) =>
    version !== undefined
      ? versions.get(version)
      : id === null
        ? world?.show
        : after?.id === id
          ? after.show
          : undefined,
  (message, hand) => postMessage(message, { transfer: hand }),
);
const pause = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 0));

function timed({ list, cue }: Extract<ToLooks, { kind: "timeline" }>): Transition | null {
  const owner = world?.show.lists[list];
  try {
    return (owner && transitionOf(world!.show, owner, cue)) ?? null;
  } catch {
    return null;
  }
}

const checking = checks(() => world, say);

/** Whether Check could find something else: what is selected and held does not matter to it. */
const concerns = ({ show, hands }: World, now: World): boolean =>
  now.show !== show ||
  now.hands.highlight !== hands.highlight ||
  now.hands.blind !== hands.blind ||
  now.hands.parked !== hands.parked;

/** Signed-off looks that are whole now and would not be then. */
function brokenBy(before: Show, then: Show): { list: string; cue: string }[] {
  const broken = (show: Show) => new Set([...brokenLooks(show)].map(({ list, cue }) => `${list.id} ${cue.id}`));
  if (!Object.values(before.lists).some((l) => Object.values(l.cues).some((c) => c.signed))) return [];
  const already = broken(before);
  return [...broken(then)].flatMap((name) => {
    const [list, cue] = name.split(" ") as [string, string];
    return already.has(name) ? [] : [{ list, cue }];
  });
}

async function ripple(id: number, before: World, then: Show): Promise<void> {
  const work = rippling(before.show, then);
  for (let since = performance.now(); ;) {
    const { done, value } = work.next();
    if (done) return say({ kind: "rippled", id, rippled: value, signed: brokenBy(before.show, then) });
    if (performance.now() - since < PIECE_MS) continue;
    await pause();
    if (asked !== id) return;
    since = performance.now();
  }
}

async function answer({ asked: about, steps, id }: Extract<ToLooks, { kind: "foresee" }>, now: World): Promise<void> {
  asked = id;
  after = undefined;
  const context = readContextOf(now, view);
  const found = "line" in about ? foresee(about.line, context, steps) : foreseeIntents(about.intents, context);
  const words = {
    kind: "says" as const,
    id,
    says: null,
    follows: null,
    means: [],
    refusal: null,
    keeps: null,
    palettes: [],
  };
  if (found === undefined) return say(words);
  if (isUnfinished(found)) return say({ ...words, follows: found.follows, means: [...(found.means ?? [])] });
  if (isRefusal(found))
    return say({ ...words, refusal: { what: found.what, ...(found.cure ? { cure: found.cure } : {}) } });
  if (found.diff.length > 0) after = { id, show: applyDiff(now, found.diff).show };
  say({ ...words, says: found.says, keeps: found.keeps ? [...found.keeps] : null, palettes: palettesIn(found.diff) });
  if (found.diff.length === 0) return;
  // The words are on their way before the ripple begins.
  await pause();
  if (asked === id) await ripple(id, now, after!.show);
}

const opening = createOpening();
addEventListener("message", ({ data }: MessageEvent) => {
  const whole = opening(data);
  if (whole === undefined) return;
  const parsed = ToLooksSchema.safeParse(whole);
  if (!parsed.success) return;
  const message = parsed.data;
  if (message.kind === "open") {
    world = frozen(message.world);
    checking.changed();
  } else if (message.kind === "stage") view = viewOf(message.layout, openFrame(message.layout, message.memory));
  else if (message.kind === "picture") painting.ask(message);
  else if (message.kind === "forget") painting.forget(message.id);
  else if (message.kind === "timeline") say({ kind: "timed", id: message.id, transition: timed(message) });
  else if (!world) return;
  else if (message.kind === "version") {
    const diff = readDiff(message.diff);
    if (diff) versions.set(message.id, applyDiff(world, diff).show);
    const [oldest] = versions.keys();
    if (versions.size > MOST_VERSIONS) versions.delete(oldest!);
  } else if (message.kind === "foresee") {
    const { id } = message;
    answer(message, world).catch((error: Error) =>
      say({
        kind: "says",
        id,
        says: null,
        follows: null,
        means: [],
        keeps: null,
        palettes: [],
        refusal: {
          what: `what this would do could not be worked out (${error.message})`,
          cure: "Enter tries it; a line that fails changes nothing",
        },
      }),
    );
  } else {
    const diff = readDiff(message.diff);
    if (!diff) return;
    const before = world;
    world = applyDiff(world, diff);
    if (concerns(before, world)) checking.changed();
  }
});
