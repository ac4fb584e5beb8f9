"use client";

import { useEffect } from "react";
import { useSession, useShow } from "@/ui/show/useSession";

let isSaid = false;

/** Keeps the screen awake while a list runs; of a browser that cannot it says so, once. */
export function useAwake(): void {
  const session = useSession();
  const runs = useShow((s) => Object.values(s.playing.runs).some((r) => r.cue !== null));
  useEffect(() => {
    if (!runs) return;
    if (!("wakeLock" in navigator)) {
      if (!isSaid)
        session.tell(
          "This browser cannot keep the screen awake while a list runs: turn off sleep in the settings of this machine",
        );
      isSaid = true;
      return;
    }
    let lock: WakeLockSentinel | undefined;
    let over = false;
    const take = () => {
      if (document.visibilityState !== "visible") return;
      navigator.wakeLock.request("screen").then(
        (made) => (over ? void made.release() : (lock = made)),
        // A battery saver may say no: the screen then sleeps as it would anyway.
        () => undefined,
      );
    };
    take();
    document.addEventListener("visibilitychange", take);
    return () => {
      over = true;
      document.removeEventListener("visibilitychange", take);
      void lock?.release();
    };
  }, [session, runs]);
}
