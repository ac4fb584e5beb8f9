/** How a cue starts, as people write it: "on go", "auto 3", "done 2". */
import type { Trigger } from "../show/schema";
import { refuse, type Refusal } from "../show/refusal";
import { plain } from "../units/units";

const MOST = 86_400;

/** A trigger in words. */
export const startText = (trigger: Trigger): string =>
  trigger.kind === "go" ? "on go" : `${trigger.kind === "autoDone" ? "done" : "auto"} ${plain(trigger.after)}`;

/** A trigger from words, a bare number being seconds after the go before; a refusal that says what would do. */
export function readStart(text: string): Trigger | Refusal {
  const said = text.trim().toLowerCase().replace(/\s+/g, " ");
  if (said === "go" || said === "on go" || said === "") return { kind: "go" };
  const [, how = "auto", seconds = ""] = /^(auto|done|auto done)? ?(\d{1,6}(?:\.\d{1,6})?) ?s?$/.exec(said) ?? [];
  const after = Number(seconds);
  if (seconds === "" || after > MOST)
    return refuse(
      `"${text.trim().slice(0, 60)}" is no way for a cue to start`,
      "Type: on go; auto 3, which is 3 seconds after the previous go; or done 3, after the previous cue is complete",
    );
  return { kind: how === "auto" ? "auto" : "autoDone", after };
}
