/** How universes leave the machine, as intents. */
import { z } from "../units/zod";
import { defineIntent } from "../show/intent";
import { fail } from "../show/refusal";
import { OutputSchema, WireSchema } from "../show/schema";
import { destinationText, numberRange } from "./wire";

const universe = z.number().int().min(1).max(63_999);

/** Sets or switches off the outputs of universes; `number` counts on from the first. */
export const setOutputs = defineIntent({
  kind: "setOutputs",
  fields: { universes: z.array(universe).min(1).max(4096), output: OutputSchema.nullable() },
  apply(world, { universes, output }) {
    universes.forEach((number, i) => {
      if (!output) {
        delete world.show.outputs[number];
        return;
      }
      const made = { ...output, number: output.number + i };
      const [low, high] = numberRange(output.protocol);
      if (made.number < low || made.number > high)
        fail(
          `${output.protocol === "artnet" ? "Art-Net counts port-addresses" : "sACN counts universes"} from ${low} to ${high}; ${made.number} is none`,
        );
      world.show.outputs[number] = made;
    });
  },
  says(_, { universes, output }) {
    const which =
      universes.length === 1 ? `universe ${universes[0]}` : `universes ${universes[0]} to ${universes.at(-1)}`;
    return output
      ? `sends ${which} as ${destinationText(output)}${universes.length > 1 ? ", counting on" : ""}`
      : `sends ${which} no more`;
  },
});

export const setWire = defineIntent({
  kind: "setWire",
  fields: { wire: WireSchema.partial() },
  apply(world, { wire }) {
    const first = Number(wire.from?.split(".")[0] || "1");
    if (first < 1 || first > 223)
      fail(
        `${wire.from as string} is no address of a network interface`,
        "Choose one of this machine's, or: wire from any",
      );
    Object.assign(world.show.wire, wire);
  },
  says: (_, { wire }) =>
    [
      wire.source !== undefined && `names the sender "${wire.source}"`,
      wire.from !== undefined &&
        (wire.from === "" ? "sends from the machine's choice of interface" : `sends from ${wire.from}`),
      wire.lost !== undefined &&
        (wire.lost === "hold"
          ? "holds the last look when the browser is gone"
          : `fades intensity out ${(wire.lost as { after: number }).after} s after the browser is gone, over ${(wire.lost as { over: number }).over} s`),
    ]
      .filter(Boolean)
      .join("; "),
});
