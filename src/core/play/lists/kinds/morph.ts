/** A morph: several looks along one level (SEMANTICS 11). */
import type { Kind } from "./kind";
import { allLevel } from "./byLevel";
import { LATEST } from "../../stage/layers";

export const morph: Kind = {
  ...allLevel,
  firstLevel: 0,
  scales: false,
  mixes: false,
  movesInBlack: false,
  limits: false,
  lays: true,
  role: () => LATEST,
  level: () => ({ do: "lay" }),
};
