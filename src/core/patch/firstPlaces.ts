/** Where new fixtures hang until they are placed: in rows behind what is there, so that each can be seen and pressed. */
import type { Fixture, Show } from "../show/schema";

const APART = 1.2;
const ROW_DEPTH = 1.6;
/** At least; of hundreds the rows are longer, so that the block stays one that is seen whole. */
const IN_A_ROW = 16;
const HEIGHT = 5;

/** Places for `count` new fixtures, metres: centred rows upstage of everything patched. */
export function firstPlaces(show: Pick<Show, "fixtures">, count: number): Fixture["place"][] {
  const behind = Object.values(show.fixtures).reduce((far, f) => Math.max(far, f.place.y + ROW_DEPTH), 0);
  const long = Math.max(IN_A_ROW, Math.ceil(Math.sqrt(2 * count)));
  return Array.from({ length: count }, (_, i) => {
    const row = Math.floor(i / long);
    const inRow = Math.min(long, count - row * long);
    const x = ((i % long) - (inRow - 1) / 2) * APART;
    return { x: Math.round(x * 100) / 100, y: Math.round((behind + row * ROW_DEPTH) * 100) / 100, z: HEIGHT };
  });
}
