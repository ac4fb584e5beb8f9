import type { NextConfig } from "next";

const everywhere = [
  // Cross-origin isolation gives the engine and the painter one shared frame (SharedArrayBuffer).
  { key: "Cross-Origin-Opener-Policy", value: "same-origin" },
  { key: "Cross-Origin-Embedder-Policy", value: "require-corp" },
  { key: "Cross-Origin-Resource-Policy", value: "same-origin" },
  { key: "X-Frame-Options", value: "DENY" },
  { key: "X-Content-Type-Options", value: "nosniff" },
  { key: "Referrer-Policy", value: "no-referrer" },
  {
    key: "Permissions-Policy",
    value:
      "midi=(self), fullscreen=(self), screen-wake-lock=(self), camera=(), microphone=(), geolocation=(), usb=(), serial=(), payment=(), display-capture=()",
  },
];
// The pages' own policy is made for each answer (src/proxy.ts); workers get theirs from the script they are.
const workers = [
  {
    key: "Content-Security-Policy",
    value:
      "default-src 'self'; script-src 'self' 'wasm-unsafe-eval'; connect-src 'self' ws://127.0.0.1:*; object-src 'none'; frame-ancestors 'none'",
  },
];

const config: NextConfig = {
  reactStrictMode: true,
  poweredByHeader: false,
  // Pages and scripts go over loopback: packing them takes longer than sending them.
  compress: false,
  devIndicators: false,
  // Types are checked by the tests; whoever starts the show does not wait for it.
  typescript: { ignoreBuildErrors: true },
  experimental: { optimizePackageImports: ["@mantine/core", "@mantine/hooks", "@tabler/icons-react"] },
  headers: async () => [
    { source: "/:path*", headers: everywhere },
    { source: "/_next/static/:path*", headers: workers },
    // Asked for anew at every start, so that a new version is noticed.
    { source: "/worker.js", headers: [{ key: "Cache-Control", value: "no-cache" }] },
  ],
};

export default config;
