/** Universes and how they leave the machine, in the command language. */
import { setOutputs, setWire } from "../../dmx/outputIntents";
import { usualNumber } from "../../dmx/wire";
import { copyUniverse, unpatchUniverse } from "../../patch/universeIntents";
import { fail } from "../../show/refusal";
import { command, intents, type Command } from "../command";

const chapter = "Rig";

/** @param last the same as the first where it is left out. */
function universesOf({ first, last = first }: { first: number; last?: number | undefined }): number[] {
  if (last < first) fail("the last universe comes before the first");
  return Array.from({ length: last - first + 1 }, (_, i) => first + i);
}

export const WIRE: Command[] = [
  command({
    chapter,
    syntax: "universe <from:universe> copy to <to:universe>",
    about: "send everything of a universe to the same slots of another as well",
    example: "universe 1 copy to 14",
    read: (args) => intents(copyUniverse.of({ from: args.from, to: args.to })),
  }),
  command({
    chapter,
    syntax: "universe <number:universe> unpatch",
    about: "take away every address in a universe",
    example: "universe 4 unpatch",
    read: (args) => intents(unpatchUniverse.of({ universe: args.number })),
  }),
  command({
    chapter,
    syntax:
      "output <first:universe> [thru <last:universe>] (artnet | sacn) to (<hosts> | broadcast | multicast) [as <number:port>] [priority <priority:rank>]",
    about: "how universes leave the machine; Art-Net counts from 0, sACN from 1",
    example: "output 1 thru 4 artnet to 127.0.0.1 as 0",
    read(args) {
      const protocol = args.artnet ? "artnet" : "sacn";
      const to = args.hosts ? { unicast: args.hosts } : args.broadcast ? "broadcast" : "multicast";
      const number = args.number ?? usualNumber(protocol, args.first);
      return intents(
        setOutputs.of({
          universes: universesOf(args),
          output: { protocol, to, number, priority: args.priority ?? 100 },
        }),
      );
    },
  }),
  command({
    chapter,
    syntax: "output <first:universe> [thru <last:universe>] off",
    about: "stop sending universes",
    example: "output 1 thru 4 off",
    read: (args) => intents(setOutputs.of({ universes: universesOf(args), output: null })),
  }),
  command({
    chapter,
    syntax: "wire source <label:text>",
    about: "the sender's name, as sACN receivers show it",
    example: 'wire source "Barge desk"',
    read: (args) => intents(setWire.of({ wire: { source: args.label } })),
  }),
  command({
    chapter,
    syntax: "wire from (<host> | any)",
    about: "the network interface to send from",
    example: "wire from 127.0.0.1",
    read(args, { interfaces }) {
      const from = args.host ?? "";
      if (from !== "" && interfaces && !interfaces.includes(from))
        fail(`${from} is no address of this machine`, `It has ${interfaces.join(", ")}`);
      return intents(setWire.of({ wire: { from } }));
    },
  }),
  command({
    chapter,
    syntax: "wire lost hold",
    about: "the outputs keep the last frame when the browser is gone",
    example: "wire lost hold",
    read: () => intents(setWire.of({ wire: { lost: "hold" } })),
  }),
  command({
    chapter,
    syntax: "wire lost fade after <after:seconds> over <over:seconds>",
    about: "the outputs fade out when the browser is gone",
    example: "wire lost fade after 30 over 5",
    read: ({ after, over }) => intents(setWire.of({ wire: { lost: { after, over } } })),
  }),
];
