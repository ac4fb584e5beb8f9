/** The rig, in the command language. */
import { address, patch, remove, renumber, setFixtures, unpatch } from "../../patch/intents";
import { spreadItems } from "../../select/place";
import { alongStops, closedPlace } from "../../select/spread";
import { aligned, distributed, inArc, inCircle, inGrid, inRow, type Place } from "../../patch/arrange";
import { drawScenic, eraseScenic } from "../../patch/sceneryIntents";
import { setOutputs, setWire } from "../../dmx/outputIntents";
import { copyUniverse, unpatchUniverse } from "../../patch/universeIntents";
import { runFrom, sizeOf } from "../../show/address";
import { usualNumber } from "../../dmx/wire";
import { fail } from "../../show/refusal";
import type { Fixture } from "../../show/schema";
import { fixturesOf, intents, type Command, type ReadContext } from "../command";
import type { Args } from "../grammar";

const chapter = "Rig";

/** One change for each fixture of a SEL. */
function change(
  args: Args,
  context: ReadContext,
  says: string,
  make: (fixture: Fixture, k: number, n: number) => Partial<Fixture>,
) {
  const ids = fixturesOf(args, context);
  const changes = Object.fromEntries(ids.map((id, k) => [id, make(context.world.show.fixtures[id]!, k, ids.length)]));
  return intents(
    setFixtures.of({
      changes: changes,
      says: `${says} for ${ids.length} ${ids.length === 1 ? "fixture" : "fixtures"}`,
    }),
  );
}

/** Three spread amounts as points, one for each fixture. */
function points(args: Args, context: ReadContext, field: "place" | "turn") {
  const ids = fixturesOf(args, context);
  const { step, count } = spreadItems(context.world.show, ids, { ...context.world.hands.spread, by: "order" });
  const amount = (name: string, k: number) => {
    const stops = args[name] as (number | string)[];
    if (stops.some((s) => typeof s !== "number")) fail(`${field} takes numbers`);
    return alongStops(stops as number[], closedPlace(step[k]!, count));
  };
  return change(args, context, field === "place" ? "sets the place" : "turns", (_, k) => ({
    [field]: { x: amount("x", k), y: amount("y", k), z: amount("z", k) },
  }));
}

/** New places for the fixtures of a SEL, in its order. */
function arrange(args: Args, context: ReadContext, says: string, make: (places: Place[]) => Place[]) {
  const ids = fixturesOf(args, context);
  const places = make(ids.map((id) => context.world.show.fixtures[id]!.place));
  return intents(
    setFixtures.of({
      changes: Object.fromEntries(ids.map((id, k) => [id, { place: places[k]! }])),
      says: `${says}: ${ids.length} ${ids.length === 1 ? "fixture" : "fixtures"}`,
    }),
  );
}

const at = (args: Args): { x: number; y: number } => ({ x: args.x as number, y: args.y as number });
const axisOf = (args: Args): "x" | "y" | "z" => (args.x ? "x" : args.y ? "y" : "z");

function outputs(args: Args) {
  const [first, last] = [args.first as number, (args.last as number | undefined) ?? (args.first as number)];
  if (last < first) fail("the last universe comes before the first");
  const universes = Array.from({ length: last - first + 1 }, (_, i) => first + i);
  if (args.off) return intents(setOutputs.of({ universes, output: null }));
  const protocol = args.artnet ? "artnet" : "sacn";
  const to = args.broadcast ? "broadcast" : args.multicast ? "multicast" : { unicast: args.hosts as string[] };
  return intents(
    setOutputs.of({
      universes,
      output: {
        protocol,
        to: to as never,
        number: (args.number as number | undefined) ?? usualNumber(protocol, first),
        priority: (args.priority as number | undefined) ?? 100,
      },
    }),
  );
}

