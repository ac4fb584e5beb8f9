import { REMEMBERED } from "@/ui/base/preferences/registry";
import { keep, useRemembered } from "@/ui/base/preferences/remembered";

export type Path = keyof typeof REMEMBERED.paths;

/** Whether a path for beginners is shown, and closing it for ever. */
export function usePath(path: Path): ["open" | "closed" | "asked", () => void] {
  const [seen, setSeen] = useRemembered(REMEMBERED.paths[path]);
  return [seen, () => setSeen("closed")];
}

/** Shows a path again, wherever one stands. */
export const openPath = (path: Path): void => keep(REMEMBERED.paths[path], "asked");
