/** What emitters and filters are made of: their chromaticity and how much light they give (FIXTURES.md). */
import type { Xy } from "./chromaticity";

export interface Emitter {
  xy: Xy;
  /** Relative luminous flux at full. */
  flux: number;
}

/** By attribute. Cool white stands in no table of ours: daylight of some 7,000 K, as bright as white. */
export const EMITTERS: Readonly<Record<string, Emitter>> = {
  ColorAdd_R: { xy: [0.7, 0.299], flux: 24 },
  ColorAdd_G: { xy: [0.17, 0.7], flux: 62 },
  ColorAdd_B: { xy: [0.135, 0.04], flux: 6 },
  ColorAdd_W: { xy: [0.3127, 0.329], flux: 100 },
  ColorAdd_WW: { xy: [0.459, 0.41], flux: 90 },
  ColorAdd_CW: { xy: [0.3054, 0.3216], flux: 100 },
  ColorAdd_RY: { xy: [0.57, 0.42], flux: 40 },
  ColorAdd_GY: { xy: [0.408, 0.56], flux: 90 },
  ColorAdd_UV: { xy: [0.17, 0.01], flux: 1 },
};

/** The light of an emitter: what its type measured, else the table's; undefined where neither knows it. */
export const emitterOf = (fn: { attribute: string; emitter?: Emitter | undefined }): Emitter | undefined =>
  fn.emitter ?? EMITTERS[fn.attribute];

/** The source behind filters. */
export const SOURCE: Emitter = EMITTERS.ColorAdd_W!;

/** What a filter leaves of the source's white at 100 %. */
export const FILTERS: Readonly<Record<string, Xy>> = {
  ColorSub_C: [0.18, 0.3],
  ColorSub_M: [0.38, 0.16],
  ColorSub_Y: [0.45, 0.48],
};

export const PRIMARIES = ["ColorAdd_R", "ColorAdd_G", "ColorAdd_B"] as const;
