"use client";

import { useEffect } from "react";

/** Texts that were cut when the pointer came over them. */
const told = new WeakSet<HTMLElement>();

/** Says a text in full on hover wherever it has no room: everything that can be cut would need a title of its own. */
export function useFullText(): void {
  useEffect(() => {
    const over = ({ target }: PointerEvent) => {
      if (!(target instanceof HTMLElement) || target.childElementCount > 0) return;
      const isCut = target.scrollWidth > target.clientWidth && getComputedStyle(target).textOverflow === "ellipsis";
      if (!told.has(target) && (!isCut || target.closest("[title]"))) return;
      told.add(target);
      target.title = isCut ? (target.textContent ?? "") : "";
    };
    addEventListener("pointerover", over);
    return () => removeEventListener("pointerover", over);
  }, []);
}
