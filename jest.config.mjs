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
  transformIgnorePatterns: ["/node_modules/(?!(nanoid|culori|immer|idb|tinykeys|zod|fflate|@tanstack)/)"],
  moduleNameMapper: { "^@/(.*)$": "<rootDir>/src/$1" },
  testEnvironment: "node",
};

export default {
  ...shared,
  roots: ["<rootDir>/src", "<rootDir>/tests"],
  testTimeout: 30_000,
  maxWorkers: 2,
  setupFiles: ["<rootDir>/tests/setup/seed.ts"],
  testPathIgnorePatterns: ["/node_modules/", "/tests/journeys/"],
};
