"use client";

import { useEffect } from "react";
import { askInput } from "@/ui/show/foresight/askInput";
import { isLeft, takesText } from "@/ui/show/keys/showKeys";

/** How the focus came where it is: led there by keys, or put there by the press that was the last thing a hand did. */
let byTab = false;
let byPointer = false;
/** The key pressed last was Tab: only then is the focus in a field for what is there to be replaced. */
let tabbed = false;
export const isByTab = (): boolean => byTab;

/** Places that hold the focus for themselves while they are open. */
const HOLDS = "[role=dialog], [role=menu], [role=listbox]";

/** A field whose text is one of a list. */
const CHOOSES = "[role=combobox], [aria-haspopup=listbox]";

/**
 * Buttons do not keep the focus after a pointer, so that Enter presses nothing unseen; switches are pressed with Enter
 * as buttons are, Space being go; Escape leaves a text field, and so does Enter where nothing else takes it.
 */
export function useFocusManners(): void {
  useEffect(() => {
    const pointer = () => {
      byTab = false;
      tabbed = false;
      byPointer = true;
    };
    const key = (event: KeyboardEvent) => {
      byPointer = false;
      tabbed = event.key === "Tab";
      if (event.key === "Tab" || event.key.startsWith("Arrow")) byTab = true;
    };
    const focused = ({ target }: FocusEvent) => {
      const element = target as HTMLElement | null;
      // Tab into a number, or a press into a chosen name: what is typed takes its place.
      if (element instanceof HTMLInputElement && takesText(element) && element !== askInput())
        if (!byPointer) {
          if (tabbed) element.select();
        } else if (element.matches(CHOOSES)) setTimeout(() => element.select());
      if (!byPointer || !isLeft(element) || element?.closest(HOLDS)) return;
      // After the press: what is pressed must have had it for a moment.
      setTimeout(() => document.activeElement === element && element?.blur());
    };
    const press = (event: KeyboardEvent) => {
      const element = event.target as HTMLElement | null;
      if (event.key === "Enter" && !event.defaultPrevented && element?.matches("input[type=checkbox]")) {
        event.preventDefault();
        return element.click();
      }
      // Never the text of the page.
      if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === "a" && !takesText(element))
        event.preventDefault();
      const gives = element instanceof HTMLInputElement && !element.form && !element.matches(CHOOSES);
      if (event.key === "Enter" && !event.defaultPrevented && gives && takesText(element) && element !== askInput())
        if (!element.closest(HOLDS)) return element.blur();
      if (event.key !== "Escape" || !takesText(element) || element === askInput()) return;
      if (!element?.closest(HOLDS)) element?.blur();
    };
    addEventListener("pointerdown", pointer, true);
    addEventListener("keydown", key, true);
    addEventListener("focusin", focused);
    addEventListener("keydown", press);
    return () => {
      removeEventListener("pointerdown", pointer, true);
      removeEventListener("keydown", key, true);
      removeEventListener("focusin", focused);
      removeEventListener("keydown", press);
    };
  }, []);
}
