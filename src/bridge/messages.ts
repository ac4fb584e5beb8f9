/** What the engine and the bridge say to each other, beside the frames. */
import { z } from "@/core/units/zod";
import { OutputSchema, WireSchema } from "@/core/show/schema";

/** Slots that carry intensity: those of 8 bits, and the coarse ones of 16. */
export interface Intensity {
  single: readonly number[];
  double: readonly number[];
}

/** Slots as they travel: one of 512 bits each, in hexadecimal, slot 1 the first digit's highest. */
const bits = z.string().regex(/^([0-9a-f]{128})?$/);
const IntensityBitsSchema = z.object({ single: bits, double: bits });
export type IntensityBits = z.infer<typeof IntensityBitsSchema>;

function bitsOf(slots: readonly number[]): string {
  if (slots.length === 0) return "";
  const digits = new Uint8Array(128);
  for (const slot of slots) digits[(slot - 1) >> 2] = digits[(slot - 1) >> 2]! | (8 >> ((slot - 1) & 3));
  return Array.from(digits, (d) => d.toString(16)).join("");
}
const slotsOf = (text: string): number[] =>
  [...text].flatMap((digit, i) => [8, 4, 2, 1].flatMap((bit, k) => (parseInt(digit, 16) & bit ? [i * 4 + k + 1] : [])));

export const packIntensity = ({ single, double }: Intensity): IntensityBits => ({
  single: bitsOf(single),
  double: bitsOf(double),
});
export const unpackIntensity = ({ single, double }: IntensityBits): Intensity => ({
  single: slotsOf(single),
  double: slotsOf(double),
});

/** Universes told of in one message; a large show takes several. */
export const UNIVERSES_A_PART = 64;
const MOST_PARTS = 1024;
const universe = z.string().regex(/^\d{1,5}$/);

const oscAddress = z.string().regex(/^\/[!-~]{1,100}$/);
export interface OscMessage {
  address: string;
  value: number;
}
/** Open Sound Control that came in. */
export const OscHeardSchema = z.object({ kind: z.literal("osc"), address: oscAddress, value: z.number() });

export const ToBridgeSchema = z.discriminatedUnion("kind", [
  /** Which show this is, in which browser, and its name. */
  z.strictObject({ kind: z.literal("hello"), show: z.string().min(1).max(200), name: z.string().max(200) }),
  /** How the universes leave: all parts of one configuration follow each other. */
  z.strictObject({
    kind: z.literal("outputs"),
    part: z.number().int().min(0).max(MOST_PARTS),
    parts: z.number().int().min(1).max(MOST_PARTS),
    wire: WireSchema,
    outputs: z.record(universe, OutputSchema),
    intensity: z.record(universe, IntensityBitsSchema),
  }),
  /** A person takes the output for this show. */
  z.strictObject({ kind: z.literal("take") }),
  z.strictObject({ kind: z.literal("poll") }),
  /** A person turns Open Sound Control on or off for this show. */
  z.strictObject({ kind: z.literal("listen"), on: z.boolean() }),
  /** Open Sound Control to a port of this machine. */
  z.strictObject({
    kind: z.literal("osc"),
    port: z.number().int().min(1).max(65_535),
    address: oscAddress,
    value: z.number(),
  }),
]);
export type ToBridge = z.infer<typeof ToBridgeSchema>;
export type OutputsPart = Extract<ToBridge, { kind: "outputs" }>;

const NodeSchema = z.object({ ip: z.string(), short: z.string(), long: z.string(), ports: z.array(z.number()) });
export const InterfaceSchema = z.object({ name: z.string(), address: z.string(), netmask: z.string() });
export type Interface = z.infer<typeof InterfaceSchema>;

export const FromBridgeSchema = z.object({
  kind: z.literal("state"),
  /** Universes sent, with packets a second. */
  sending: z.array(z.object({ universe: z.number(), perSecond: z.number() })),
  nodes: z.array(NodeSchema),
  /** What went wrong last; null where nothing did. */
  trouble: z.string().nullable(),
  /** Network interfaces of the machine. */
  interfaces: z.array(InterfaceSchema),
  /** Whether this show holds the output; whether it held it and somebody took it. */
  mine: z.boolean(),
  lost: z.boolean(),
  /** The name of the show that holds the output; null where none does. */
  holder: z.string().nullable(),
  /** The port of this machine where Open Sound Control is listened to, or why it is not. */
  osc: z.union([z.number().int(), z.enum(["off", "taken"])]).default("off"),
  /** How many universes changed faster than they could be sent in the last second. */
  behind: z.number().int(),
});
export type FromBridge = z.infer<typeof FromBridgeSchema>;
