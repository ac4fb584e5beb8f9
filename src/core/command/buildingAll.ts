/** Held values of every parameter of the items at once. */
import { isEmitter } from "../fixture/attribute";
import { functionOf, openState, rangeOf } from "../fixture/parameters";
import { fail } from "../show/refusal";
import { allTargets } from "../show/model";
import { fixtureNumbered } from "../show/world";
import { clamp } from "../units/units";
import { everyDefault, type Building } from "./building";

/** Everything to its default. */
export function home(b: Building): void {
  everyDefault(b, (t) => t.spec.default);
  b.says.push("everything to its default");
}

/** Full, open, white, centred. */
export function locate(b: Building): void {
  everyDefault(b, (t) =>
    t.attribute === "Dimmer" || isEmitter(t.attribute) ? 100 : (openState(t.fn) ?? t.spec.default),
  );
  b.says.push("full, open, white, centred");
}

/** What another fixture shows: all the two have in common, by attribute. @param number of a fixture; refused where there is none. */
export function copyFrom(b: Building, number: number): void {
  const { world, stage } = b.context;
  const source = fixtureNumbered(world.show, number) ?? fail(`there is no fixture ${number}`);
  const shown = new Map(
    allTargets(world.show, source.id).map((t) => {
      const now = stage(t.key);
      return [
        `${t.spec.cell} ${t.spec.head}`,
        world.hands.held[t.key] ?? {
          attribute: now?.attribute ?? t.attribute,
          value: now?.value ?? t.spec.default,
        },
      ];
    }),
  );
  let copied = 0;
  for (const item of b.items) {
    if (item === source.id) continue;
    for (const target of allTargets(world.show, item)) {
      const entry =
        shown.get(`${target.spec.cell} ${target.spec.head}`) ??
        [...shown.values()].find((e) => e.attribute === target.attribute && target.spec.cell === 0);
      const fn = entry && functionOf(target.spec, entry.attribute);
      if (!entry || !fn) continue;
      const [low, high] = rangeOf(fn);
      b.values[target.key] =
        typeof entry.value === "number" ? { ...entry, value: clamp(entry.value, low, high) } : entry;
      copied += 1;
    }
  }
  if (copied === 0)
    fail(
      `fixture ${source.number} has nothing in common with what is selected`,
      "Select fixtures that share attributes with it",
    );
  b.says.push(`as fixture ${source.number}`);
}
