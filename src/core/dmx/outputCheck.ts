/** What is suspicious about outputs: universes that are patched and go nowhere, and two that meet on the wire. */
import type { Intent } from "../show/change/intent";
import { setOutputs } from "./outputIntents";
import { destinationsOf, numberText, usualNumber } from "./wire";
import type { Output, Show } from "../show/schema";
import { runsOf } from "../units/runs";

export interface OutputFinding {
  what: string;
  why: string;
  cure: string;
  /** What cures it. */
  intents: Intent[];
}

/** What is suspicious about the outputs of a show, each with the intents that cure it. */
export function outputFindings(show: Show): OutputFinding[] {
  const patched = [...new Set(Object.values(show.fixtures).flatMap((f) => f.addresses.map((a) => a.universe)))];
  const silent = patched.filter((universe) => !show.outputs[universe]);
  const toThisMachine = (first: number, last: number) => {
    const protocol: Output["protocol"] = last <= 32_768 ? "artnet" : "sacn";
    const universes = Array.from({ length: last - first + 1 }, (_, i) => first + i);
    const output = { protocol, to: { unicast: ["127.0.0.1"] }, number: usualNumber(protocol, first), priority: 100 };
    return setOutputs.of({ universes, output });
  };
  return [
    ...runsOf(silent).map(([first, last]) => ({
      what:
        first === last
          ? `Universe ${first} is patched but has no output`
          : `Universes ${first} to ${last} are patched but have no output`,
      why: "No output is set, so the fixtures there receive nothing.",
      cure: "Send to this machine",
      intents: [toThisMachine(first, last)],
    })),
    ...meetings(show.outputs),
  ];
}

/** Two universes with the same number at the same place: the node would get both in turn. */
function meetings(outputs: Show["outputs"]): OutputFinding[] {
  const seen = new Map<string, string>();
  return Object.entries(outputs)
    .sort(([a], [b]) => Number(a) - Number(b))
    .flatMap(([universe, output]: [string, Output]) => {
      const keys = destinationsOf(output).map((d) => `${output.protocol} ${output.number} ${d.host}`);
      const other = keys.map((key) => seen.get(key)).find((u) => u !== undefined);
      for (const key of keys) if (!seen.has(key)) seen.set(key, universe);
      if (other === undefined) return [];
      return [
        {
          what: `Universes ${other} and ${universe} both go out as ${numberText(output)}`,
          why: "What they reach gets both in turn, and flickers.",
          cure: `Stop sending universe ${universe}`,
          intents: [setOutputs.of({ universes: [Number(universe)], output: null })],
        },
      ];
    });
}
