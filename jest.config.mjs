const swc = [
  "@swc/jest",
  {
    jsc: {
      parser: { syntax: "typescript", tsx: true },
      target: "es2022",
      transform: { react: { runtime: "automatic" } },
    },
    module: { type: "commonjs" },
  },
];

export const shared = {
  transform: { "^.+\\.(t|j)sx?$": swc, "^.+\\.mjs$": swc },
  transformIgnorePatterns: ["/node_modules/(?!(nanoid|culori|immer|osc-min|idb|tinykeys|zod|fflate|three|@tanstack)/)"],
  moduleNameMapper: {
    "^@/(.*)$": "<rootDir>/src/$1",
    "^@tests/(.*)$": "<rootDir>/tests/$1",
    // They say where they are to importers alone, and tests are made into what requires.
    "^three$": "<rootDir>/node_modules/three/build/three.module.js",
    // As it is shipped: what it checks for whoever builds it takes twice as long.
    "^immer$": "<rootDir>/node_modules/immer/dist/cjs/immer.cjs.production.js",
    "^osc-min$": "<rootDir>/node_modules/osc-min/dist/index.js",
  },
  testEnvironment: "node",
  // Only there to end what hangs: a busy machine takes its time.
  testTimeout: 600_000,
};

export default {
  ...shared,
  roots: ["<rootDir>/src", "<rootDir>/tests"],
  // The demo file, where somebody runs a suite of his own.
  globalSetup: "<rootDir>/tests/setup/start.ts",
  maxWorkers: 2,
  setupFiles: ["<rootDir>/tests/setup/seed.ts"],
  testPathIgnorePatterns: ["/node_modules/", "/tests/journeys/"],
};
