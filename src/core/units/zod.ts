/** Zod, set to make no code at run time: the pages' policy allows none. */
import { z } from "zod";

z.config({ jitless: true });
export { z };
