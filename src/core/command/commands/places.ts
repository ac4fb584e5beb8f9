/** Where fixtures hang and what stands around them, in the command language. */
import { aligned, distributed, inArc, inCircle, inGrid, inRow, type Place } from "../../patch/arrange";
import { setFixtures } from "../../patch/intents";
import { drawScenic, eraseScenic } from "../../patch/sceneryIntents";
import type { Sel } from "../../select/expression";
import { spreadItems } from "../../select/place";
import { alongStops, closedPlace } from "../../select/spread";
import { fail } from "../../show/refusal";
import { command, fixturesOf, intents, type Command } from "../command";
import type { ReadContext } from "../context";
import type { Amounts } from "../what";
import { change } from "./change";
import { plural } from "../../units/plural";

const chapter = "Rig";

/** Three spread amounts as points, one for each fixture. */
function points(args: { sel: Sel; x: Amounts; y: Amounts; z: Amounts }, context: ReadContext, field: "place" | "turn") {
  const ids = fixturesOf(args, context);
  const { step, count } = spreadItems(context.world.show, ids, { ...context.world.hands.spread, by: "order" });
  const unit = field === "place" ? "m" : "°";
  const stops = (amounts: Amounts) =>
    amounts.unit === undefined || amounts.unit === unit
      ? amounts.map((a) => (typeof a === "number" ? a : fail(`${field} takes numbers`)))
      : fail(`${field} is in ${unit}, not in ${amounts.unit}`);
  const [x, y, z] = [stops(args.x), stops(args.y), stops(args.z)];
  return change(args, context, field === "place" ? "sets the place" : "turns", (_, k) => {
    const t = closedPlace(step[k]!, count);
    return { [field]: { x: alongStops(x, t), y: alongStops(y, t), z: alongStops(z, t) } };
  });
}

/** New places for the fixtures of a SEL, in its order. */
function arrange(args: { sel: Sel }, context: ReadContext, says: string, make: (places: Place[]) => Place[]) {
  const ids = fixturesOf(args, context);
  const places = make(ids.map((id) => context.world.show.fixtures[id]!.place));
  return intents(
    setFixtures.of({
      changes: Object.fromEntries(ids.map((id, k) => [id, { place: places[k]! }])),
      says: `${says}: ${plural(ids.length, "fixture")}`,
    }),
  );
}

const at = ({ x, y }: { x: number; y: number }) => ({ x, y });
const axisOf = ({ x, y }: { x?: true; y?: true }) => (x ? "x" : y ? "y" : "z");

export const PLACES: Command[] = [
  command({
    chapter,
    syntax: "<sel> place <x:values> <y:values> <z:values>",
    about: "where it hangs, metres: across, upstage, up; spreads",
    example: "1 thru 5 place -4 to 4 2 6",
    read: (args, context) => points(args, context, "place"),
  }),
  command({
    chapter,
    syntax: "<sel> turn <x:values> <y:values> <z:values>",
    about: "how it hangs, degrees about x, y and z; spreads",
    example: "1 thru 5 turn 0 0 90",
    read: (args, context) => points(args, context, "turn"),
  }),
  command({
    chapter,
    syntax: "<sel> row from <x1:metres> <y1:metres> to <x2:metres> <y2:metres>",
    about: "hang along a line, evenly",
    example: "1 thru 5 row from -4 6 to 4 6",
    read: (args, context) =>
      arrange(args, context, "hangs in a row", (p) => inRow(p, { x: args.x1, y: args.y1 }, { x: args.x2, y: args.y2 })),
  }),
  command({
    chapter,
    syntax: "<sel> arc <x:metres> <y:metres> radius <radius:metres> [from <start:degrees> to <end:degrees>]",
    about: "hang along an arc about a point; degrees clockwise from upstage",
    example: "1 thru 5 arc 0 2 radius 5 from -60 to 60",
    read: (args, context) =>
      arrange(args, context, "hangs in an arc", (p) =>
        inArc(p, at(args), args.radius, args.start ?? -90, args.end ?? 90),
      ),
  }),
  command({
    chapter,
    syntax: "<sel> circle <x:metres> <y:metres> radius <radius:metres>",
    about: "hang in a circle about a point",
    example: "1 thru 5 circle 0 4 radius 3",
    read: (args, context) => arrange(args, context, "hangs in a circle", (p) => inCircle(p, at(args), args.radius)),
  }),
  command({
    chapter,
    syntax: "<sel> grid <x:metres> <y:metres> columns <columns:parts> apart <apart:metres>",
    about: "hang in rows and columns about a point",
    example: "1 thru 12 grid 0 4 columns 4 apart 1.5",
    read: (args, context) =>
      arrange(args, context, "hangs in a grid", (p) => inGrid(p, at(args), Math.max(1, args.columns), args.apart)),
  }),
  command({
    chapter,
    syntax: "<sel> align (x | y | z)",
    about: "all at their mean across, upstage or up",
    example: "1 thru 5 align y",
    read: (args, context) => arrange(args, context, `aligned in ${axisOf(args)}`, (p) => aligned(p, axisOf(args))),
  }),
  command({
    chapter,
    syntax: "<sel> distribute (x | y | z)",
    about: "equal distances between the outermost",
    example: "1 thru 5 distribute x",
    read: (args, context) =>
      arrange(args, context, `spaced evenly in ${axisOf(args)}`, (p) => distributed(p, axisOf(args))),
  }),
  command({
    chapter,
    syntax:
      "draw (truss | line | area | round) from <x1:metres> <y1:metres> to <x2:metres> <y2:metres> [name <label:text>]",
    about: "a truss or set piece on the plan",
    example: 'draw truss from -6 7 to 6 7 name "Mast truss"',
    read: (args) =>
      intents(
        drawScenic.of({
          piece: {
            shape: args.truss ? "truss" : args.line ? "line" : args.area ? "area" : "round",
            name: args.label ?? "",
            from: { x: args.x1, y: args.y1 },
            to: { x: args.x2, y: args.y2 },
          },
        }),
      ),
  }),
  command({
    chapter,
    syntax: "erase <label:text>",
    about: "take a truss or set piece off the plan",
    example: 'erase "Deck"',
    read: (args) => intents(eraseScenic.of({ name: args.label })),
  }),
];
