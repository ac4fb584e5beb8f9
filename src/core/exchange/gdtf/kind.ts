/** What kind of lamp a type is, by what it can do. */
import type { Kind, Mode } from "../../fixture/type";

/** By the attributes of all its modes. */
export function kindOf(modes: readonly Pick<Mode, "channels" | "cells">[]): Kind {
  const names = new Set(modes.flatMap((m) => m.channels.flatMap((c) => c.functions.map((f) => f.attribute))));
  const has = (pattern: RegExp) => [...names].some((name) => pattern.test(name));
  const cells = Math.max(...modes.map((m) => m.cells));
  if (has(/^(Fog|Haze)\d/)) return "hazer";
  if (has(/^Media(Folder|Content)/)) return "server";
  if (has(/^(Pan|Tilt)$/)) return has(/^(Gobo\d|Iris$|Prism\d|Blade)/) ? "spot" : "wash";
  if (has(/^StrobeDuration|^Shutter1Strobe/) && !has(/^ColorAdd/)) return "strobe";
  if (cells > 3) return "bar";
  return has(/^ColorAdd/) && !has(/^Zoom$/) ? "par" : "conventional";
}
