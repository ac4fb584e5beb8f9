"use client";

import { useParams, usePathname, useRouter, useSearchParams } from "next/navigation";
import { useCallback, useMemo, useSyncExternalStore } from "react";
import { ShowIdSchema } from "@/core/show/showId";
import { VersionSchema, type Version } from "@/session/storage/versions";
import { isKept } from "./keptApp";
import { placeOf, type PlaceId } from "./placeIds";

/** A version in an address: "step-12", "moment-1764000000000". */
export const versionText = (version: Version): string =>
  "step" in version ? `step-${version.step}` : `moment-${version.moment}`;

/** The version an address asks for; null for the show itself, or where it makes no sense. */
export function readVersion(text: string | null): Version | null {
  const [kind, value] = (text ?? "").split("-") as [string, string?];
  return VersionSchema.safeParse({ [kind]: value }).data ?? null;
}

const listeners = new Set<() => void>();
const notify = () => listeners.forEach((listener) => listener());
function subscribe(listener: () => void): () => void {
  if (listeners.size === 0) addEventListener("popstate", notify);
  listeners.add(listener);
  return () => {
    listeners.delete(listener);
    if (listeners.size === 0) removeEventListener("popstate", notify);
  };
}

/**
 * The place that is shown. The router would change it when nothing else is to be drawn, which is seconds later where an
 * effect runs: it changes at once.
 */
export function usePlace(): PlaceId {
  const path = usePathname();
  return useSyncExternalStore(
    subscribe,
    () => placeOf(location.pathname),
    () => placeOf(path),
  );
}

export interface Places {
  /** The address of a place of this show; while an earlier version is looked at, of that one. */
  href(place: string): string;
  /** Shows a place. Nothing is asked of the app for it: the show runs on in this page whether the app is there or not. */
  go(place: string): void;
}

/** Which show it is, by the address: a page that was kept may have been another show's. */
export function useShowId(): string {
  const given = useParams<{ show: string }>().show;
  const read = ShowIdSchema.safeParse(usePathname().split("/")[2]);
  return read.success ? read.data : given;
}

/** The places of the show that is open. */
export function usePlaces(): Places {
  const show = useShowId();
  const version = useSearchParams().get("version");
  return useMemo(() => {
    const href = (place: string) => `/show/${show}/${place}${version ? `?version=${encodeURIComponent(version)}` : ""}`;
    return { href, go: (place) => (history.pushState(null, "", href(place)), notify()) };
  }, [show, version]);
}

const ANSWERS_MS = 3000;

/** Whether the app answers. */
export const isAppThere = (): Promise<boolean> =>
  fetch("/api/hello", { signal: AbortSignal.timeout(ANSWERS_MS), cache: "no-store" }).then(
    (answer) => answer.ok,
    () => false,
  );

/** Leaves the show for another page of the app, where the app answers or is kept in this browser; resolves to whether it could. */
export function useLeave(): (address: string) => Promise<boolean> {
  const router = useRouter();
  return useCallback(
    async (address) => {
      const there = await isAppThere();
      if (there) router.push(address);
      // The router asks the app for what it draws; the browser has whole pages of its own.
      else if (isKept()) location.assign(address);
      return there || isKept();
    },
    [router],
  );
}

/** Said where the app would be needed to leave and does not answer. */
export const APP_GONE =
  "The app does not answer, so this page stays: the show runs on in it. Start Bold Comet again, then leave";
