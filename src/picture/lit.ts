/** What the painter paints from: the stage as it is published, a cue's look, or any other. */
export interface Lit {
  /** Values after masters, by the place of their parameter. */
  value: Float64Array;
  /** The function each of them is in. */
  fn: Uint8Array;
}
