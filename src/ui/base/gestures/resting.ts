/** Whether anything is being scrolled: what takes long waits until the hand rests. */

const RESTS_MS = 120;
let movedAt = -Infinity;
let listens = false;

function listen(): void {
  if (listens) return;
  listens = true;
  addEventListener("scroll", () => (movedAt = performance.now()), { capture: true, passive: true });
}

/** Does something once nothing has been scrolled for a moment, at once where nothing is. @returns a way to leave it. */
export function whenResting(work: () => void): () => void {
  listen();
  let timer: ReturnType<typeof setTimeout> | undefined;
  const look = () => {
    const left = movedAt + RESTS_MS - performance.now();
    if (left <= 0) work();
    else timer = setTimeout(look, left);
  };
  look();
  return () => clearTimeout(timer);
}
