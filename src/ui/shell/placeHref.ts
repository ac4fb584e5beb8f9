"use client";

import { useParams, useSearchParams } from "next/navigation";
import { useCallback } from "react";
import { VersionSchema, type Version } from "@/session/storage/versions";

/** A version in an address: "step-12", "moment-1764000000000". */
export const versionText = (version: Version): string =>
  "step" in version ? `step-${version.step}` : `moment-${version.moment}`;

/** The version an address asks for; null for the show itself, or where it makes no sense. */
export function readVersion(text: string | null): Version | null {
  const [kind, value] = (text ?? "").split("-") as [string, string?];
  return VersionSchema.safeParse({ [kind]: value }).data ?? null;
}

/** Addresses of the places of this show; while an earlier version is looked at, of that one. */
export function usePlaceHref(): (place: string) => string {
  const { show } = useParams<{ show: string }>();
  const version = useSearchParams().get("version");
  return useCallback(
    (place) => `/show/${show}/${place}${version ? `?version=${encodeURIComponent(version)}` : ""}`,
    [show, version],
  );
}
