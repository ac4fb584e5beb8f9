"use client";

/** Reading and writing what a browser remembers. By hand, since the hook of the library would follow other windows: each keeps its own arrangement. */
import { useCallback, useEffect, useState } from "react";
import { handedOn, type Kind, type Remembered } from "./registry";

const CHANGED = "bold-comet-pref";

/** What stands there now; what does not fit its schema is forgotten. */
export function recall<T>({ key, schema, start }: Remembered<T>): T {
  try {
    const parsed = schema.safeParse(JSON.parse(localStorage.getItem(key) ?? "null"));
    return parsed.success ? parsed.data : start;
  } catch {
    return start;
  }
}

/** Remembers something for whoever shows it now or later. */
export function keep<T>({ key }: Remembered<T>, value: T): void {
  try {
    localStorage.setItem(key, JSON.stringify(value));
  } catch {
    // Without storage the layout is as it was next time: nothing of the show is lost.
  }
  dispatchEvent(new CustomEvent(CHANGED, { detail: key }));
}

/** Something this browser remembers, and keeping it; drawn again when it is kept from elsewhere in the window. */
export function useRemembered<T>(what: Remembered<T>): [T, (next: T) => void] {
  const [value, setValue] = useState<T>(() => recall(what));
  useEffect(() => {
    const look = (event: Event) => (event as CustomEvent<string>).detail === what.key && setValue(recall(what));
    addEventListener(CHANGED, look);
    return () => removeEventListener(CHANGED, look);
  }, [what]);
  const put = useCallback(
    (next: T) => {
      setValue(next);
      keep(what, next);
    },
    [what],
  );
  return [value, put];
}

/** Everything of some kinds that is remembered and may be handed on, as text, by name. @param most so many at most. @param longest characters of each. */
export function rememberedOf(kinds: readonly Kind[], most: number, longest: number): Record<string, string> {
  const found: Record<string, string> = {};
  for (let i = 0; i < localStorage.length && Object.keys(found).length < most; i++) {
    const key = localStorage.key(i)!;
    const text = localStorage.getItem(key) ?? "";
    if (handedOn(key, kinds) && text.length <= longest) found[key] = text;
  }
  return found;
}

/** Takes what was handed on, one thing at a time; what is not of these kinds or does not fit is left as it is. */
export function takeOver(kinds: readonly Kind[], key: string, value: unknown): void {
  const what = handedOn(key, kinds);
  const parsed = what?.schema.safeParse(value);
  if (what && parsed?.success) keep(what, parsed.data);
}
