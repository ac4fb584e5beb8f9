/** One way of doing lines, intents and events, in the window that hosts a show and in those beside it. */
import type { Doing } from "@/core/desk/perform";
import { sayIntents } from "@/core/desk/perform";
import { destinationNames } from "@/core/dmx/consent";
import type { Intent } from "@/core/show/change/intent";
import { attempt, isRefusal, refusalText, type Refusal } from "@/core/show/refusal";
import type { Output } from "@/core/show/schema";
import type { Hands } from "./hands";
import type { Outcome, Session } from "./state";

export const NOTHING_WRONG: Outcome = { now: undefined, end: Promise.resolve(undefined) };

/** The destinations a line typed by hand sets: typing them is agreeing to them. */
const typedDestinations = ({ intents }: Doing): string[] =>
  intents.flatMap((intent) =>
    intent.kind === "setOutputs" && intent.output ? destinationNames(intent.output as Output) : [],
  );

/** @param doIt does it to the show, or hands it to the window that can. Refusals are told here. */
export function waysOf(
  hands: Hands,
  doIt: (doing: Doing) => Outcome,
  agree: Session["agree"],
  macro: Session["macro"],
): Pick<Session, "run" | "act" | "build" | "hold" | "event" | "step"> {
  const told = <T extends Refusal | undefined>(refusal: T): T => {
    if (refusal) hands.tell(refusalText(refusal), "refused");
    return refusal;
  };
  /** @param line what it is told as; the lines of the intents where there is none. */
  const act = (intents: readonly Intent[], says?: string, join?: boolean, line?: string): Refusal | undefined => {
    const before = hands.world();
    const doing: Doing = { intents: [...intents], events: [], says: says ?? sayIntents(before, intents), join };
    const { now, end } = doIt(doing);
    if (now) return told(now);
    hands.note(line ?? { before, intents }, join);
    void end.then(told);
    return undefined;
  };
  return {
    act: (intents, says, join) => act(intents, says, join),
    build({ make, line }) {
      const made = attempt(() => make(hands.context()));
      return isRefusal(made) ? told(made) : act(made, undefined, false, line);
    },
    async run(line) {
      const found = hands.readLine(line);
      if (found === undefined) return undefined;
      if (isRefusal(found)) return told(found);
      const { intents, events, control, why, shows } = found;
      if (found.macro !== undefined) return told(await macro(found.macro));
      if (shows) hands.shows(shows);
      const { now, end } = doIt({ intents, events, ...(control ? { control } : {}) });
      const refusal = now ?? (await end);
      if (refusal) return told(refusal);
      const destinations = typedDestinations(found);
      if (destinations.length > 0) agree(destinations);
      if (why) hands.showWhy(why[0] ?? null);
      return undefined;
    },
    hold(build, join, items) {
      const made = hands.wouldHold(build, items);
      return isRefusal(made) ? told(made) : act(made, undefined, join);
    },
    async step(control) {
      const { now, end } = doIt({ intents: [], events: [], control });
      told(now ?? (await end));
    },
    async event(event) {
      const before = hands.world();
      const { now, end } = doIt({ intents: [], events: [event] });
      if (!told(now ?? (await end))) hands.note({ before, event });
    },
  };
}
