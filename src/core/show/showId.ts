import { z } from "../units/zod";

/** The id a show has in storage and in addresses; not part of the show itself. */
export const ShowIdSchema = z.string().regex(/^[a-z0-9-]{1,40}$/);

/** The show that ships with the product. */
export const DEMO_ID = "demo";
