/** What a window does by itself, hosting or not: reading lines, asking what they would do, notices. */
import type { StoreApi } from "zustand/vanilla";
import type { Transition } from "@/core/play/arrive/transition";
import { meantBy, type StepWords } from "@/core/desk/foresee";
import type { Asked } from "@/engine/looksMessages";
import type { SlotValues } from "@/core/command/args";
import { readAs, readLine, type Read } from "@/core/command/read";
import type { History } from "@/core/show/change/history";
import type { ReadContext } from "@/core/command/context";
import { builtIntents, newBuilding, type Building } from "@/core/command/building";
import type { Item } from "@/core/show/ids";
import type { World } from "@/core/show/world";
import type { Intent } from "@/core/show/change/intent";
import { attempt, fail, isRefusal, refusalText, refuse, type Refusal } from "@/core/show/refusal";
import { readContextOf } from "@/engine/view";
import { withLine, type DoneLine } from "./lines";
import type { Foreseer, LooksLink, Pictured, PictureOf } from "./looksLink";
import type { Notice, SessionState } from "./state";

const MOST_NOTICES = 4;
let noticeCount = 0;

export const stepWords = ({ done, undone }: History): StepWords => ({
  done: done.at(-1)?.says ?? null,
  undone: undone.at(-1)?.says ?? null,
});

/** Does work whose failing would be a mistake of ours: then it is told as a refusal, and nothing changed. */
export function guarded<T>(work: () => T): T | Refusal {
  try {
    return work();
  } catch (error) {
    return refuse(`that went wrong inside Bold Comet: ${(error as Error).message}`, "Nothing was changed");
  }
}

export function handsOn(store: StoreApi<SessionState>, looks: LooksLink) {
  let arranged: NonNullable<ReadContext["arrangement"]> | null = null;
  const context = () => {
    const { world, view, look, wire } = store.getState();
    const own = wire.bridge?.interfaces.map((i) => i.address);
    return {
      ...readContextOf(world, view),
      ...(look ? { stage: readContextOf(world, look).stage } : {}),
      ...(own ? { interfaces: own } : {}),
      ...(arranged ? { arrangement: arranged } : {}),
    };
  };
  let once: { line: string; world: World; read: Read | Refusal | undefined } | undefined;
  /** Reads a line. Enter reads it twice, to see whether it is one and to do it: of thousands that takes long enough to be kept for the instant. */
  const readOnce = (line: string): Read | Refusal | undefined => {
    const { world } = store.getState();
    if (once?.line === line && once.world === world) return once.read;
    once = { line, world, read: guarded(() => readLine(line, context(), { abbreviate: true })) };
    queueMicrotask(() => (once = undefined));
    return once.read;
  };
  const tell = (text: string, tone: Notice["tone"] = "plain") =>
    store.setState((s) => ({ notices: [...s.notices.slice(1 - MOST_NOTICES), { id: ++noticeCount, text, tone }] }));
  return {
    context,
    tell,
    /** What is typed into a field; undefined where it means nothing, which is told. */
    read<K extends keyof SlotValues>(kind: K, text: string): SlotValues[K] | undefined {
      const found = guarded(() => readAs(kind, text, context()));
      if (isRefusal(found)) return void tell(refusalText(found), "refused");
      return found;
    },
    /** Builds what is to be held, for the selection unless other items are given. */
    wouldHold: (
      build: (b: Building) => void,
      selection: readonly Item[] = store.getState().world.hands.selection,
    ): Intent[] | Refusal =>
      attempt(() => {
        if (selection.length === 0) fail("nothing is selected", "Select some fixtures first, such as: 1 thru 12");
        const b = newBuilding(selection, context());
        build(b);
        return builtIntents(b, false);
      }),
    readLine: readOnce,
    unreadable: (line: string): Refusal | undefined => {
      const found = readOnce(line);
      return isRefusal(found) ? found : undefined;
    },
    meant: (line: string): readonly string[] => meantBy(line, context(), readOnce),
    foresee: (asked: Asked, to: Foreseer) => looks.foresee(asked, to),
    timeline: (list: string, cue: string, told: (transition: Transition | null) => void) =>
      looks.timeline(list, cue, told),
    picture: (of: PictureOf, told: Pictured) => looks.picture(of, told),
    showWhy: (why: string | null) => store.setState({ why }),
    shows: (shown: NonNullable<Read["shows"]>) =>
      store.setState((s) => ({ shown: { ...shown, count: s.shown.count + 1 } })),
    arranged: (arrangement: NonNullable<ReadContext["arrangement"]> | null) => void (arranged = arrangement),
    note: (line: DoneLine, join = false) => store.setState((s) => ({ lines: withLine(s.lines, line, join) })),
    world: () => store.getState().world,
    dismiss: (gone: number) => store.setState((s) => ({ notices: s.notices.filter((n) => n.id !== gone) })),
  };
}

export type Hands = ReturnType<typeof handsOn>;
