/** Macros run from a window that hosts: line by line, edits as one step. */
import type { Doing } from "@/core/desk/perform";
import { running, type Rest } from "@/core/desk/macros";
import { isRefusal, type Refusal } from "@/core/show/refusal";
import type { EngineLink } from "./engineLink";
import type { Hands } from "./hands";
import type { Outcome, Session } from "./state";

/** @param doIt does it to the show. @param step tells the engine. @returns the refusal of a line; all it had edited is taken back then. */
export async function runRest(
  rest: Rest,
  hands: Hands,
  doIt: (doing: Doing) => Outcome,
  shows: Session["shows"],
  step: EngineLink["step"],
): Promise<Refusal | undefined> {
  const work = running(rest, `macro ${rest.macro}`, {
    context: hands.context,
    edit({ intents }, says, join) {
      if (!join) step("begun");
      return doIt({ intents, events: [], says, join }).now;
    },
    event: (event) => doIt({ intents: [], events: [event] }).end,
    takeBack() {
      doIt({ intents: [], events: [], control: "takeback" });
      step("back");
    },
    look({ why, shows: seen }) {
      if (why) hands.showWhy(why[0] ?? null);
      if (seen) shows(seen);
    },
  });
  let next = work.next();
  while (!next.done) next = work.next(await next.value);
  return next.value && isRefusal(next.value) ? next.value : undefined;
}
