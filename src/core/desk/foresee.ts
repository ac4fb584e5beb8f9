/** What a line would do, before it is done: its words, and the diff whose ripple can be worked out after them. */
import { attempt, fail, isRefusal, type Refusal } from "../show/refusal";
import type { Diff } from "../show/change/diff";
import { EMPTY_HISTORY } from "../show/change/history";
import type { Intent } from "../show/change/intent";
import type { ReadContext } from "../command/context";
import { keepingLater } from "./keepLater";
import { perform, sayReading } from "./perform";
import { meanings } from "../command/plainly";
import { couldFollow, isLine, readLine } from "../command/read";

/** What undo and redo would take back or do again, in words; null where there is nothing. */
export interface StepWords {
  done: string | null;
  undone: string | null;
}

export interface Foreseen {
  says: string;
  /** What it would change; empty where that is nothing of the show. */
  diff: Diff;
  /** The same with later looks kept, where it lets them change. */
  keeps?: readonly Intent[];
}

/** A line that is none yet and may still become one. */
export interface Unfinished {
  /** What could follow, or the lines it could mean, in words. */
  follows: string;
  /** The lines it could mean, where they are several. */
  means?: readonly string[];
}
/** Whether a line is none yet and may still become one. */
export const isUnfinished = (found: unknown): found is Unfinished =>
  typeof found === "object" && found !== null && "follows" in found;

/** Undefined for an empty line; what could follow in one that is not finished; a refusal where it would be refused. Nothing changes. */
export function foresee(
  line: string,
  context: ReadContext,
  steps: StepWords,
): Foreseen | Unfinished | Refusal | undefined {
  const means = meantBy(line, context);
  const found = means.length > 0 ? undefined : foreseeWhole(line, context, steps);
  if (means.length === 0 && !isRefusal(found)) return found;
  if (means.length > 1) return { follows: `could mean: ${means.join(", or ")}`, means };
  const [meant] = means;
  if (meant !== undefined) {
    const done = foreseeWhole(meant, context, steps);
    return done === undefined || isRefusal(done) ? done : { ...done, says: `${meant}: ${done.says}` };
  }
  const follows = attempt(() => couldFollow(line, context));
  return typeof follows === "string" ? { follows: `go on with: ${follows}` } : found;
}

/** The lines that one typed in plain words could mean; the one there is, is done in its place. @param read reads a line. */
export function meantBy(
  line: string,
  context: ReadContext,
  read = (tried: string) => readLine(tried, context, { abbreviate: true }),
): readonly string[] {
  const steps = { done: null, undone: null };
  return meanings(
    line,
    (tried) => !isRefusal(foreseeWhole(tried, context, steps)),
    (tried) => !isRefusal(read(tried)),
    (tried) => isLine(tried, context),
    (tried) => !isRefusal(readLine(tried, context)),
  );
}

function foreseeWhole(line: string, context: ReadContext, steps: StepWords): Foreseen | Refusal | undefined {
  const read = readLine(line, context, { abbreviate: true });
  if (read === undefined || isRefusal(read)) return read;
  return attempt(() => {
    if (read.control) {
      const step = read.control === "undo" ? steps.done : steps.undone;
      if (step === null) fail(`there is nothing to ${read.control}`);
      return { says: `${read.control === "undo" ? "takes back" : "does again"}: ${step}`, diff: [] };
    }
    const standing = { world: context.world, history: EMPTY_HISTORY };
    const done = perform(standing, read);
    if (isRefusal(done)) return fail(done.what, done.cure);
    return foreseen(sayReading(standing, read), done.diff, read.intents);
  });
}

function foreseen(says: string, diff: Diff, intents: readonly Intent[]): Foreseen {
  const keeps = keepingLater(intents);
  return { says, diff: diff.some((c) => c.path[0] === "show") ? diff : [], ...(keeps ? { keeps } : {}) };
}

/** The palettes of the show that a diff changes, by id. */
export const palettesIn = (diff: Diff): string[] => [
  ...new Set(diff.flatMap(({ path: [of, kind, id] }) => (of === "show" && kind === "palettes" && id ? [id] : []))),
];

/** The same of edits that stand already, of a dialog or a button. */
export function foreseeIntents(intents: readonly Intent[], { world }: Pick<ReadContext, "world">): Foreseen | Refusal {
  const done = perform({ world, history: EMPTY_HISTORY }, { intents: [...intents], events: [] });
  return isRefusal(done) ? done : foreseen(done.says, done.diff, intents);
}
