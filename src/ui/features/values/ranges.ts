/** What ranges of the values sheet mean: filling, pasting, letting go, keeping out. */
import Papa from "papaparse";
import { holdEach } from "@/core/command/building";
import { drop, keepOut } from "@/core/program/intents";
import { typedNumber } from "@/core/fixture/typedNumber";
import type { Item, ParamKey } from "@/core/show/ids";
import { targetsOf } from "@/core/show/model";
import { halfOf } from "@/engine/view";
import type { Session } from "@/session/state";
import { seenByHands } from "@/ui/show/blind";
import { numberOf } from "./cells";

/** A row of a range, and the attributes it has there. */
export interface Taken {
  id: Item;
  attributes: readonly string[];
}

const MOST_PASTED = 20_000;

export const attributesIn = (taken: readonly Taken[]): string[] => [...new Set(taken.flatMap((t) => t.attributes))];
const having = (session: Session, taken: readonly Taken[], attribute: string): Item[] => {
  const { show } = session.store.getState().world;
  return taken
    .filter((t) => t.attributes.includes(attribute) && targetsOf(show, t.id, attribute).length > 0)
    .map((t) => t.id);
};

/** Values of rows go on over more rows: evenly spaced ones evenly, all else repeats. */
export function fillValues(session: Session, from: readonly Taken[], onto: readonly Taken[]): void {
  const { world, view: live } = session.store.getState();
  if (!live || from.length === 0 || onto.length === 0) return;
  const view = seenByHands(live);
  const half = halfOf(view);
  session.hold(
    (b) => {
      for (const attribute of attributesIn(from)) {
        const source = from.flatMap((t) => numberOf(world, half, view, t.id, attribute) ?? []);
        const targets = having(session, onto, attribute);
        if (source.length === 0 || targets.length === 0) continue;
        const step = source.length > 1 ? source[1]! - source[0]! : 0;
        const even = step !== 0 && source.every((v, k) => k === 0 || Math.abs(v - source[k - 1]! - step) < 1e-6);
        const value = (k: number) => (even ? source.at(-1)! + step * (k + 1) : source[k % source.length]!);
        holdEach(b, attribute, new Map(targets.map((id, k) => [id, value(k)])));
      }
    },
    false,
    onto.map((t) => t.id),
  );
}

/** A block from a spreadsheet, row for row. What is no number is left out, and how many is said. */
export function pasteValues(session: Session, text: string, onto: readonly Taken[]): void {
  const block = Papa.parse<string[]>(text.replace(/\r?\n$/, ""), { delimiter: "\t" }).data.slice(0, MOST_PASTED);
  const values = new Map<string, Map<Item, number>>();
  let left = 0;
  block.forEach((line, k) =>
    line.forEach((cell, j) => {
      const row = onto[k];
      const attribute = row?.attributes[j];
      const number = attribute === undefined ? undefined : typedNumber(attribute, cell);
      if (!attribute || number === undefined) left += cell.trim() === "" ? 0 : 1;
      else values.set(attribute, (values.get(attribute) ?? new Map<Item, number>()).set(row.id, number));
    }),
  );
  if (left > 0) session.tell(`${left} pasted cells are no number, or have no place here: they were left out`);
  if (values.size === 0) return;
  session.hold(
    (b) => values.forEach((own, attribute) => holdEach(b, attribute, own)),
    false,
    onto.map((t) => t.id),
  );
}

/** The held parameters of a range. */
export function heldIn(session: Session, taken: readonly Taken[]): ParamKey[] {
  const { show, hands } = session.store.getState().world;
  return taken
    .flatMap((t) => t.attributes.flatMap((a) => targetsOf(show, t.id, a).map((target) => target.key)))
    .filter((key) => hands.held[key]);
}

export function letGo(session: Session, taken: readonly Taken[]): void {
  const keys = heldIn(session, taken);
  if (keys.length > 0) session.act([drop.of({ keys })]);
  else session.tell("Nothing in these cells is held");
}

/** Keeps what is held in a range out of recording, or takes it back in where all of it is out. */
export function flipKept(session: Session, taken: readonly Taken[]): void {
  const keys = heldIn(session, taken);
  const { keptOut } = session.store.getState().world.hands;
  if (keys.length > 0) session.act([keepOut.of({ keys, out: !keys.every((key) => keptOut[key]) })]);
  else session.tell("Nothing in these cells is held");
}
