/** What a SEL means: a selection written in the command language. */
import { cellsOf, modelOf } from "../show/model";
import { splitItem, splitKey, item, type Item } from "../show/ids";
import { fail } from "../show/refusal";
import type { Show } from "../show/schema";
import { grouped } from "../units/grouped";
import { fixtureNumbered, fixturesByNumber, groupNumbered, groupsByNumber, type World } from "../show/world";

export type SelTerm =
  | { kind: "fixture"; number: number }
  | { kind: "range"; from: number; to: number }
  | { kind: "cell"; fixture: number; cell: number }
  | { kind: "cells"; fixture: number; from: number; to: number }
  | { kind: "group"; number: number }
  | { kind: "groups"; from: number; to: number }
  | { kind: "groupNamed"; name: string }
  | { kind: "universe"; number: number }
  | { kind: "palette"; number: number }
  | { kind: "sameColour" }
  | { kind: "all" | "lit" | "last" | "alike" | "unpatched" | "unused" };

export interface Sel {
  terms: { sign: "+" | "-"; term: SelTerm }[];
  /** Each fixture stands for its cells. */
  cells: boolean;
  every: number;
}

/** What is asked of the stage as it is now. */
export interface Asked {
  /** The fixtures in the colour of one of these. */
  sameColour(like: readonly string[]): string[];
  /** The fixtures that stand in a palette; undefined where there is none of that number. */
  inPalette(number: number): string[] | undefined;
}

export interface SelContext extends Asked {
  world: World;
  /** Whether a fixture gives light now. */
  isLit(fixture: string): boolean;
}

/** The items a SEL means now, in order, each once. Ends with `fail` where a single thing does not exist. */
export function evaluateSel(sel: Sel, context: SelContext): Item[] {
  let chosen = new Set<Item>();
  for (const { sign, term } of sel.terms) {
    const found = evaluateTerm(term, context);
    if (sign === "+") for (const one of found) chosen.add(one);
    else chosen = new Set(takeAway(context, [...chosen], found));
  }
  let items = [...chosen];
  if (sel.cells) {
    const cells = items.flatMap((i) => cellsOf(context.world.show, i));
    if (cells.length === 0) fail("none of these fixtures has cells");
    items = [...new Set(cells)];
  }
  return sel.every > 1 ? items.filter((_, k) => k % sel.every === 0) : items;
}

/** `items` without `gone`; taking a cell from a whole fixture leaves its other cells. */
export function takeAway(context: Pick<SelContext, "world">, items: readonly Item[], gone: readonly Item[]): Item[] {
  const away = new Set(gone);
  const cellsGone = new Set(gone.filter((g) => splitItem(g).cell > 0).map((g) => splitItem(g).fixture));
  return items.flatMap((i) => {
    if (away.has(i)) return [];
    const { fixture, cell } = splitItem(i);
    if (cell > 0 && away.has(fixture)) return [];
    if (cell === 0 && cellsGone.has(fixture)) return cellsOf(context.world.show, i).filter((c) => !away.has(c));
    return [i];
  });
}

