"use client";

import { useMemo } from "react";
import type { Finding } from "@/core/check/finding";
import { canWait, kindOfFinding } from "@/core/check/kinds";
import { asideOf, MOST_ASIDE } from "@/ui/base/preferences/registry";
import { useRemembered } from "@/ui/base/preferences/remembered";
import { useSession, useShow } from "@/ui/show/useSession";

/** The key of a kind that is never shown. */
const never = (kind: string): string => `never ${kind}`;

/** What Check has found, what was put aside of it kept apart; null until it has looked. */
export function useFindings() {
  const { id } = useSession();
  const checked = useShow((s) => s.checked);
  const [keys, setKeys] = useRemembered(useMemo(() => asideOf(id), [id]));
  return useMemo(() => {
    const dismissed = new Set(keys);
    const isAside = (f: Finding) => dismissed.has(f.key) || dismissed.has(never(kindOfFinding(f) ?? ""));
    const all = checked?.findings ?? [];
    const open = all.filter((f) => !isAside(f));
    const without = (gone: readonly string[]) => keys.filter((k) => !gone.includes(k));
    const add = (more: readonly string[]) => setKeys([...without(more), ...more].slice(-MOST_ASIDE));
    return {
      looked: checked !== null,
      open,
      /** Of those that are open, what somebody must look at. */
      urgent: open.filter((f) => !canWait(f)),
      aside: all.filter((f) => dismissed.has(f.key)),
      /** Kinds that are never shown, and how many of each there are. */
      nevers: keys
        .filter((k) => k.startsWith("never "))
        .map((k) => ({ kind: k.slice(6), count: all.filter((f) => kindOfFinding(f) === k.slice(6)).length })),
      dismiss: (findings: readonly Finding[]) => add(findings.map((f) => f.key)),
      takeBack: (finding: Finding) => setKeys(without([finding.key])),
      neverShow: (kind: string) => add([never(kind)]),
      showAgain: (kind: string) => setKeys(without([never(kind)])),
    };
  }, [checked, keys, setKeys]);
}
