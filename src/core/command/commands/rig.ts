/** The rig, in the command language. */
import { address, patch, remove, renumber, setFixtures, unpatch } from "../../patch/intents";
import { spreadItems } from "../../select/place";
import { alongStops, closedPlace } from "../../select/spread";
import { fail } from "../../show/refusal";
import type { Fixture } from "../../show/schema";
import { fixturesOf, intents, type Command, type ReadContext } from "../command";
import type { Args } from "../grammar";

const chapter = "Rig";

/** One change for each fixture of a SEL. */
function change(args: Args, context: ReadContext, says: string, make: (fixture: Fixture, k: number, n: number) => Partial<Fixture>) {
  const ids = fixturesOf(args, context);
  const changes = Object.fromEntries(ids.map((id, k) => [id, make(context.world.show.fixtures[id]!, k, ids.length)]));
  return intents(setFixtures.of({ changes: changes as never, says: `${says} for ${ids.length} ${ids.length === 1 ? "fixture" : "fixtures"}` }));
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
  return change(args, context, field === "place" ? "sets the place" : "turns", (_, k) => ({ [field]: { x: amount("x", k), y: amount("y", k), z: amount("z", k) } }));
}

export const RIG: Command[] = [
  {
    chapter, syntax: "patch <count:int> <type> [mode <mode>] [as <from:int>] [at (<address> | auto) | unpatched] [name <name:text>]",
    about: "add fixtures; without `as` counting on from the highest number, without `at` at the first free run", example: "patch 5 petrel-spot mode compact as 201 at 8:1",
    read: (args) => intents(patch.of({
      count: args.count as number, type: args.type as string, at: (args.address as never) ?? (args.unpatched ? "unpatched" : "auto"),
      ...(args.mode === undefined || args.mode === true ? {} : { mode: args.mode as string }),
      ...(args.from === undefined ? {} : { from: args.from as number }),
      ...(typeof args.name === "string" ? { name: args.name } : {}),
    })),
  },
  {
    chapter, syntax: "<sel> address (<at:address> | auto)", about: "give addresses, running on by footprint", example: "1 thru 5 address 9:101",
    read: (args, context) => intents(address.of({ fixtures: fixturesOf(args, context), at: (args.at as never) ?? "auto" })),
  },
  { chapter, syntax: "<sel> unpatch", about: "take the addresses away; the fixture stays", example: "3 unpatch", read: (args, context) => intents(unpatch.of({ fixtures: fixturesOf(args, context) })) },
  { chapter, syntax: "<sel> renumber <from:int>", about: "new numbers, counting on", example: "1 thru 5 renumber 501", read: (args, context) => intents(renumber.of({ fixtures: fixturesOf(args, context), from: args.from as number })) },
  {
    chapter, syntax: "<sel> name <label:text>", about: "name fixtures, counting on where there are several", example: '1 thru 5 name "Mast"',
    read: (args, context) => change(args, context, `name "${args.label as string}"`, (_, k, n) => ({ name: n > 1 ? `${args.label as string} ${k + 1}` : (args.label as string) })),
  },
  {
    chapter, syntax: "<sel> invert (pan | tilt) (on | off)", about: "turn an axis round at output", example: "1 invert pan on",
    read: (args, context) => change(args, context, `invert ${args.pan ? "pan" : "tilt"} ${args.on ? "on" : "off"}`, () => (args.pan ? { invertPan: args.on === true } : { invertTilt: args.on === true })),
  },
  { chapter, syntax: "<sel> swap (on | off)", about: "exchange pan and tilt at output", example: "1 swap on", read: (args, context) => change(args, context, `swap pan and tilt ${args.on ? "on" : "off"}`, () => ({ swap: args.on === true })) },
  { chapter, syntax: "<sel> scale <factor:percent>", about: "percent of Dimmer at output", example: "1 scale 80", read: (args, context) => change(args, context, `scale ${args.factor as number} %`, () => ({ scale: Math.min(200, args.factor as number) })) },
  {
    chapter, syntax: "<sel> correct [pan <panBy:number>] [tilt <tiltBy:number>]", about: "hang correction: degrees added at output", example: "1 correct pan 3.5 tilt -1",
    read: (args, context) => change(args, context, "corrects the hang", (f) => ({ correct: { pan: (args.panBy as number | undefined) ?? f.correct.pan, tilt: (args.tiltBy as number | undefined) ?? f.correct.tilt } })),
  },
  { chapter, syntax: "<sel> place <x:values> <y:values> <z:values>", about: "where it hangs, metres: across, upstage, up; spreads", example: "1 thru 5 place -4 to 4 2 6", read: (args, context) => points(args, context, "place") },
  { chapter, syntax: "<sel> turn <x:values> <y:values> <z:values>", about: "how it hangs, degrees about x, y and z; spreads", example: "1 thru 5 turn 0 0 90", read: (args, context) => points(args, context, "turn") },
  { chapter, syntax: "remove <sel>", about: "remove fixtures, from groups and cues too", example: "remove 5", read: (args, context) => intents(remove.of({ fixtures: fixturesOf(args, context) })) },
];
