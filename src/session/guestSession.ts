/** The session of a window beside the host's: what it does is tried here and done there. */
import { createStore } from "zustand/vanilla";
import { perform } from "@/core/desk/perform";
import { isRefusal, refusalText, type Refusal } from "@/core/show/refusal";
import type { Why } from "@/core/play/why";
import type { World } from "@/core/show/world";
import { guarded, handsOn, stepWords } from "./hands";
import { workOut } from "./inPieces";
import { startLooks, type LooksLink } from "./looksLink";
import { newState, type Session, type SessionState } from "./state";
import { NOTHING_WRONG, waysOf } from "./ways";
import type { Request } from "./windowMessages";

export interface Answer {
  refusal: Refusal | undefined;
  why: Why | null;
}

/** @param ask asks the host. @param leave is done when the window closes. */
export function guestSession(
  id: string,
  world: World,
  ask: (request: Request) => Promise<Answer>,
  leave: () => void,
): { session: Session; looks: LooksLink } {
  const store = createStore<SessionState>(() => newState(world));
  const looks = startLooks(
    () => ({
      world: store.getState().world,
      steps: stepWords(store.getState().history),
      view: store.getState().view,
    }),
    (checked) => store.setState({ checked }),
    (text) => hands.tell(text, "refused"),
  );
  const hands = handsOn(store, looks);

  addEventListener("pagehide", leave);
  const told = (refusal: Refusal): Refusal => (hands.tell(refusalText(refusal), "refused"), refusal);
  const agree: Session["agree"] = (destinations) => void ask({ kind: "agree", destinations: [...destinations] });
  const macro: Session["macro"] = async (of) => (await ask({ kind: "macro", id: of })).refusal;
  const session: Session = {
    id,
    store,
    readOnly: null,
    quietly: null,
    hosts: false,
    ...hands,
    ...waysOf(
      hands,
      (doing) => {
        // Undo and redo are the host's alone: only it has the steps.
        const tried = doing.control ? undefined : guarded(() => perform(store.getState(), doing));
        if (tried && isRefusal(tried)) return { ...NOTHING_WRONG, now: tried };
        const end = ask({ kind: "do", ...doing, says: doing.says ?? null, join: doing.join ?? false });
        return { now: undefined, end: end.then(({ refusal }) => refusal) };
      },
      agree,
      macro,
    ),
    macro,
    onOsc: () => () => undefined,
    async actInPieces(made) {
      const tried = await workOut(() => store.getState().world, made);
      if (tried === "stopped") return tried;
      const refusal = isRefusal(tried)
        ? tried
        : (await ask({ kind: "pieces", pieces: made.pieces.map((piece) => [...piece]), says: made.says })).refusal;
      return refusal && told(refusal);
    },
    askWire: (asked) => void ask({ kind: "wire", ask: asked }),
    agree,
    whyOf: async (key) => (await ask({ kind: "why", key })).why,
    flush: async () => undefined,
    close() {
      leave();
      removeEventListener("pagehide", leave);
      looks.close();
    },
  };
  return { session, looks };
}