export const RIG: Command[] = [
  {
    chapter,
    syntax:
      "patch <count> <type> [mode <mode>] [as <from:fixture>] [at (<address> | auto) | unpatched] [name <name:text>]",
    about: "add fixtures; without `as` counting on from the highest number, without `at` at the first free run",
    example: "patch 5 petrel-spot mode compact as 201 at 8:1",
    read: (args) =>
      intents(
        patch.of({
          count: args.count as number,
          type: args.type as string,
          at: (args.address as never) ?? (args.unpatched ? "unpatched" : "auto"),
          ...(args.mode === undefined || args.mode === true ? {} : { mode: args.mode as string }),
          ...(args.from === undefined ? {} : { from: args.from as number }),
          ...(typeof args.name === "string" ? { name: args.name } : {}),
        }),
      ),
  },
  {
    chapter,
    syntax: "<sel> address (<at:address> | auto)",
    about: "give addresses, running on by footprint",
    example: "1 thru 5 address 9:101",
    read: (args, context) =>
      intents(address.of({ fixtures: fixturesOf(args, context), at: (args.at as never) ?? "auto" })),
  },
  {
    chapter,
    syntax: "<sel> unpatch",
    about: "take the addresses away; the fixture stays",
    example: "3 unpatch",
    read: (args, context) => intents(unpatch.of({ fixtures: fixturesOf(args, context) })),
  },
  {
    chapter,
    syntax: "<sel> renumber <from:fixture>",
    about: "new numbers, counting on",
    example: "1 thru 5 renumber 501",
    read: (args, context) => intents(renumber.of({ fixtures: fixturesOf(args, context), from: args.from as number })),
  },
  {
    chapter,
    syntax: "<sel> name <label:text>",
    about: "name fixtures, counting on where there are several",
    example: '1 thru 5 name "Mast"',
    read: (args, context) =>
      change(args, context, `name "${args.label as string}"`, (_, k, n) => ({
        name: n > 1 ? `${args.label as string} ${k + 1}` : (args.label as string),
      })),
  },
  {
    chapter,
    syntax: "<sel> invert (pan | tilt) (on | off)",
    about: "turn an axis round at output",
    example: "1 invert pan on",
    read: (args, context) =>
      change(args, context, `invert ${args.pan ? "pan" : "tilt"} ${args.on ? "on" : "off"}`, () =>
        args.pan ? { invertPan: args.on === true } : { invertTilt: args.on === true },
      ),
  },
  {
    chapter,
    syntax: "<sel> swap (on | off)",
    about: "exchange pan and tilt at output",
    example: "1 swap on",
    read: (args, context) =>
      change(args, context, `swap pan and tilt ${args.on ? "on" : "off"}`, () => ({ swap: args.on === true })),
  },
  {
    chapter,
    syntax: "<sel> scale <factor:twice>",
    about: "percent of Dimmer at output",
    example: "1 scale 80",
    read: (args, context) =>
      change(args, context, `scale ${args.factor as number} %`, () => ({ scale: args.factor as number })),
  },
  {
    chapter,
    syntax: "<sel> correct [pan <panBy:degrees>] [tilt <tiltBy:degrees>]",
    about: "hang correction: degrees added at output",
    example: "1 correct pan 3.5 tilt -1",
    read: (args, context) =>
      change(args, context, "corrects the hang", (f) => ({
        correct: {
          pan: (args.panBy as number | undefined) ?? f.correct.pan,
          tilt: (args.tiltBy as number | undefined) ?? f.correct.tilt,
        },
      })),
  },
  {
    chapter,
    syntax: "<sel> place <x:values> <y:values> <z:values>",
    about: "where it hangs, metres: across, upstage, up; spreads",
    example: "1 thru 5 place -4 to 4 2 6",
    read: (args, context) => points(args, context, "place"),
  },
  {
    chapter,
    syntax: "<sel> turn <x:values> <y:values> <z:values>",
    about: "how it hangs, degrees about x, y and z; spreads",
    example: "1 thru 5 turn 0 0 90",
    read: (args, context) => points(args, context, "turn"),
  },
  {
    chapter,
    syntax: "<sel> also at <address>",
    about: "send the same data to one more address each, running on by footprint",
    example: "1 thru 5 also at 9:201",
    read(args, context) {
      const { show } = context.world;
      const ids = fixturesOf(args, context);
      const more = runFrom(
        args.address as { universe: number; slot: number },
        ids.map((id) => sizeOf(show, show.fixtures[id]!)),
      );
      return change(args, context, "one more address", (f, k) => ({ addresses: [...f.addresses, more[k]!] }));
    },
  },
  {
    chapter,
    syntax: "<sel> note <words:text>",
    about: "what to remember of a fixture",
    example: '1 note "gel frame missing"',
    read: (args, context) => change(args, context, "a note", () => ({ note: args.words as string })),
  },
  {
    chapter,
    syntax: "<sel> mode <mode>",
    about: "another mode of the same type, where it fits",
    example: "1 mode compact",
    read: (args, context) =>
      change(args, context, `mode ${args.mode as string}`, () => ({ mode: args.mode as string })),
  },
  {
    chapter,
    syntax: "<sel> virtual dimmer (on | off)",
    about: "whether fixtures with emitters and no dimmer get one",
    example: "41 virtual dimmer off",
    read: (args, context) =>
      change(args, context, `virtual dimmer ${args.on ? "on" : "off"}`, () => ({ virtualDimmer: args.on === true })),
  },
  {
    chapter,
    syntax: "<sel> row from <x1:metres> <y1:metres> to <x2:metres> <y2:metres>",
    about: "hang along a line, evenly",
    example: "1 thru 5 row from -4 6 to 4 6",
    read: (args, context) =>
      arrange(args, context, "hangs in a row", (p) =>
        inRow(p, { x: args.x1 as number, y: args.y1 as number }, { x: args.x2 as number, y: args.y2 as number }),
      ),
  },
  {
    chapter,
    syntax: "<sel> arc <x:metres> <y:metres> radius <radius:metres> [from <start:degrees> to <end:degrees>]",
    about: "hang along an arc about a point; degrees clockwise from upstage",
    example: "1 thru 5 arc 0 2 radius 5 from -60 to 60",
    read: (args, context) =>
      arrange(args, context, "hangs in an arc", (p) =>
        inArc(
          p,
          at(args),
          args.radius as number,
          (args.start as number | undefined) ?? -90,
          (args.end as number | undefined) ?? 90,
        ),
      ),
  },
  {
    chapter,
    syntax: "<sel> circle <x:metres> <y:metres> radius <radius:metres>",
    about: "hang in a circle about a point",
    example: "1 thru 5 circle 0 4 radius 3",
    read: (args, context) =>
      arrange(args, context, "hangs in a circle", (p) => inCircle(p, at(args), args.radius as number)),
  },
  {
    chapter,
    syntax: "<sel> grid <x:metres> <y:metres> columns <columns:parts> apart <apart:metres>",
    about: "hang in rows and columns about a point",
    example: "1 thru 12 grid 0 4 columns 4 apart 1.5",
    read: (args, context) =>
      arrange(args, context, "hangs in a grid", (p) =>
        inGrid(p, at(args), Math.max(1, args.columns as number), args.apart as number),
      ),
  },
  {
    chapter,
    syntax: "<sel> align (x | y | z)",
    about: "all at their mean across, upstage or up",
    example: "1 thru 5 align y",
    read: (args, context) => arrange(args, context, `aligned in ${axisOf(args)}`, (p) => aligned(p, axisOf(args))),
  },
  {
    chapter,
    syntax: "<sel> distribute (x | y | z)",
    about: "equal distances between the outermost",
    example: "1 thru 5 distribute x",
    read: (args, context) =>
      arrange(args, context, `spaced evenly in ${axisOf(args)}`, (p) => distributed(p, axisOf(args))),
  },
  {
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
            name: (args.label as string | undefined) ?? "",
            from: { x: args.x1 as number, y: args.y1 as number },
            to: { x: args.x2 as number, y: args.y2 as number },
          },
        }),
      ),
  },
  {
    chapter,
    syntax: "erase <label:text>",
    about: "take a truss or set piece off the plan",
    example: 'erase "Deck"',
    read: (args) => intents(eraseScenic.of({ name: args.label as string })),
  },
  {
    chapter,
    syntax: "universe <from:universe> copy to <to:universe>",
    about: "send everything of a universe to the same slots of another as well",
    example: "universe 1 copy to 14",
    read: (args) => intents(copyUniverse.of({ from: args.from as number, to: args.to as number })),
  },
  {
    chapter,
    syntax: "universe <number:universe> unpatch",
    about: "take away every address in a universe",
    example: "universe 4 unpatch",
    read: (args) => intents(unpatchUniverse.of({ universe: args.number as number })),
  },
  {
    chapter,
    syntax:
      "output <first:universe> [thru <last:universe>] ((artnet | sacn) to (<hosts> | broadcast | multicast) [as <number:port>] [priority <priority:rank>] | off)",
    about: "how universes leave the machine; Art-Net counts from 0, sACN from 1",
    example: "output 1 thru 4 artnet to 127.0.0.1 as 0",
    read: outputs,
  },
  {
    chapter,
    syntax: "wire source <label:text>",
    about: "the sender's name, as sACN receivers show it",
    example: 'wire source "Barge desk"',
    read: (args) => intents(setWire.of({ wire: { source: args.label as string } })),
  },
  {
    chapter,
    syntax: "wire from (<host> | any)",
    about: "the network interface to send from",
    example: "wire from 127.0.0.1",
    read(args, { interfaces }) {
      const from = (args.host as string | undefined) ?? "";
      if (from !== "" && interfaces && !interfaces.includes(from))
        fail(`${from} is no address of this machine`, `It has ${interfaces.join(", ")}`);
      return intents(setWire.of({ wire: { from } }));
    },
  },
  {
    chapter,
    syntax: "wire lost (hold | fade after <after:seconds> over <over:seconds>)",
    about: "what the outputs do when the browser is gone",
    example: "wire lost fade after 30 over 5",
    read: (args) =>
      intents(
        setWire.of({ wire: { lost: args.hold ? "hold" : { after: args.after as number, over: args.over as number } } }),
      ),
  },
  {
    chapter,
    syntax: "remove <sel>",
    about: "remove fixtures, from groups and cues too",
    example: "remove 5",
    read: (args, context) => intents(remove.of({ fixtures: fixturesOf(args, context) })),
  },
];
