/** Where the plan is looked at from: fitted to the window, or moved by hand. */
import type { View } from "@/picture/plan";

/** So much nearer or farther than the fitted plan. */
const NEAREST = 24;
const FARTHEST = 0.4;

/** The view with a point of the picture kept where it is. @param by above 1 comes nearer. */
export function zoomed(view: View, fitted: View, at: { x: number; y: number }, by: number): View {
  const scale = Math.min(fitted.scale * NEAREST, Math.max(fitted.scale * FARTHEST, view.scale * by));
  const real = scale / view.scale;
  return { scale, ox: at.x - (at.x - view.ox) * real, oy: at.y - (at.y - view.oy) * real };
}

export const panned = (view: View, dx: number, dy: number): View => ({ ...view, ox: view.ox + dx, oy: view.oy + dy });

/** Two fingers: the view follows both. */
export function pinched(
  view: View,
  fitted: View,
  before: readonly { x: number; y: number }[],
  after: readonly { x: number; y: number }[],
): View {
  const middle = ([a, b]: readonly { x: number; y: number }[]) => ({ x: (a!.x + b!.x) / 2, y: (a!.y + b!.y) / 2 });
  const apart = ([a, b]: readonly { x: number; y: number }[]) => Math.hypot(a!.x - b!.x, a!.y - b!.y) || 1;
  const [from, to] = [middle(before), middle(after)];
  return zoomed(panned(view, to.x - from.x, to.y - from.y), fitted, to, apart(after) / apart(before));
}
