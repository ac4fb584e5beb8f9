import { shared } from "./jest.config.mjs";

export default { ...shared, roots: ["<rootDir>/tests/journeys"], testTimeout: 120_000, maxWorkers: 2 };
