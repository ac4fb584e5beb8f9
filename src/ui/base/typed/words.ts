import { runsOf } from "@/core/dmx/outputCheck";

/** Numbers as runs: "1 to 4, 7". */
export const runsText = (numbers: readonly number[]): string =>
  runsOf(numbers)
    .map(([a, b]) => (a === b ? String(a) : b === a + 1 ? `${a}, ${b}` : `${a} to ${b}`))
    .join(", ");

export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
