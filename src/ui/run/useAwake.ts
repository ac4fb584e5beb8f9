"use client";

import { useEffect } from "react";
import { useShow } from "../useSession";

/** Keeps the screen awake while a list runs, where the browser can. */
export function useAwake(): void {
  const runs = useShow((s) => Object.values(s.playing.runs).some((r) => r.cue !== null));
  useEffect(() => {
    if (!runs || !("wakeLock" in navigator)) return;
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
  }, [runs]);
}
