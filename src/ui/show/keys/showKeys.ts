/** Where a key that plays the show is typed instead, or presses what has the focus: everywhere else it plays. */

/** What is asked of an element: a real one, or a stand-in of a test. */
export type Asked = Pick<Element, "matches" | "closest">;

const UNTYPED = ["radio", "checkbox", "range", "button", "submit", "reset", "color", "file", "image"];
const TEXT = [
  "textarea:not([readonly]):not([disabled])",
  "[contenteditable=true]",
  `input:not([readonly]):not([disabled])${UNTYPED.map((type) => `:not([type=${type}])`).join("")}`,
].join(", ");
const PRESSED = "button, input, select, summary, a, [role=switch], [role=button], [role=checkbox], [role=tab]";

/** Whether letters go into it. */
export const takesText = (target: Asked | null): boolean => target?.matches?.(TEXT) === true;

const LEFT = "button, input[type=radio], input[type=checkbox], summary, [role=switch], [role=button], [role=tab]";
/** Whether the focus leaves it after a pointer pressed it: it has no use for keys. What opens a list keeps it. */
export const isLeft = (target: Asked | null): boolean =>
  target?.matches?.(LEFT) === true &&
  !target.matches("[aria-haspopup], [aria-expanded=true], [role=slider], [data-number=true], [data-scrub]");

/**
 * Whether a key of the show plays it, pressed while `target` has the focus.
 * @param ask the Ask bar's field: empty, it leaves the key to the show. @param byTab whether the focus came there by the keyboard.
 */
export function playsShow(target: Asked | null, ask: (Asked & { value: string }) | null, byTab: boolean): boolean {
  if (takesText(target)) return target === ask && ask?.value === "";
  const inDialog = target?.closest?.("[role=dialog]") ?? null;
  return !(inDialog && byTab && target?.matches(PRESSED));
}
