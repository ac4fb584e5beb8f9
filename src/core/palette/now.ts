/** What fixtures are in now, for selecting by it: the same colour, a palette. */
import { apart, type Xy } from "../colour/chromaticity";
import { paramKey, type Id, type ParamKey } from "../show/ids";
import { allTargets, modelOf } from "../show/model";
import type { Show } from "../show/schema";
import { saidBy } from "./lookup";
import { colourSeen } from "./seen";

/** The stage before masters. */
export type StageAt = (key: ParamKey) => { value: number; attribute: string } | undefined;

/** Eyes see no difference, in u'v'. */
const SAME_COLOUR = 0.003;
const SAME_VALUE = 0.01;

/** The chromaticity a fixture shows; undefined for one without colour. */
function colourNow(show: Show, stage: StageAt, id: Id): Xy | undefined {
  const fixture = show.fixtures[id];
  if (!fixture) return undefined;
  return colourSeen(modelOf(show, fixture).specs, (spec) => {
    const at = stage(paramKey(id, spec.cell, spec.head));
    return at ?? { attribute: spec.head, value: spec.default };
  })?.xy;
}

/**
 * The colours that some fixtures show, each that an eye would tell from the others once, in their order.
 * @param most so many are enough.
 */
export function coloursNow(show: Show, stage: StageAt, fixtures: readonly Id[], most = Infinity): Xy[] {
  const found: Xy[] = [];
  for (const id of fixtures) {
    const xy = colourNow(show, stage, id);
    if (xy && !found.some((f) => apart(f, xy) <= ALIKE)) found.push(xy);
    if (found.length >= most) break;
  }
  return found;
}
/** Closer than this, in u'v', what was set is the same, rounding apart. */
const ALIKE = 0.0005;

/** The fixtures that show the colour of one of these. */
export function ofSameColour(show: Show, stage: StageAt, fixtures: readonly Id[], like: readonly Id[]): Id[] {
  const wanted = like.flatMap((id) => {
    const xy = colourNow(show, stage, id);
    return xy ? [xy] : [];
  });
  return fixtures.filter((id) => {
    const xy = colourNow(show, stage, id);
    return xy !== undefined && wanted.some((w) => apart(w, xy) <= SAME_COLOUR);
  });
}

/** The fixtures that stand in all a palette says of them, whoever put them there. @param means what it says, as a number. */
export function standingIn(
  show: Show,
  stage: StageAt,
  fixtures: readonly Id[],
  palette: Id,
  means: (key: ParamKey) => { value: number; attribute: string } | undefined,
): Id[] {
  return fixtures.filter((id) => {
    const said = allTargets(show, id).filter(({ key }) => saidBy(show, palette, key));
    return (
      said.length > 0 &&
      said.every(({ key }) => {
        const [at, meant] = [stage(key), means(key)];
        return at?.attribute === meant?.attribute && at && meant && Math.abs(at.value - meant.value) <= SAME_VALUE;
      })
    );
  });
}
