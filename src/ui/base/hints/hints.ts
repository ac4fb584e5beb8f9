/** When something explains itself: on hover where the browser does not say it, on focus by Tab, and under a finger that rests. */

export interface Hint {
  text: string;
  /** Of what, and where it is. */
  at: DOMRect;
  /** Said above it: a finger lies on what is below. */
  above: boolean;
}

const HOVER_MS = 500;
const FOCUS_MS = 350;
const TOUCH_MS = 450;
/** A finger that moves so far does something else, px. */
const STILL = 10;

const CONTROL = "button, a[href], [role=button], [role=tab], [role=switch], [role=img]";

/** Whether only a picture or a mark is seen of it. */
const isBare = (element: HTMLElement) => !/[a-z0-9]{2}/i.test(element.textContent ?? "");

/** What an element says of itself: its title; of a bare one, its name. */
export function hintOf(target: HTMLElement): { element: HTMLElement; text: string } | null {
  const control = target.closest<HTMLElement>(CONTROL);
  const titled = target.closest<HTMLElement>("[title]:not([title=''])");
  // The title of what lies around a button is not the button's.
  if (titled && (!control || control.contains(titled) || titled === control))
    return { element: titled, text: titled.title };
  const name = control?.getAttribute("aria-label");
  return control && name && isBare(control) ? { element: control, text: name } : null;
}

/** Texts that were cut when the pointer came over them. */
const cut = new WeakSet<HTMLElement>();

/** A text that has no room gets itself as its title. */
function sayCut(target: HTMLElement): void {
  if (target.childElementCount > 0) return;
  const isCut = target.scrollWidth > target.clientWidth && getComputedStyle(target).textOverflow === "ellipsis";
  if (!cut.has(target) && (!isCut || target.closest("[title]"))) return;
  cut.add(target);
  target.title = isCut ? (target.textContent ?? "") : "";
}

/** Watches a page. @param say told what is to be said now, null for nothing. @returns a way to end it. */
export function watchHints(say: (hint: Hint | null) => void): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  let from: { x: number; y: number } | null = null;
  let byTab = false;
  const end = () => {
    clearTimeout(timer);
    from = null;
    say(null);
  };
  const soon = (target: EventTarget | null, ms: number, above: boolean, accepts: (of: HTMLElement) => boolean) => {
    end();
    const found = target instanceof HTMLElement || target instanceof SVGElement ? hintOf(target as HTMLElement) : null;
    if (!found || !accepts(found.element)) return;
    timer = setTimeout(() => {
      // What has a tooltip of its own is described by it.
      if (!found.element.isConnected || found.element.hasAttribute("aria-describedby")) return;
      say({ text: found.text, at: found.element.getBoundingClientRect(), above });
    }, ms);
  };
  const on: { [K in keyof WindowEventMap]?: (event: WindowEventMap[K]) => void } = {
    pointerover({ target, pointerType }) {
      if (pointerType !== "mouse") return;
      if (target instanceof HTMLElement) sayCut(target);
      soon(target, HOVER_MS, false, (element) => element.title === "");
    },
    pointerdown({ target, pointerType, clientX: x, clientY: y }) {
      if (pointerType === "mouse") return end();
      soon(target, TOUCH_MS, true, () => true);
      from = { x, y };
    },
    pointermove({ clientX, clientY }) {
      if (from && Math.hypot(clientX - from.x, clientY - from.y) > STILL) end();
    },
    pointerup: end,
    pointercancel: end,
    keydown({ key }) {
      byTab = key === "Tab";
      end();
    },
    focusin({ target }) {
      if (byTab) soon(target, FOCUS_MS, false, () => true);
    },
    wheel: end,
  };
  const events = Object.entries(on) as [keyof WindowEventMap, EventListener][];
  for (const [name, does] of events) addEventListener(name, does, { capture: true, passive: true });
  return () => {
    end();
    for (const [name, does] of events) removeEventListener(name, does, { capture: true });
  };
}
