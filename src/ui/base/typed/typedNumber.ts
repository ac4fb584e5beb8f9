/** A number as it is typed into a field of its own. */

export interface NumberRange {
  min: number;
  max?: number;
  /** Whether it may have a fraction. */
  fraction: boolean;
  /** The unit the field shows behind it, such as "s" or "%"; typed behind the number it says nothing new. */
  unit: string;
}

export interface ReadNumber {
  value: number;
  /** It hangs on what was there, or could go on: it counts only once it is done with. */
  late: boolean;
}

/**
 * "20", "20 %", "12,5"; "+5" and "-5", which are added; "=-5", which is set. Outside of its range it stops at the end.
 * @returns why it is none, in words.
 */
export function readNumberField(
  text: string,
  now: number,
  { min, max, fraction, unit }: NumberRange,
): ReadNumber | string {
  const sets = text.trimStart().startsWith("=");
  const rest = text.replace("=", sets ? "" : "=").trim();
  const sign = /^[+-]/.exec(rest)?.[0] ?? "";
  const found = /^(\d+(?:[.,]\d*)?|[.,]\d+)\s*([a-z%°]*)$/i.exec(rest.slice(sign.length).trimStart());
  if (!found) return `"${text.trim()}" is no number`;
  const [, digits = "", typed = ""] = found;
  if (typed !== "" && typed.toLowerCase() !== unit.toLowerCase())
    return `this is ${unit === "" ? "without a unit" : `in ${unit}`}, not in ${typed}`;
  const size = Number(digits.replace(",", "."));
  const relative = !sets && sign !== "";
  const wanted = (sign === "-" ? -size : size) + (relative ? now : 0);
  const whole = fraction ? wanted : Math.round(wanted);
  const value = Math.min(max ?? Infinity, Math.max(min, Math.round(whole * 1e6) / 1e6));
  return { value, late: relative || sets || value !== whole };
}
