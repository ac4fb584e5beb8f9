"use client";

import { useDeferredValue } from "react";
import { fixturesHeldOver } from "@/core/cue/heldOver";
import { clear } from "@/core/program/intents";
import type { CueList } from "@/core/show/schema";
import { useSession, useShow } from "@/ui/show/useSession";
import classes from "@/ui/base/parts/parts.module.css";
import { plural } from "@/core/units/plural";

/** Beside a go: what is held over this list, so that a go seems to do nothing; and the way out. @param short where there is little room. */
export function HeldOver({ list, short = false }: { list: CueList; short?: boolean }) {
  const session = useSession();
  const blind = useShow((s) => s.world.hands.blind);
  // Of thousands it is told after what they do is seen.
  const held = useDeferredValue(useShow((s) => s.world.hands.held));
  const fixtures = blind ? 0 : fixturesHeldOver(list, held);
  if (fixtures === 0) return null;
  return (
    <button
      type="button"
      className={classes.heldOver}
      data-testid={`held-over-${list.number}`}
      title={`What you hold lies over ${plural(fixtures, "fixture")} of ${list.name}: its goes do not show there. Press to clear the programmer`}
      onClick={() => session.act([clear.of({})], "clear")}
    >
      held: {short ? fixtures.toLocaleString("en") : plural(fixtures, "fixture")}
    </button>
  );
}
