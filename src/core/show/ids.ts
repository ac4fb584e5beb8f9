/** Ids and the keys made of them. Numbers and names are labels; ids never change. */

import { z } from "../units/zod";

/** Ids as they may come from outside: none of them can name something that every object has (`constructor`). */
const ID = /^[a-z]\d{1,15}$/;
export const IdSchema = z.string().regex(ID);
/** The same asked without the schema, for thousands of records. */
export const isId = (id: unknown): boolean => typeof id === "string" && ID.test(id);
export const FixtureIdSchema = z.string().regex(/^f\d{1,15}$/);
export const ItemSchema = z.string().regex(/^f\d{1,15}(\.\d{1,3})?$/);
/** Keys that were cut before. */
const places = new Map<string, { fixture: string; place: string }>();
const PARAM_KEY = /^f\d{1,15}\.\d{1,3}\.\S{1,60}$/;
export const ParamKeySchema = z.string().regex(PARAM_KEY);
/** Whether a text is the key of a parameter. */
export const isParamKey = (text: string): boolean => places.has(text) || PARAM_KEY.test(text);

/** A record's stable id: a letter for its kind and a count. */
export type Id = string;
/** A selected thing: a fixture ("f3") or one of its cells ("f3.4"). */
export type Item = string;
/** A parameter: fixture, cell (0 = none) and head attribute, "f3.0.Pan". */
export type ParamKey = string;

/** The key of a parameter. @param cell from 1; 0 for the fixture's own. @param head the first attribute of its channel. */
export const paramKey = (fixture: Id, cell: number, head: string): ParamKey => `${fixture}.${cell}.${head}`;

/** Where each parameter is in a frame; undefined where it is not there. */
export interface ParamIndex {
  get(key: ParamKey): number | undefined;
  /** Where those of a fixture begin, and how many they are: they lie one after the other, in the order of its mode. */
  of?(fixture: Id): { first: number; count: number } | undefined;
}

/** The fixture of a key, and what is after it: "f3" and "0.Pan". */
export interface KeyPlace {
  fixture: Id;
  place: string;
}

/** So many keys are remembered; then it starts afresh. */
const MOST_KEYS = 300_000;

/** Where a parameter's key leads: cut once, as it is asked of thousands over and over. */
export function placeIn(key: ParamKey): KeyPlace {
  const known = places.get(key);
  if (known) return known;
  const dot = key.indexOf(".");
  const made = { fixture: key.slice(0, dot), place: key.slice(dot + 1) };
  if (!PARAM_KEY.test(key)) return made;
  if (places.size >= MOST_KEYS) places.clear();
  places.set(key, made);
  return made;
}

/** The parts of a parameter's key. */
export function splitKey(key: ParamKey): { fixture: Id; cell: number; head: string } {
  const [fixture, cell, head] = key.split(".") as [string, string, string];
  return { fixture, cell: Number(cell), head };
}

/** A fixture, or one of its cells from 1. */
export const item = (fixture: Id, cell = 0): Item => (cell > 0 ? `${fixture}.${cell}` : fixture);

/** The parts of an item; cell 0 is the fixture itself. */
export function splitItem(value: Item): { fixture: Id; cell: number } {
  const dot = value.indexOf(".");
  return dot < 0 ? { fixture: value, cell: 0 } : { fixture: value.slice(0, dot), cell: Number(value.slice(dot + 1)) };
}
