"use client";

import { AskNumber } from "@/ui/base/parts/AskNumber";
import { GUARD_MS } from "@/ui/base/preferences/registry";
import { useGuard } from "@/ui/show/playing/goOnce";

/** How soon a go pressed again counts as the same press. */
export function GuardDialog({ onClose }: { onClose(): void }) {
  const [guard, setGuard] = useGuard();
  return (
    <AskNumber
      title="Go pressed twice"
      label="Ignore a second go within, ms"
      description={`${GUARD_MS} at first; 0 takes every press`}
      start={guard}
      min={0}
      max={2000}
      step={50}
      button="Keep"
      onDone={(n) => setGuard(Math.round(n))}
      onClose={onClose}
    />
  );
}
