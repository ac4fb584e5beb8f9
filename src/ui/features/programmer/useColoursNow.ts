"use client";

import { useState } from "react";
import type { Xy } from "@/core/colour/chromaticity";
import { coloursNow } from "@/core/palette/now";
import { splitItem } from "@/core/show/ids";
import { readContextOf } from "@/engine/view";
import { useSession, useShow, useShowNow, useStageSummary } from "@/ui/show/useSession";

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
    { perSecond: 4 },
  );
}

/** What was asked for in a panel, as long as nothing else has been held or selected since. */
export function useAsked<T>(): [asked: T | null, ask: (value: T, hold: () => void) => void] {
  const { store } = useSession();
  const held = useShowNow((s) => s.world.hands.held);
  const selection = useShowNow((s) => s.world.hands.selection);
  const [asked, setAsked] = useState<{ value: T; held: typeof held; selection: typeof selection } | null>(null);
  return [
    asked?.held === held && asked.selection === selection ? asked.value : null,
    (value, hold) => {
      hold();
      const { hands } = store.getState().world;
      setAsked({ value, held: hands.held, selection: hands.selection });
    },
  ];
}
