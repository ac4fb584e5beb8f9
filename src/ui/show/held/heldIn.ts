import type { World } from "@/core/show/world";
import { attributeInfo, type Family } from "@/core/fixture/attribute";
import { namesIn } from "@/core/units/names";

type Held = World["hands"]["held"];
const attributes = new WeakMap<Held, ReadonlySet<string>>();

/** What attributes are held of anything; gathered once for each version of thousands. */
export function attributesIn(held: Held): ReadonlySet<string> {
  const known = attributes.get(held);
  if (known) return known;
  const made = new Set<string>();
  for (const key of namesIn(held)) made.add(held[key]!.attribute);
  attributes.set(held, made);
  return made;
}

const timed = new WeakMap<Held, ReadonlySet<Family>>();

/** The families of which something is held with times of its own. */
export function timedIn(held: Held): ReadonlySet<Family> {
  const known = timed.get(held);
  if (known) return known;
  const made = new Set<Family>();
  for (const key of namesIn(held)) {
    const { time, attribute } = held[key]!;
    if (time) made.add(attributeInfo(attribute).family);
  }
  timed.set(held, made);
  return made;
}
