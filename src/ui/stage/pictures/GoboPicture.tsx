"use client";

import { goboShapes } from "@/picture/gobos";

/** A gobo as it would fall on the floor: light where the glass lets it through; a picture of its type where that has one. */
export function GoboPicture({ name, picture }: { name: string; picture?: string | undefined }) {
  if (picture !== undefined)
    return (
      <img src={`data:image/png;base64,${picture}`} width={28} height={28} alt="" style={{ borderRadius: "50%" }} />
    );
  return (
    <svg viewBox="0 0 40 40" width={28} height={28} aria-hidden fill="currentColor">
      <circle cx={20} cy={20} r={18} fill="none" stroke="currentColor" strokeOpacity={0.35} />
      <g dangerouslySetInnerHTML={{ __html: goboShapes(name) }} />
    </svg>
  );
}
