/** Check at work: some time after the last change everything suspicious is found again, in pieces. */
import { checking } from "@/core/check/check";
import { CONCERNS, type Finding } from "@/core/check/finding";
import { blackMovesIn } from "@/core/cue/lateMoves";
import type { World } from "@/core/show/world";
import type { FromLooks } from "./looksMessages";

/** So long nothing must have changed, milliseconds. */
const STILL_MS = 250;
/** So long one piece may keep a question waiting, milliseconds. */
const PIECE_MS = 8;

const pause = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 0));

/** The fixtures each cue finds moved in the dark. */
function moonsIn({ show }: World): Record<string, string[]> {
  const moons: Record<string, string[]> = {};
  for (const list of Object.values(show.lists))
    for (const { cue, fixture, by } of blackMovesIn(show, list)) if (by <= 0.001) (moons[cue] ??= []).push(fixture);
  return moons;
}

export function checks(worldNow: () => World | undefined, say: (message: FromLooks) => void) {
  let timer: ReturnType<typeof setTimeout> | undefined;
  let running = 0;
  async function work(): Promise<void> {
    const mine = ++running;
    const world = worldNow();
    if (!world) return;
    const findings: Finding[] = [];
    const found = checking(world);
    for (let since = performance.now(); ;) {
      const { done, value } = found.next();
      if (done) break;
      findings.push(value);
      if (performance.now() - since < PIECE_MS) continue;
      await pause();
      if (mine !== running) return;
      since = performance.now();
    }
    findings.sort((a, b) => CONCERNS.indexOf(a.concern) - CONCERNS.indexOf(b.concern));
    say({ kind: "found", findings, moons: moonsIn(world) });
  }
  return {
    /** The show is another now. */
    changed(): void {
      running += 1;
      clearTimeout(timer);
      timer = setTimeout(() => void work().catch(() => undefined), STILL_MS);
    },
  };
}
