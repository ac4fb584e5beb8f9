"use client";

import { useMemo } from "react";
import { KEY_CHANGES, KeyChangesSchema, keysRefused, keysWith, type KeyChanges } from "./keys";
import { usePrefs } from "@/ui/base/preferences/usePrefs";

const NONE: KeyChanges = {};

/** All keys as they are here, and changing them. */
export function useKeyTable() {
  const [changes, setChanges] = usePrefs(KEY_CHANGES, KeyChangesSchema, NONE);
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
