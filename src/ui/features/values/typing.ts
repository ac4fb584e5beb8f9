/** What a text typed into cells of the values sheet does: values, or delays and fades where times are looked at. */
import { cueTime, hold, ownTime } from "@/core/command/building";
import { attributeInfo } from "@/core/fixture/attribute";
import { selText } from "@/core/show/words/lineText";
import type { Item } from "@/core/show/ids";
import { targetsOf } from "@/core/show/model";
import type { Session } from "@/session/state";
import { typedAmounts, typedLine } from "@/ui/base/typed/typed";
import type { Layer } from "./cells";
import { attributesIn, heldIn, letGo, type Taken } from "./ranges";

const having = (session: Session, taken: readonly Taken[], attribute: string): Item[] => {
  const { show } = session.store.getState().world;
  return taken
    .filter((t) => t.attributes.includes(attribute) && targetsOf(show, t.id, attribute).length > 0)
    .map((t) => t.id);
};

/** Times as a cell shows them and takes them: "+2 1.5 s" is a delay of 2 and a fade of 1.5; "0 to 3" spreads fades. */
export function typedTimes(text: string): { delay?: string; fade?: string } | undefined {
  const words = text.trim().toLowerCase().replaceAll("+", " + ").split(/\s+/).filter(Boolean);
  let at = 0;
  const seconds = () => {
    const word = words[at]?.replace(/s$/, "") ?? "";
    if (!/^\d+(\.\d+)?$|^\.\d+$/.test(word)) return undefined;
    at += 1;
    if (words[at] === "s") at += 1;
    return word;
  };
  /** A time, or several joined by "to". */
  const spread = () => {
    const first = seconds();
    if (first === undefined) return undefined;
    const read = [first];
    while (words[at] === "to") {
      at += words[at + 1] === "+" ? 2 : 1;
      const next = seconds();
      if (next === undefined) return undefined;
      read.push(next);
    }
    return read.join(" to ");
  };
  const delayed = words[0] === "+";
  if (delayed) at = 1;
  const first = spread();
  const fade = delayed ? spread() : first;
  if (first === undefined || at < words.length) return undefined;
  return { ...(delayed ? { delay: first } : {}), ...(fade === undefined ? {} : { fade }) };
}

interface Typing {
  layer: Layer;
  /** Whether the hands' spread bends what is typed; else it goes plainly from first to last. */
  spread: boolean;
}

/** Does what was typed. */
export function typeCells(session: Session, text: string, taken: readonly Taken[], how: Typing): void {
  if (taken.length === 0) return;
  if (how.layer === "source")
    return session.tell("These cells say where values come from: type in the value or the timing view", "refused");
  if (how.layer === "timing") return typeTimes(session, text, taken, how);
  const { relative, amounts: said, over } = typedAmounts(text);
  const amounts = session.read("values", said);
  if (!amounts) return;
  session.hold(
    (b) => {
      b.plainly = !how.spread;
      for (const a of attributesIn(taken)) if (having(session, taken, a).length > 0) hold(b, a, amounts, relative);
      if (over !== undefined) b.over = over;
    },
    false,
    taken.map((t) => t.id),
  );
}

function typeTimes(session: Session, text: string, taken: readonly Taken[], { spread }: Typing): void {
  const said = typedTimes(text);
  if (!said)
    return session.tell(
      `"${text}" is no time here: type 2 for a fade, +1 for a delay, +1 2 for both, or 0 to 3`,
      "refused",
    );
  const delay = said.delay === undefined ? undefined : session.read("times", said.delay);
  const fade = said.fade === undefined ? undefined : session.read("times", said.fade);
  if ((said.delay !== undefined && !delay) || (said.fade !== undefined && !fade)) return;
  if (heldIn(session, taken).length === 0)
    return session.tell("Nothing in these cells is held: own times are of what is held", "refused");
  session.hold(
    (b) => {
      b.plainly = !spread;
      for (const attribute of attributesIn(taken)) ownTime(b, { attribute }, delay, fade);
    },
    false,
    taken.map((t) => t.id),
  );
}

/** Empties cells: what is held is let go of, or goes by the cue's time again. */
export function emptyCells(session: Session, taken: readonly Taken[], layer: Layer): void {
  if (layer !== "timing") return letGo(session, taken);
  if (heldIn(session, taken).length === 0) return session.tell("Nothing in these cells is held");
  session.hold(
    (b) => attributesIn(taken).forEach((attribute) => cueTime(b, { attribute })),
    false,
    taken.map((t) => t.id),
  );
}

/** The line that does what Enter will do, for the Ask bar to say; null where there is none. */
export function cellsLine(session: Session, text: string, taken: readonly Taken[], { layer }: Typing): string | null {
  const [attribute] = attributesIn(taken);
  if (attribute === undefined || layer === "source") return null;
  const { show } = session.store.getState().world;
  const sel = selText(
    show,
    taken.map((t) => t.id),
  );
  const what = attributeInfo(attribute).word ?? attribute;
  if (layer === "value") {
    const line = typedLine(text, what);
    return line && `${sel} ${line}`;
  }
  const said = typedTimes(text);
  if (!said) return null;
  return [sel, what, said.delay && `delay ${said.delay}`, said.fade && `fade ${said.fade}`].filter(Boolean).join(" ");
}
