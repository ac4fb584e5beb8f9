"use client";

import { useRouter } from "next/navigation";
import { useEffect } from "react";
import { tinykeys } from "tinykeys";
import { clear } from "@/core/program/intents";
import { select } from "@/core/select/intents";
import { useKeyTable } from "./useKeyTable";
import { useBlind } from "../stage/blind";
import { useSession } from "../useSession";
import { askInput } from "../ask/askInput";
import { editEffect, useEditing } from "../effects/editing";
import { endStageTools, isPressed } from "../stage/stageTools";
import { usePlaceHref } from "./placeHref";
import { PLACES } from "./Rail";

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
  const router = useRouter();
  const href = usePlaceHref();
  const { table } = useKeyTable();

  useEffect(() => {
    const armed = () => session.store.getState().world.hands.armed;
    const actions: Record<string, () => void> = {
      go: () => isPressed() || void session.event({ kind: "go", list: armed() }),
      back: () => void session.event({ kind: "back", list: armed() }),
      pause: () => void session.event({ kind: "pause", list: armed() }),
      help: () => dispatchEvent(new Event("bold-comet-keys")),
      handbook: () => dispatchEvent(new Event("bold-comet-handbook")),
      undo: () => void session.step("undo"),
      redo: () => void session.step("redo"),
      clear: () => void session.act([clear.of({})], "clear"),
      effect: () => editEffect(useEditing.getState().open === null ? "held" : null),
      before: () => dispatchEvent(new Event("bold-comet-before")),
      peek: () => useBlind.setState((s) => ({ peeks: s.cue !== null && !s.peeks })),
      escape: () => {
        const ask = askInput();
        if (ask && ask.value !== "") return;
        if (endStageTools()) return;
        if (useEditing.getState().open !== null) return editEffect(null);
        if (session.store.getState().world.hands.selection.length > 0) session.act([select.of({ items: [] })], "none");
      },
      ...Object.fromEntries(PLACES.map(({ id }) => [id, () => router.push(href(id))])),
    };
    const always = new Set([
      "undo",
      "redo",
      "clear",
      "handbook",
      "effect",
      "before",
      "peek",
      ...PLACES.map((p) => p.id as string),
    ]);
    const bindings = Object.fromEntries(
      table.map(({ id, keys }) => [
        keys,
        (event: KeyboardEvent) => {
          const field = (event.target as HTMLElement | null)?.matches?.(FIELD) ?? false;
          const ours = isFree(event.target) || (always.has(id) && (!field || event.target === askInput()));
          if (!ours) return;
          event.preventDefault();
          actions[id]!();
        },
      ]),
    );
    const unbind = tinykeys(window, bindings);
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
      window.removeEventListener("keydown", type);
    };
  }, [session, router, href, table]);
}
