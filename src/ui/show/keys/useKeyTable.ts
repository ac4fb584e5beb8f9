"use client";

import { useMemo } from "react";
import { keysRefused, keysWith } from "./keys";
import { REMEMBERED, type KeyChanges } from "@/ui/base/preferences/registry";
import { useRemembered } from "@/ui/base/preferences/remembered";

const NONE: KeyChanges = {};

/** All keys as they are here, and changing them. */
export function useKeyTable() {
  const [changes, setChanges] = useRemembered(REMEMBERED.keys);
  const table = useMemo(() => keysWith(changes), [changes]);
  return {
    table,
    changes,
    shownKey: (id: string): string => table.find((key) => key.id === id)?.shown ?? "",
    /** Returns why not, in words. */
    change(id: string, keys: string): string | undefined {
      const no = keysRefused(changes, id, keys);
      if (!no) setChanges({ ...changes, [id]: keys });
      return no;
    },
    reset: () => setChanges(NONE),
  };
}
