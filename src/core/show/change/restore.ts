/** Going back to an earlier version of the show, as an intent: one step of undo like any other. */
import { defineIntent } from "./intent";
import { unsaid } from "../words/lineText";
import { ShowSchema } from "../schema";

export const restoreShow = defineIntent({
  kind: "restoreShow",
  fields: { show: ShowSchema },
  apply(world, { show }) {
    world.show = show;
    world.hands.selection = [];
    world.hands.stepping = null;
    world.hands.last = [];
    world.hands.held = {};
    world.hands.keptOut = {};
    world.hands.cameFrom = {};
    world.hands.over = null;
    world.hands.identified = [];
    world.hands.parked = {};
    if (!show.lists[world.hands.armed])
      world.hands.armed = Object.values(show.lists).sort((a, b) => a.number - b.number)[0]?.id ?? "";
  },
  says: (_, { show }) =>
    `goes back to an earlier version: ${Object.keys(show.fixtures).length} fixtures, ${Object.values(show.lists).reduce((n, l) => n + Object.keys(l.cues).length, 0)} cues`,
  lines: () => [unsaid("goes back to an earlier version of the show")],
});
