import { closedPlace } from "@/core/select/spread";

/** Bars there is room for. */
const MOST = 24;

/** How a spread goes over so many: a bar for each of the first, as high as its step. */
export function SpreadPicture({ step, count }: { step: readonly number[]; count: number }) {
  return (
    <svg viewBox="0 0 32 14" preserveAspectRatio="none" aria-hidden>
      {step.slice(0, MOST).map((g, k, all) => {
        const tall = 2 + 12 * closedPlace(g, count);
        const wide = 32 / all.length;
        return <rect key={k} x={k * wide} y={14 - tall} width={Math.max(0.6, wide - 0.5)} height={tall} />;
      })}
    </svg>
  );
}
