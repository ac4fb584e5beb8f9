"use client";

import { useEffect, useState } from "react";
import { useShow } from "@/ui/show/useSession";
import { OPEN } from "@/ui/show/held/lookInside";
import { PaletteDialog } from "./PaletteDialog";

/** The palette that is looked into, over any place. */
export function PaletteInside() {
  const [id, setId] = useState<string | null>(null);
  const palette = useShow((s) => (id === null ? undefined : s.world.show.palettes[id]));
  useEffect(() => {
    const open = (event: Event) => setId((event as CustomEvent<string>).detail);
    addEventListener(OPEN, open);
    return () => removeEventListener(OPEN, open);
  }, []);
  return palette ? <PaletteDialog palette={palette} onClose={() => setId(null)} /> : null;
}
