/** Where items lie on the plan, as an order with shared places (SEMANTICS 2, "by"). */
import { rotationOf } from "../patch/room";
import { modelOf } from "../show/model";
import type { Spread } from "../show/hands";
import { splitItem, type Item } from "../show/ids";
import type { Fixture, Group, Show } from "../show/schema";
import { groupSelected } from "./arrangement";
import { placesOf, type Places } from "./spread";

/** Metres between the cells of a bar, along its x axis. */
export const CELL_PITCH = 0.1;
const SAME_PLACE = 0.01;
/** Behind every step that can be given. */
const NOT_GIVEN = 1e6;

/** Where an item is in the room, metres; cells lie where their type measured them, else along the fixture's turned x axis. */
export function placeOf(show: Show, item: Item): { x: number; y: number; z: number } {
  const { fixture: id, cell } = splitItem(item);
  const fixture = show.fixtures[id];
  if (!fixture) return { x: 0, y: 0, z: 0 };
  return cell === 0 ? fixture.place : cellPlace(show, fixture, cell);
}

/** As it hangs on the stage. */
export const onStage = (show: Show, items: readonly Item[]): NonNullable<Group["arrangement"]> =>
  Object.fromEntries(
    items.map((item) => {
      const { x, y } = placeOf(show, item);
      return [item, { x, y }];
    }),
  );

function cellPlace(show: Show, fixture: Fixture, cell: number) {
  const { mode } = modelOf(show, fixture);
  const own = mode.places?.length === mode.cells ? mode.places[cell - 1] : undefined;
  if (own) {
    const [x, y, z] = rotationOf(fixture.turn).map((row) => row[0] * own[0] + row[1] * own[1] + row[2] * own[2]);
    return { x: fixture.place.x + x!, y: fixture.place.y + y!, z: fixture.place.z + z! };
  }
  const along = (cell - 1 - (mode.cells - 1) / 2) * CELL_PITCH;
  const turn = (fixture.turn.z * Math.PI) / 180;
  return {
    x: fixture.place.x + along * Math.cos(turn),
    y: fixture.place.y + along * Math.sin(turn),
    z: fixture.place.z,
  };
}

function coordinate(by: Spread["by"], p: { x: number; y: number }, centre: { x: number; y: number }): number {
  if (by === "left") return p.x;
  if (by === "front") return p.y;
  if (by === "centre") return Math.hypot(p.x - centre.x, p.y - centre.y);
  const angle = Math.atan2(p.x - centre.x, p.y - centre.y);
  return angle < -1e-9 ? angle + 2 * Math.PI : Math.max(angle, 0);
}

const middle = (values: number[]): number => (values.length ? (Math.min(...values) + Math.max(...values)) / 2 : 0);

/**
 * The index of the place each item shares with those at an equal one; undefined for selection order.
 * @param about the point of the stage, metres, that *centre* and *around* go by in place of the middle of the items.
 */
export function classesBy(
  show: Show,
  items: readonly Item[],
  { by, steps = {} }: Pick<Spread, "by" | "steps">,
  about?: { x: number; y: number },
): number[] | undefined {
  if (by === "order") return undefined;
  if (by === "steps") return classesOf(items.map((i, k) => steps[i] ?? NOT_GIVEN + k));
  const own = about ? undefined : groupSelected(show, items, (g) => g.arrangement !== undefined)?.arrangement;
  const places = items.map((i) => own?.[i] ?? placeOf(show, i));
  const centre = about ?? { x: middle(places.map((p) => p.x)), y: middle(places.map((p) => p.y)) };
  return classesOf(places.map((p) => coordinate(by, p, centre)));
}

/** The rank of each value; those closer than a centimetre, or a hundredth of a step, share one. */
function classesOf(values: readonly number[]): number[] {
  const order = values.map((_, k) => k).sort((a, b) => values[a]! - values[b]! || a - b);
  const classes = new Array<number>(values.length).fill(0);
  let index = -1;
  let previous = -Infinity;
  for (const k of order) {
    if (values[k]! - previous > SAME_PLACE) {
      index += 1;
      previous = values[k]!;
    }
    classes[k] = index;
  }
  return classes;
}

/** Steps of items by a spread, its `by` included. */
export const spreadItems = (show: Show, items: readonly Item[], spread: Spread): Places =>
  placesOf(items.length, spread, classesBy(show, items, spread));
