/** What each key does, by its id (ui/show/keys). */
import { clear, setBlind, setHighlight } from "@/core/program/intents";
import { select, step } from "@/core/select/intents";
import { fixturesByNumber, macrosByNumber, pagesByNumber, viewsByNumber } from "@/core/show/world";
import type { Session } from "@/session/state";
import type { PlaceId } from "@/ui/show/addresses/placeIds";
import { useBlind } from "@/ui/show/blind";
import { editEffect, useEditing } from "@/ui/show/effects/editing";
import { askInput } from "@/ui/show/foresight/askInput";
import { goOnce } from "@/ui/show/playing/goOnce";
import { runMacro } from "@/ui/show/playing/runMacro";
import { endStageTools, toggleRoom } from "@/ui/stage/stageTools";
import { openHandbook } from "./handbook/Handbook";
import { PLACES } from "./Rail";

/** What is done wherever the focus is, but in a field. */
export const ALWAYS: ReadonlySet<string> = new Set([
  "undo",
  "redo",
  "clear",
  "handbook",
  "effect",
  "room",
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

export function keyDeeds(session: Session, go: (place: PlaceId) => void): Record<string, () => void> {
  const hands = () => session.store.getState().world.hands;
  const armed = () => [hands().armed, ...hands().alsoArmed];
  const all = (kind: "back" | "pause") => () => armed().forEach((list) => void session.event({ kind, list }));
  const nth = <T extends { id: string }>(of: readonly T[], k: number, act: (id: string) => void) => {
    const found = of[k];
    if (found) act(found.id);
  };
  const show = () => session.store.getState().world.show;
  const stepTo = (to: "next" | "previous" | "whole") => void session.act([step.of({ to })]);
  return {
    go: () => goOnce(session, armed()),
    back: all("back"),
    pause: all("pause"),
    tap: () => armed().forEach((list) => void session.event({ kind: "tap", list })),
    ...Object.fromEntries(
      [1, 2, 3, 4].flatMap((n) => [
        [`macro-${n}`, () => nth(macrosByNumber(show()), n - 1, (id) => runMacro(session, id))],
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
    room: () => toggleRoom(),
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
}
