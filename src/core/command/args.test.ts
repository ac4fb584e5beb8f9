/** Catches a syntax line whose slots are typed as something else than what is read. */
import type { ArgsOf } from "./args";
import { COMMANDS, SCRIPT_COMMANDS } from "./read";
import { SETTINGS } from "./settings";

test("what stands in no brackets is there, what stands in them may not be", () => {
  const args: ArgsOf<"patch <count> [as <from:fixture>] [at (<address> | auto)] <name:text>"> = { count: 3, name: "A" };
  const count: number = args.count;
  const from: number | undefined = args.from;
  const auto: true | undefined = args.auto;
  // @ts-expect-error -- it may be left out
  const surely: number = args.from;
  // @ts-expect-error -- no such word
  const other: unknown = args.unpatched;
  // @ts-expect-error -- no such kind of slot
  const unknown: ArgsOf<"go <speed:knots>">["speed"] = 5;
  expect([count, from, auto, surely, other, unknown]).toEqual([3, undefined, undefined, undefined, undefined, 5]);
});

test("a slot bears the name of a word only where it follows it", () => {
  for (const { syntax } of [...COMMANDS, ...SCRIPT_COMMANDS, ...SETTINGS]) {
    const parts = syntax.match(/<[^>]+>|[^\s[\]()|]+/g) ?? [];
    const words = new Set(parts.filter((p) => !p.startsWith("<")));
    for (const [k, part] of parts.entries()) {
      const name = /^<([^:>]+)/.exec(part)?.[1];
      if (name && words.has(name)) expect(`${parts[k - 1]} in ${syntax}`).toBe(`${name} in ${syntax}`);
    }
  }
});
