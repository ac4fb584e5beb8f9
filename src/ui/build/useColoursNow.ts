"use client";

import type { Xy } from "@/core/colour/chromaticity";
import { coloursNow } from "@/core/palette/now";
import { splitItem } from "@/core/show/ids";
import { readContextOf } from "@/engine/view";
import { useSession, useShow, useStageSummary } from "../useSession";

/** So many colours are told apart. */
const MOST = 60;
/** So many fixtures are looked at, from the first. */
const MOST_FIXTURES = 400;
const NONE: Xy[] = [];

/** The colours the selection shows, each once; looked at four times a second. */
export function useColoursNow(): Xy[] {
  const session = useSession();
  const selection = useShow((s) => s.world.hands.selection);
  const held = useShow((s) => s.world.hands.held);
  return useStageSummary(
    (_, view) => {
      const { world } = session.store.getState();
      const ids = new Set(selection.slice(0, MOST_FIXTURES).map((i) => splitItem(i).fixture));
      return coloursNow(world.show, readContextOf(world, view).stage, [...ids], MOST);
    },
    NONE,
    [selection, held],
    4,
  );
}
