/** Where labels have room: a coarse grid of what is taken. */

const CELL = 2;

export interface LabelRoom {
  /** Takes a rectangle, free or not; pixels. */
  take(x: number, y: number, width: number, height: number): void;
  /** Takes a rectangle where it is free. Returns whether it was. */
  has(x: number, y: number, width: number, height: number): boolean;
  /** Another with the same taken, that goes its own way. */
  copy(): LabelRoom;
}

/** A picture of so many pixels, empty unless told what is taken. What lies outside of it is never free. */
export function createRoom(width: number, height: number, from?: Uint8Array): LabelRoom {
  const [columns, rows] = [Math.ceil(width / CELL), Math.ceil(height / CELL)];
  const taken = from?.slice() ?? new Uint8Array(columns * rows);
  const cells = (from: number, size: number): [number, number] => [
    Math.floor(from / CELL),
    Math.ceil((from + size) / CELL) - 1,
  ];
  const take = (x: number, y: number, w: number, h: number): void => {
    const [left, right] = cells(x, w);
    const [top, bottom] = cells(y, h);
    for (let row = Math.max(0, top); row <= Math.min(rows - 1, bottom); row++)
      taken.fill(1, row * columns + Math.max(0, left), row * columns + Math.max(0, Math.min(columns - 1, right) + 1));
  };
  return {
    take,
    copy: () => createRoom(width, height, taken),
    has(x, y, w, h) {
      const [left, right] = cells(x, w);
      const [top, bottom] = cells(y, h);
      if (left < 0 || top < 0 || right >= columns || bottom >= rows) return false;
      for (let row = top; row <= bottom; row++)
        for (let column = left; column <= right; column++) if (taken[row * columns + column]) return false;
      take(x, y, w, h);
      return true;
    },
  };
}
