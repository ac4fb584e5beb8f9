import type { NextConfig } from "next";

// Cross-origin isolation gives the engine and the painter one shared frame (SharedArrayBuffer).
const isolation = [
  { key: "Cross-Origin-Opener-Policy", value: "same-origin" },
  { key: "Cross-Origin-Embedder-Policy", value: "require-corp" },
];

const config: NextConfig = {
  reactStrictMode: true,
  poweredByHeader: false,
  devIndicators: false,
  experimental: { optimizePackageImports: ["@mantine/core", "@mantine/hooks", "@tabler/icons-react"] },
  headers: async () => [{ source: "/:path*", headers: isolation }],
};

export default config;
