"use client";

import { useEffect, useState } from "react";
import { useShow } from "../useSession";
import { PaletteDialog } from "./PaletteDialog";

const OPEN = "bold-comet-palette";

/** Opens a palette, from wherever it is named. */
export const lookInside = (id: string): void => void dispatchEvent(new CustomEvent(OPEN, { detail: id }));

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
