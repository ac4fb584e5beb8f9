"use client";

import { useMemo } from "react";
import type { Finding } from "@/core/check/finding";
import { z } from "@/core/units/zod";
import { usePrefs } from "../parts/usePrefs";
import { useSession, useShow } from "../useSession";

const KeysSchema = z.array(z.string().max(4000)).max(2000);
const NOTHING: string[] = [];

/** What Check has found, what was dismissed of it kept apart; null until it has looked. */
export function useFindings() {
  const { id } = useSession();
  const checked = useShow((s) => s.checked);
  const [keys, setKeys] = usePrefs(`bold-comet-dismissed-${id}`, KeysSchema, NOTHING);
  return useMemo(() => {
    const dismissed = new Set(keys);
    const all = checked?.findings ?? [];
    return {
      looked: checked !== null,
      open: all.filter((f) => !dismissed.has(f.key)),
      aside: all.filter((f) => dismissed.has(f.key)),
      dismiss: (finding: Finding) => setKeys([...keys.filter((k) => k !== finding.key), finding.key].slice(-2000)),
      takeBack: (finding: Finding) => setKeys(keys.filter((k) => k !== finding.key)),
    };
  }, [checked, keys, setKeys]);
}
