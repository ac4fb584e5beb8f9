/** A palette as a value: what it says for a parameter, now and whenever it is changed. */
import { z } from "../units/zod";
import { IdSchema } from "./ids";

export const LinkSchema = z.object({ palette: IdSchema });
export type Link = z.infer<typeof LinkSchema>;
