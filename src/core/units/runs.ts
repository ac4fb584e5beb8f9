/** Runs of numbers, whatever their order: [1, 2, 3, 7] is 1 to 3 and 7 to 7. */
export function runsOf(numbers: readonly number[]): [first: number, last: number][] {
  const runs: [number, number][] = [];
  for (const n of [...numbers].sort((a, b) => a - b)) {
    const last = runs.at(-1);
    if (last && last[1] === n - 1) last[1] = n;
    else runs.push([n, n]);
  }
  return runs;
}

/** Numbers as runs: "1 to 4, 7". */
export const runsText = (numbers: readonly number[]): string =>
  runsOf(numbers)
    .map(([a, b]) => (a === b ? String(a) : b === a + 1 ? `${a}, ${b}` : `${a} to ${b}`))
    .join(", ");
