/** Everything suspicious in a show. */
import type { World } from "../show/world";
import { cueFindings } from "./cues";
import { darkFindings } from "./dark";
import { CONCERNS, type Finding } from "./finding";
import { handFindings, signedFindings } from "./hands";
import { keptFindings } from "./kept";
import { rigFindings } from "./rig";

const CARDS = [signedFindings, handFindings, rigFindings, darkFindings, cueFindings, keptFindings];

/** The findings one after another, so that whoever works them out can listen in between. What is only about fixtures out of service is none. */
export function* checking(world: World): Generator<Finding> {
  const away = new Set(Object.values(world.show.fixtures).flatMap((f) => (f.outOfService ? [f.id] : [])));
  for (const card of CARDS)
    for (const finding of card(world))
      if (!finding.fixtures?.length || finding.fixtures.some((id) => !away.has(id))) yield finding;
}

/** All findings, by what they are about. */
export const findingsIn = (world: World): Finding[] =>
  [...checking(world)].sort((a, b) => CONCERNS.indexOf(a.concern) - CONCERNS.indexOf(b.concern));
