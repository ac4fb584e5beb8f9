/**
 * Everything a browser remembers of the interface: its name, its schema, how it starts, and whether it may be handed on.
 * All that reads or writes some of it takes it from here.
 */
import { MappingsSchema } from "@/core/surface/mapping";
import { WIDTHS } from "@/core/show/paletteSchema";
import { FAMILIES } from "@/core/fixture/attribute";
import { z } from "@/core/units/zod";

/**
 * arrangement: how panels, sheets and shelves lie; it goes into views and into the settings file.
 * setting: how a person works; it goes into the settings file.
 * own: of this browser alone. What people agreed to, what listens and sends, and where somebody is just now is never handed on.
 */
export type Kind = "arrangement" | "setting" | "own";

export interface Remembered<T> {
  key: string;
  kind: Kind;
  schema: z.ZodType<T>;
  start: T;
}

/** Shares of a split, in percent by panel. */
const LayoutSchema = z.record(z.string().max(20), z.number().min(0).max(100));

/** The columns of a sheet, as they were put. */
const SheetViewSchema = z.object({
  order: z.array(z.string().max(80)).max(400),
  hidden: z.array(z.string().max(80)).max(400),
  widths: z.record(z.string(), z.number().min(30).max(800)),
  sort: z.object({ column: z.string().max(80), down: z.boolean() }).nullable(),
  byType: z.boolean(),
});
export type SheetView = z.infer<typeof SheetViewSchema>;

/** Keys as this browser's people have changed them, by id. */
const KeyChangesSchema = z.record(z.string().max(30), z.string().min(1).max(40));
export type KeyChanges = z.infer<typeof KeyChangesSchema>;

const point = z.tuple([z.number(), z.number(), z.number()]);
/** Where the room is looked at from. */
const ViewpointSchema = z.object({ name: z.string().max(60), from: point, to: point });
export type Viewpoint = z.infer<typeof ViewpointSchema>;

/** Tabs of palettes: their families, and Mixed for those of several. */
export const PALETTE_TABS = [
  ...FAMILIES.filter((f) => f !== "Shapers" && f !== "Control"),
  "Control",
  "Mixed",
] as const;
export const SHELF_TABS = [...PALETTE_TABS, "Effects", "Waves"] as const;
export const RIG_TABS = ["patch", "library", "universes", "plan", "outputs", "wire"] as const;
export const CUE_SHAPES = ["film", "sheet", "lives"] as const;
export const LIST_ORDERS = ["number", "name", "running"] as const;
export const BELOW_STAGE = ["palettes", "values", "nothing"] as const;
/** open: shown where it fits; closed: never by itself; asked: shown because somebody wanted it. */
const PathSchema = z.enum(["open", "closed", "asked"]);
/** A second go within this counts as the first, milliseconds. */
export const GUARD_MS = 150;
/** So many findings are put aside. */
export const MOST_ASIDE = 2000;
export const MOST_RECENT = 8;

const known = new Map<string, Remembered<unknown>>();

function remember<T>(kind: Kind, name: string, schema: z.ZodType<T>, start: T): Remembered<T> {
  const made = { key: `bold-comet-${name}`, kind, schema, start };
  known.set(made.key, made);
  return made;
}

const split = (name: string) => remember("arrangement", name, LayoutSchema, {});
/** Null until somebody has put its columns otherwise. */
const sheet = (name: string) => remember("arrangement", `${name}-view`, SheetViewSchema.nullable(), null);

export const REMEMBERED = {
  splits: {
    "build-across": split("build-across"),
    "build-down": split("build-down"),
    "groups-down": split("groups-down"),
    "cues-across": split("cues-across"),
    "cues-down": split("cues-down"),
    "run-across": split("run-across"),
    "run-down": split("run-down"),
    "check-across": split("check-across"),
    "check-down": split("check-down"),
  },
  buildBelow: remember("arrangement", "build-below", z.enum(BELOW_STAGE), "palettes"),
  valuesView: sheet("values"),
  patchView: sheet("patch"),
  paletteView: sheet("palette"),
  shelfTab: remember("arrangement", "shelf-tab", z.enum(SHELF_TABS), "Colour"),
  rigTab: remember("arrangement", "rig-tab", z.enum(RIG_TABS), "patch"),
  listsOrder: remember("arrangement", "lists-order", z.enum(LIST_ORDERS), "number"),
  cuesShape: remember("arrangement", "cues-shape", z.enum(CUE_SHAPES), "film"),
  cuesFollow: remember("arrangement", "cues-follow", z.boolean(), false),
  paletteNames: remember("arrangement", "palette-names", z.boolean(), false),
  keys: remember("setting", "keys", KeyChangesSchema, {}),
  shelfWidth: remember("setting", "shelf-width", z.enum(WIDTHS), "type"),
  goGuard: remember("setting", "go-guard", z.number().int().min(0).max(2000), GUARD_MS),
  viewpoints: remember("setting", "viewpoints", z.array(ViewpointSchema).max(40), []),
  recentTypes: remember("setting", "recent-types", z.array(z.string()).max(MOST_RECENT), []),
  paths: {
    "first-steps": remember("setting", "first-steps", PathSchema, "open"),
    "worth-trying": remember("setting", "worth-trying", PathSchema, "open"),
  },
  page: remember("own", "page", z.string().max(20), ""),
  surface: remember("own", "surface", MappingsSchema, []),
  oscIn: remember("own", "osc-in", z.boolean(), false),
  /** The port of this machine that is told by OSC what plays; 0 for none. */
  oscOut: remember("own", "osc-out", z.number().int().min(0).max(65_535), 0),
};
export type SplitName = keyof typeof REMEMBERED.splits;

const AsideSchema = z.array(z.string().max(4000)).max(MOST_ASIDE);
const NONE_ASIDE: string[] = [];
/** What was put aside of the findings about a show. */
export const asideOf = (show: string): Remembered<string[]> => ({
  key: `bold-comet-dismissed-${show}`,
  kind: "own",
  schema: AsideSchema,
  start: NONE_ASIDE,
});

/** What is remembered under a name and may be handed on; undefined where it is of this browser alone, or nothing of ours. */
export function handedOn(key: string, kinds: readonly Kind[]): Remembered<unknown> | undefined {
  const found = known.get(key);
  return found && found.kind !== "own" && kinds.includes(found.kind) ? found : undefined;
}
