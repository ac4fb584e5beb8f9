/** Physical values between GDTF's units (DIN SPEC 15800, table of physical units) and ours. */
import type { Unit } from "../../fixture/attribute";

/** So much of GDTF's is one of ours: shares of one become percent, degrees a second become turns a minute. */
const FACTOR: Partial<Record<Unit, number>> = { "%": 100, rpm: 1 / 6 };

/** A range as a file has it, in our unit. Nothing said (0 to 0) is the whole of a share. */
export function fromPhysical(unit: Unit, from: number, to: number): [number, number] {
  if (unit === "%") {
    if (from === to) return [0, 100];
    return Math.max(Math.abs(from), Math.abs(to)) <= 1 ? [from * 100, to * 100] : [from, to];
  }
  const factor = FACTOR[unit] ?? 1;
  const made: [number, number] = [from * factor, to * factor];
  return unit === "rpm" ? [tidy(made[0]), tidy(made[1])] : made;
}

/** A value of ours as a file has it. */
export const toPhysical = (unit: Unit, value: number): number => value / (FACTOR[unit] ?? 1);

/** Without the last bits that a division leaves. */
const tidy = (value: number): number => Math.round(value * 1e9) / 1e9;

/** The name of a physical unit in GDTF. */
export const UNIT_NAMES: Record<Unit, string> = {
  "%": "Percent",
  "°": "Angle",
  Hz: "Frequency",
  rpm: "AngularSpeed",
  slot: "None",
  state: "None",
  K: "Temperature",
  s: "Time",
  "": "None",
};
/** Our unit for a physical unit of a file. */
export const unitNamed = (name: string): Unit =>
  (
    {
      Percent: "%",
      LuminousIntensity: "%",
      ColorComponent: "%",
      Angle: "°",
      Frequency: "Hz",
      AngularSpeed: "rpm",
      Temperature: "K",
      Time: "s",
    } as Record<string, Unit>
  )[name] ?? "";
