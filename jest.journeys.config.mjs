import { shared } from "./jest.config.mjs";

export default {
  ...shared,
  roots: ["<rootDir>/tests/journeys"],
  testEnvironment: "<rootDir>/tests/journeys/setup/environment.ts",
  globalSetup: "<rootDir>/tests/journeys/setup/start.ts",
  globalTeardown: "<rootDir>/tests/journeys/setup/stop.ts",
  // One more than the cores this is measured on: a journey that waits for the stage leaves its core to another.
  maxWorkers: 3,
};
