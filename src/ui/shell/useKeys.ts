"use client";

import { useEffect } from "react";
import { tinykeys } from "tinykeys";
import { useKeyTable } from "@/ui/show/keys/useKeyTable";
import { useSession } from "@/ui/show/useSession";
import { askInput } from "@/ui/show/foresight/askInput";
import { isPressed } from "@/ui/stage/stageTools";
import { ALWAYS, keyDeeds } from "./keyDeeds";
import { usePlaces } from "@/ui/show/addresses/places";
import { playsShow } from "@/ui/show/keys/showKeys";
import { isByTab } from "./useFocusManners";

/** What a show is played with: these keys do it wherever they are pressed. */
const PLAYS: ReadonlySet<string> = new Set(["go", "back", "pause"]);
const FIELD = "input, textarea, select, [contenteditable=true]";

/** Whether plain keys mean the show: no field has the focus, or only the empty Ask bar has. */
function isFree(target: EventTarget | null): boolean {
  const element = target as HTMLElement | null;
  if (!element?.matches?.(FIELD)) return !element?.closest?.("[role=dialog], [role=grid]");
  const ask = askInput();
  return element === ask && ask?.value === "";
}

/** Binds the keys of keys.ts, and sends typing to the Ask bar. */
export function useKeys(): void {
  const session = useSession();
  const { go } = usePlaces();
  const { table } = useKeyTable();

  useEffect(() => {
    const actions = keyDeeds(session, go);
    // Whatever has the focus: before anything else hears of them. A key that is held plays once.
    const playing = Object.fromEntries(
      table
        .filter(({ id }) => PLAYS.has(id))
        .map(({ id, keys }) => [
          keys,
          (event: KeyboardEvent) => {
            // In the midst of a drag over the plan it is the hand's.
            if (id === "go" && isPressed()) return;
            if (!playsShow(event.target as HTMLElement, askInput(), isByTab())) return;
            event.preventDefault();
            event.stopPropagation();
            if (!event.repeat) actions[id]!();
          },
        ]),
    );
    const bindings = Object.fromEntries(
      table
        .filter(({ id }) => !PLAYS.has(id))
        .map(({ id, keys }) => [
          keys,
          (event: KeyboardEvent) => {
            const field = (event.target as HTMLElement | null)?.matches?.(FIELD) ?? false;
            const ours = isFree(event.target) || (ALWAYS.has(id) && (!field || event.target === askInput()));
            if (!ours) return;
            event.preventDefault();
            actions[id]!();
          },
        ]),
    );
    const unbind = tinykeys(window, bindings);
    const unbindPlaying = tinykeys(window, playing, { capture: true });
    const type = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || event.key.length !== 1 || event.defaultPrevented) return;
      if (!isFree(event.target) || [" ", ".", "?"].includes(event.key)) return;
      const element = event.target as HTMLElement | null;
      if (element?.closest?.("[role=menu], [role=listbox]")) return;
      askInput()?.focus();
    };
    window.addEventListener("keydown", type);
    return () => {
      unbind();
      unbindPlaying();
      window.removeEventListener("keydown", type);
    };
  }, [session, go, table]);
}
