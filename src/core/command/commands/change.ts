/** One change for each fixture of a SEL. */
import { setFixtures } from "../../patch/intents";
import type { Sel } from "../../select/expression";
import type { Fixture } from "../../show/schema";
import { fixturesOf, intents } from "../command";
import type { ReadContext } from "../context";
import { plural } from "../../units/plural";

/** @param make the change of a fixture, by its place in the SEL. */
export function change(
  args: { sel?: Sel | undefined },
  context: ReadContext,
  says: string,
  make: (fixture: Fixture, k: number, n: number) => Partial<Fixture>,
) {
  const ids = fixturesOf(args, context);
  const changes = Object.fromEntries(ids.map((id, k) => [id, make(context.world.show.fixtures[id]!, k, ids.length)]));
  return intents(
    setFixtures.of({
      changes: changes,
      says: `${says} for ${plural(ids.length, "fixture")}`,
    }),
  );
}
