/** How universes leave the machine, as intents. */
import { z } from "../units/zod";
import { defineIntent } from "../show/change/intent";
import { exact, quote } from "../show/words/lineText";
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
      : `stops sending ${which}`;
  },
  lines: (_, { universes, output }) => {
    const runs = universes.flatMap((n, i) => (i > 0 && universes[i - 1] === n - 1 ? [] : [{ first: n, i }]));
    return runs.map(({ first, i }, k) => {
      const last = universes[(runs[k + 1]?.i ?? universes.length) - 1]!;
      const which = `output ${first}${last > first ? ` thru ${last}` : ""}`;
      if (!output) return `${which} off`;
      const to = typeof output.to === "string" ? output.to : output.to.unicast.join(" and ");
      return `${which} ${output.protocol} to ${to} as ${output.number + i} priority ${output.priority}`;
    });
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
        (wire.from === "" ? "sends from an interface chosen by the machine" : `sends from ${wire.from}`),
      wire.lost !== undefined &&
        (wire.lost === "hold"
          ? "holds the last look when the browser is gone"
          : `fades intensity out ${(wire.lost as { after: number }).after} s after the browser is gone, over ${(wire.lost as { over: number }).over} s`),
    ]
      .filter(Boolean)
      .join("; "),
  lines: (_, { wire: { source, from, lost } }) => [
    ...(source === undefined ? [] : [`wire source ${quote(source)}`]),
    ...(from === undefined ? [] : [`wire from ${from || "any"}`]),
    ...(lost === undefined
      ? []
      : [lost === "hold" ? "wire lost hold" : `wire lost fade after ${exact(lost.after)} over ${exact(lost.over)}`]),
  ],
});
