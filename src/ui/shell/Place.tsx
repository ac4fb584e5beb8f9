"use client";

import { Center, Loader } from "@mantine/core";
import { lazy, Suspense, useEffect, type ComponentType } from "react";
import { placeOf, type PlaceId } from "@/ui/show/addresses/placeIds";
import { usePlace } from "@/ui/show/addresses/places";

const LOADS: Record<PlaceId, () => Promise<{ default: ComponentType }>> = {
  rig: () => import("@/ui/places/rig/RigPlace").then((m) => ({ default: m.RigPlace })),
  build: () => import("@/ui/places/build/BuildPlace").then((m) => ({ default: m.BuildPlace })),
  cues: () => import("@/ui/places/cues/CuesPlace").then((m) => ({ default: m.CuesPlace })),
  run: () => import("@/ui/places/run/RunPlace").then((m) => ({ default: m.RunPlace })),
  check: () => import("@/ui/places/check/CheckPlace").then((m) => ({ default: m.CheckPlace })),
};
const PLACES = {
  rig: lazy(LOADS.rig),
  build: lazy(LOADS.build),
  cues: lazy(LOADS.cues),
  run: lazy(LOADS.run),
  check: lazy(LOADS.check),
};

// The first of them is on its way while the show is opened.
if (typeof location !== "undefined") void LOADS[placeOf(location.pathname)]().catch(() => undefined);

/** The place the address names. All of them are fetched once the first is there: the app may be gone when they are wanted. */
export function Place() {
  const Shown = PLACES[usePlace()];
  useEffect(() => {
    for (const load of Object.values(LOADS)) void load().catch(() => undefined);
    void import("@/ui/stage/room/RoomCanvas").catch(() => undefined);
  }, []);
  return (
    <Suspense
      fallback={
        <Center h="100%">
          <Loader color="mint" role="status" aria-label="Opening the place" />
        </Center>
      }
    >
      <Shown />
    </Suspense>
  );
}
