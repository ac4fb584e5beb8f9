import type { MetadataRoute } from "next";

/** What a system needs to install Bold Comet as an app. */
export default function manifest(): MetadataRoute.Manifest {
  return {
    name: "Bold Comet",
    short_name: "Bold Comet",
    description: "Patch, build, cue and play back stage lighting",
    start_url: "/",
    scope: "/",
    display: "standalone",
    background_color: "#0d1119",
    theme_color: "#0d1119",
    icons: [
      { src: "/icons/192.png", sizes: "192x192", type: "image/png" },
      { src: "/icons/512.png", sizes: "512x512", type: "image/png" },
      { src: "/icons/512-maskable.png", sizes: "512x512", type: "image/png", purpose: "maskable" },
    ],
  };
}
