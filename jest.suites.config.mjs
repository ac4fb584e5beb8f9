import base, { shared } from "./jest.config.mjs";

/** All unit suites in a few files (tools/unit-suites.mjs): what they load is loaded once for many of them. */
export default { ...shared, roots: ["<rootDir>/build/suites"], setupFiles: base.setupFiles, maxWorkers: 2 };
