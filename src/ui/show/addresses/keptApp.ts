"use client";

import { useEffect, useSyncExternalStore } from "react";

/** Where the worker that keeps the app in the browser is served (src/offline). */
const WORKER = "/worker.js";

const listeners = new Set<() => void>();
let waits = false;

function follow(registration: ServiceWorkerRegistration): void {
  const look = () => {
    // A first one that waits for nothing is no news.
    waits = registration.waiting !== null && navigator.serviceWorker.controller !== null;
    listeners.forEach((listener) => listener());
  };
  registration.addEventListener("updatefound", () => registration.installing?.addEventListener("statechange", look));
  look();
}

/** Keeps the app in this browser, so that it opens while nothing serves it. Without such workers it is asked of the server each time. */
export function KeptApp(): null {
  useEffect(() => {
    if (process.env.NODE_ENV !== "production" || !("serviceWorker" in navigator)) return;
    navigator.serviceWorker.register(WORKER, { updateViaCache: "none" }).then(
      // A browser that is told to have none says so with nothing at all.
      (registration: ServiceWorkerRegistration | undefined) => registration && follow(registration),
      () => undefined,
    );
  }, []);
  return null;
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** Whether a new version waits for every window to be closed. */
export const useNewVersion = (): boolean =>
  useSyncExternalStore(
    subscribe,
    () => waits,
    () => false,
  );

/** Whether pages of the app are there without the server. */
export const isKept = (): boolean => (navigator.serviceWorker?.controller ?? null) !== null;

export const NEW_VERSION = "A new version is here. It starts once every window of Bold Comet has been closed";
