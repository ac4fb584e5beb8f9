import { refusalText } from "@/core/show/refusal";
import type { Session } from "@/session/state";

/** Runs a macro; where it stopped, and why, is told. */
export const runMacro = (session: Session, id: string): void =>
  void session.macro(id).then((refused) => refused && session.tell(refusalText(refused), "refused"));
