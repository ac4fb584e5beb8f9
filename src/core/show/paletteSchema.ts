/** Palettes: named values that what is held, cues and effects point at (SEMANTICS 3). */
import { z } from "../units/zod";
import { TypeIdSchema } from "../fixture/type";
import { FixtureIdSchema, IdSchema, ParamKeySchema } from "./ids";
import { isAim, isRelease, SWAPPED, ValueSchema } from "./value";

/** What a palette says of a parameter. */
export const PaletteEntrySchema = z
  .object({ attribute: z.string().min(1).max(60), value: ValueSchema, ...SWAPPED })
  .refine(({ value }) => !isRelease(value), { message: "a palette holds no release" })
  .refine(({ attribute, value }) => !isAim(value) || attribute === "Pan" || attribute === "Tilt", {
    message: "only pan and tilt can be aimed at a point",
  });
export type PaletteEntry = z.infer<typeof PaletteEntrySchema>;

/** A parameter of any fixture of a type: its cell (0 = its own) and head attribute, "0.Pan". */
const PlaceSchema = z.string().regex(/^\d{1,3}\.\S{1,60}$/);

/** A colour any fixture can be asked for: CIE 1931 xy, and its luminance beside the brightest there (SEMANTICS 9). */
const AnyColourSchema = z.object({
  xy: z.tuple([z.number().min(0).max(1), z.number().min(0.0001).max(1)]),
  level: z.number().min(0).max(1),
  /** It came from emitters beside red, green and blue: they may join. */
  white: z.boolean(),
});
export type AnyColour = z.infer<typeof AnyColourSchema>;

export const WIDTHS = ["each", "type", "any"] as const;
export type Width = (typeof WIDTHS)[number];

const OfTypeSchema = z.object({
  /** The fixture whose value the others follow; null where it is gone. */
  reference: FixtureIdSchema.nullable(),
  values: z.record(PlaceSchema, PaletteEntrySchema),
});

export const PaletteSchema = z.object({
  id: IdSchema,
  number: z.number().int().min(1).max(999_999),
  name: z.string().max(200),
  /** How it was made; what it is recorded with again. */
  width: z.enum(WIDTHS),
  colour: z
    .string()
    .regex(/^#[0-9a-f]{6}$/)
    .optional(),
  /** Kept without a tile on the shelf. */
  offShelf: z.literal(true).optional(),
  /** Its place among the tiles, where a hand has put them in an order of their own; without it by its number, behind those. */
  shelf: z.number().int().min(1).max(20_000).optional(),
  /** Of one fixture: exceptions where a wider value exists too. */
  own: z.record(ParamKeySchema, PaletteEntrySchema),
  types: z.record(TypeIdSchema, OfTypeSchema),
  any: z.object({
    /** By attribute. */
    values: z.record(z.string().min(1).max(60), ValueSchema),
    colour: AnyColourSchema.nullable(),
  }),
});
export type Palette = z.infer<typeof PaletteSchema>;