function evaluateTerm(term: SelTerm, { world, isLit, sameColour, inPalette }: SelContext): Item[] {
  const { show, hands } = world;
  const fixtures = fixturesByNumber(show);
  switch (term.kind) {
    case "fixture":
      return [(fixtureNumbered(show, term.number) ?? fail(`there is no fixture ${term.number}`, nearest(world))).id];
    case "range": {
      const [low, high] = [Math.min(term.from, term.to), Math.max(term.from, term.to)];
      const found = fixtures.filter((f) => f.number >= low && f.number <= high).map((f) => f.id);
      if (found.length === 0) fail(`there is no fixture from ${low} to ${high}`, nearest(world));
      return term.from <= term.to ? found : found.reverse();
    }
    case "cell":
      return [cellOf(world, term.fixture, term.cell)];
    case "cells": {
      const fixture =
        fixtureNumbered(show, term.fixture) ?? fail(`there is no fixture ${term.fixture}`, nearest(world));
      const count = modelOf(show, fixture).mode.cells;
      const [low, high] = [Math.min(term.from, term.to), Math.min(Math.max(term.from, term.to), count)];
      const found = Array.from({ length: Math.max(0, high - low + 1) }, (_, i) => item(fixture.id, low + i));
      if (found.length === 0) fail(`fixture ${term.fixture} has no cell from ${low} on`, `It has ${count} cells`);
      return term.from <= term.to ? found : found.reverse();
    }
    case "group":
      return members(
        world,
        groupNumbered(show, term.number) ?? fail(`there is no group ${term.number}`, groupHint(world)),
      );
    case "groups": {
      const [low, high] = [Math.min(term.from, term.to), Math.max(term.from, term.to)];
      const found = groupsByNumber(show).filter((g) => g.number >= low && g.number <= high);
      if (found.length === 0) fail(`there is no group from ${low} to ${high}`, groupHint(world));
      return (term.from <= term.to ? found : [...found].reverse()).flatMap((g) => members(world, g));
    }
    case "groupNamed": {
      const wanted = term.name.toLowerCase();
      const group = groupsByNumber(show).find((g) => g.name.toLowerCase() === wanted);
      const ofType = typeGroups(show).find((g) => g.name.toLowerCase() === wanted);
      if (!group && ofType) return [...ofType.members];
      return members(world, group ?? fail(`there is no group "${term.name}"`, groupHint(world)));
    }
    case "all":
      return fixtures.map((f) => f.id);
    case "lit":
      return fixtures.map((f) => f.id).filter(isLit);
    case "last":
      return [...hands.last];
    case "universe": {
      const found = fixtures.filter((f) => f.addresses.some((a) => a.universe === term.number));
      return found.length > 0 ? found.map((f) => f.id) : fail(`nothing is patched in universe ${term.number}`);
    }
    case "palette":
      return inPalette(term.number) ?? fail(`there is no palette ${term.number}`);
    case "sameColour": {
      const like = [...new Set(hands.selection.map((i) => splitItem(i).fixture))];
      return like.length > 0 ? sameColour(like) : fail("nothing is selected to be like", "Select a fixture first");
    }
    case "unpatched":
      return fixtures.filter((f) => f.addresses.length === 0).map((f) => f.id);
    case "alike": {
      const types = new Set(hands.selection.map((i) => show.fixtures[splitItem(i).fixture]?.type));
      if (types.size === 0) fail("nothing is selected to be like", "Select a fixture first");
      return fixtures.filter((f) => types.has(f.type)).map((f) => f.id);
    }
    case "unused": {
      const used = new Set(
        Object.values(show.lists).flatMap((list) =>
          Object.values(list.cues).flatMap((cue) => Object.keys(cue.entries).map((key) => splitKey(key).fixture)),
        ),
      );
      return fixtures.filter((f) => !used.has(f.id)).map((f) => f.id);
    }
  }
}

export interface TypeGroup {
  type: string;
  name: string;
  members: readonly Item[];
}

/** A group for each type there is, of all its fixtures by number: it keeps itself up to date. */
export function typeGroups(show: Show): readonly TypeGroup[] {
  const known = ofTypes.get(show.fixtures);
  if (known?.types === show.types) return known.made;
  const made = makeTypeGroups(show);
  if (Object.isFrozen(show.fixtures)) ofTypes.set(show.fixtures, { types: show.types, made });
  return made;
}

const ofTypes = new WeakMap<Show["fixtures"], { types: Show["types"]; made: readonly TypeGroup[] }>();

function makeTypeGroups(show: Show): TypeGroup[] {
  const byType = grouped(fixturesByNumber(show), (f) => f.type);
  return [...byType].map(([type, fixtures]) => ({
    type,
    name: show.types[type]?.model ?? type,
    members: fixtures.map((f) => f.id),
  }));
}

/** The members of a group that are still patched. */
export const members = ({ show }: World, group: { members: readonly Item[] }): Item[] =>
  group.members.filter((m) => show.fixtures[splitItem(m).fixture]);

function cellOf({ show }: World, number: number, cell: number): Item {
  const fixture = fixtureNumbered(show, number) ?? fail(`there is no fixture ${number}`);
  const count = modelOf(show, fixture).mode.cells;
  if (cell < 1 || cell > count)
    fail(
      `fixture ${number} has no cell ${cell}`,
      count ? `Its cells are ${number}.1 to ${number}.${count}` : "It has no cells",
    );
  return item(fixture.id, cell);
}

function nearest({ show }: World): string {
  const all = fixturesByNumber(show);
  return all.length === 0
    ? "Nothing is patched yet: patch 12 petrel-spot"
    : `The show has ${all.length} fixtures, from ${all[0]!.number} to ${all.at(-1)!.number}`;
}

function groupHint({ show }: World): string {
  const groups = groupsByNumber(show);
  return groups.length === 0
    ? "There are no groups yet: record group 1"
    : `There is ${groups
        .slice(0, 6)
        .map((g) => `${g.number} "${g.name}"`)
        .join(", ")}`;
}
