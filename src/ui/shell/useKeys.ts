"use client";

import { useEffect } from "react";
import { tinykeys } from "tinykeys";
import { refusalText } from "@/core/show/refusal";
import { fixturesByNumber, macrosByNumber, pagesByNumber, viewsByNumber } from "@/core/show/world";
import { clear, setBlind, setHighlight } from "@/core/program/intents";
import { select, step } from "@/core/select/intents";
import { useKeyTable } from "@/ui/show/keys/useKeyTable";
import { openHandbook } from "./handbook/Handbook";
import { useBlind } from "@/ui/show/blind";
import { useSession } from "@/ui/show/useSession";
import { askInput } from "@/ui/show/foresight/askInput";
import { editEffect, useEditing } from "@/ui/show/effects/editing";
import { goOnce } from "@/ui/show/playing/goOnce";
import { endStageTools, isPressed } from "../stage/stageTools";
import { usePlaces } from "@/ui/show/addresses/places";
import { playsShow } from "@/ui/show/keys/showKeys";
import { isByTab } from "./useFocusManners";
import { PLACES } from "./Rail";

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
    const hands = () => session.store.getState().world.hands;
    const armed = () => [hands().armed, ...hands().alsoArmed];
    const all = (kind: "back" | "pause") => () => armed().forEach((list) => void session.event({ kind, list }));
    const nth = <T extends { id: string }>(of: readonly T[], k: number, act: (id: string) => void) => {
      const found = of[k];
      if (found) act(found.id);
    };
    const show = () => session.store.getState().world.show;
    const stepTo = (to: "next" | "previous" | "whole") => void session.act([step.of({ to })]);
    const actions: Record<string, () => void> = {
      go: () => goOnce(session, armed()),
      back: all("back"),
      pause: all("pause"),
      tap: () => armed().forEach((list) => void session.event({ kind: "tap", list })),
      ...Object.fromEntries(
        [1, 2, 3, 4].flatMap((n) => [
          [
            `macro-${n}`,
            () =>
              nth(
                macrosByNumber(show()),
                n - 1,
                (id) => void session.macro(id).then((no) => no && session.tell(refusalText(no), "refused")),
              ),
          ],
          [`view-${n}`, () => nth(viewsByNumber(show()), n - 1, (view) => session.shows({ view }))],
          [`page-${n}`, () => nth(pagesByNumber(show()), n - 1, (page) => session.shows({ page }))],
        ]),
      ),
      help: () => dispatchEvent(new Event("bold-comet-keys")),
      handbook: () => openHandbook(),
      undo: () => void session.step("undo"),
      redo: () => void session.step("redo"),
      clear: () => void session.act([clear.of({})], "clear"),
      "select-all": () => void session.act([select.of({ items: fixturesByNumber(show()).map((f) => f.id) })], "all"),
      effect: () => editEffect(useEditing.getState().open === null ? "held" : null),
      "step-next": () => stepTo("next"),
      "step-previous": () => stepTo("previous"),
      "step-whole": () => stepTo("whole"),
      highlight: () => void session.act([setHighlight.of({ on: !hands().highlight })]),
      blind: () => void session.act([setBlind.of({ on: !hands().blind })]),
      before: () => dispatchEvent(new Event("bold-comet-before")),
      peek: () => useBlind.setState((s) => ({ peeks: session.store.getState().world.hands.blind && !s.peeks })),
      escape: () => {
        const ask = askInput();
        if (ask && ask.value !== "") return;
        if (endStageTools()) return;
        if (useEditing.getState().open !== null) return editEffect(null);
        if (session.store.getState().world.hands.selection.length > 0) session.act([select.of({ items: [] })], "none");
      },
      ...Object.fromEntries(PLACES.map(({ id }) => [id, () => go(id)])),
    };
    const always = new Set([
      "undo",
      "redo",
      "clear",
      "handbook",
      "effect",
      "before",
      "peek",
      "tap",
      "step-next",
      "step-previous",
      "step-whole",
      "highlight",
      "blind",
      ...[1, 2, 3, 4].flatMap((n) => [`macro-${n}`, `view-${n}`, `page-${n}`]),
      ...PLACES.map((p) => p.id as string),
    ]);
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
            const ours = isFree(event.target) || (always.has(id) && (!field || event.target === askInput()));
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
