/** A range of a sheet: rows and columns by their places, from where it began to where it is. */
export interface Range {
  r1: number;
  c1: number;
  r2: number;
  c2: number;
}

export const normal = ({ r1, c1, r2, c2 }: Range): Range => ({
  r1: Math.min(r1, r2),
  r2: Math.max(r1, r2),
  c1: Math.min(c1, c2),
  c2: Math.max(c1, c2),
});

/** How many cells it has. */
export function sizeOf(range: Range): number {
  const { r1, c1, r2, c2 } = normal(range);
  return (r2 - r1 + 1) * (c2 - c1 + 1);
}

export const at = (row: number, column: number): Range => ({ r1: row, c1: column, r2: row, c2: column });

const STEPS: Record<string, (page: number) => [number, number]> = {
  ArrowUp: () => [-1, 0],
  ArrowDown: () => [1, 0],
  ArrowLeft: () => [0, -1],
  ArrowRight: () => [0, 1],
  PageUp: (page) => [-page, 0],
  PageDown: (page) => [page, 0],
  Home: () => [0, -Infinity],
  End: () => [0, Infinity],
};

export interface Room {
  rows: number;
  columns: number;
  /** The first column a range can be in. */
  lead: number;
  /** Rows seen at once. */
  page: number;
}

const clamp = (v: number, low: number, most: number): number => Math.max(low, Math.min(most - 1, v));

/**
 * A range after a key. Undefined where the key moves nothing.
 * @param far up and down go to the end. @param extend one end stays.
 */
export function moved(range: Range, key: string, { rows, columns, lead, page }: Room, extend: boolean, far: boolean) {
  const step = STEPS[key]?.(page);
  if (!step) return undefined;
  const r2 = clamp(range.r2 + (far && step[0] !== 0 ? step[0] * rows : step[0]), 0, rows);
  const c2 = clamp(range.c2 + step[1], lead, columns);
  return extend ? { ...range, r2, c2 } : at(r2, c2);
}
