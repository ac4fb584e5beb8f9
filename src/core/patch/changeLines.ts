/** Changes of fixtures as lines of the command language. */
import { addressText } from "../show/address";
import { exact, onOff, quote, selText } from "../show/words/lineText";
import type { Address, Fixture, Show } from "../show/schema";
import { grouped } from "../units/grouped";

type Change = Partial<Omit<Fixture, "id" | "type">>;
type Point = { x: number; y: number; z: number };

const point = ({ x, y, z }: Point): string => [x, y, z].map(exact).join(" ");

/** The first address takes the place of what there was; those of further DMX breaks name theirs. */
function addressed(addresses: readonly Address[]): string[] {
  const lines = addresses.map(
    ({ part, ...at }, k) =>
      `${k === 0 && !part ? "address" : "also at"} ${addressText(at)}${part ? ` break ${part}` : ""}`,
  );
  return addresses[0]?.part ? ["unpatch", ...lines] : lines;
}

/** What follows the SEL, one line each. */
function settings(change: Change, count: number): string[] {
  const {
    number,
    name,
    mode,
    addresses,
    virtualDimmer,
    place,
    turn,
    invertPan,
    invertTilt,
    swap,
    scale,
    correct,
    note,
    curve,
    preheat,
    outOfService,
    position,
  } = change;
  return [
    mode !== undefined && `mode ${quote(mode)}`,
    virtualDimmer !== undefined && `virtual dimmer ${onOff(virtualDimmer)}`,
    // The name of several is counted on.
    name !== undefined && count === 1 && `name ${quote(name)}`,
    ...(addresses === undefined ? [] : addresses.length === 0 ? ["unpatch"] : addressed(addresses)),
    place && `place ${point(place)}`,
    turn && `turn ${point(turn)}`,
    invertPan !== undefined && `invert pan ${onOff(invertPan)}`,
    invertTilt !== undefined && `invert tilt ${onOff(invertTilt)}`,
    swap !== undefined && `swap ${onOff(swap)}`,
    scale !== undefined && `scale ${exact(scale)}`,
    correct && `correct pan ${exact(correct.pan)} tilt ${exact(correct.tilt)}`,
    note !== undefined && `note ${quote(note)}`,
    curve !== undefined &&
      `curve ${typeof curve === "string" ? curve : `points ${curve.points.map((p) => p.map(exact).join(" ")).join(", ")}`}`,
    preheat !== undefined && `preheat ${exact(preheat)}`,
    outOfService !== undefined && `out of service ${onOff(outOfService)}`,
    position !== undefined && `position ${quote(position)}`,
    // Last: the other lines know it by the number it had.
    number !== undefined && `renumber ${number}`,
  ].filter((line): line is string => typeof line === "string");
}

/** Fixtures that change alike share a line; what only one can have is a line of its own. */
export function changeLines(show: Show, changes: Readonly<Record<string, Change>>): string[] {
  const parts = Object.entries(changes).flatMap(([id, { name, number, addresses, ...shared }]) => [
    { id, change: shared, own: "" },
    { id, change: { name, number, addresses }, own: id },
  ]);
  return [...grouped(parts, ({ change, own }) => own + JSON.stringify(change)).values()].flatMap((alike) =>
    settings(alike[0]!.change, alike.length).map(
      (text) =>
        `${selText(
          show,
          alike.map(({ id }) => id),
        )} ${text}`,
    ),
  );
}
