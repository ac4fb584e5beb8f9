/**
 * Property tests draw from one seed, so that a commit passes or fails by what is in it. `npm run fuzz`
 * runs them over and over with others; what it finds is pinned as an example beside its property.
 */
import fc from "fast-check";
import { runs } from "./runs";

fc.configureGlobal({ seed: Number(process.env.FUZZ_SEED ?? 4610), numRuns: runs(100) });
