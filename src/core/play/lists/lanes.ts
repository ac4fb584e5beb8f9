/** Effect lanes as they are played: lists of one cue that starts their effect on the items it is cast on (SEMANTICS 11). */
import { castOf } from "../../effect/lane";
import type { ParamKey } from "../../show/ids";
import type { Cue, CueList, Show } from "../../show/schema";
import type { Entry } from "../../show/value";
import type { World } from "../../show/world";

/** The id of that cue: no count gives it out. */
const ITS_CUE = "c0";

const made = new WeakMap<CueList, { entries: Record<ParamKey, Entry> | undefined; list: CueList }>();

function lane(show: Show, list: CueList): CueList {
  const effect = list.effect === undefined ? undefined : show.effects[list.effect];
  const entries = effect?.cast && effect.cast.length > 0 ? castOf(show, effect) : undefined;
  const last = made.get(list);
  if (last && last.entries === entries) return last.list;
  const fade = list.fadeIn ?? 0;
  const cue: Cue | undefined = entries && {
    id: ITS_CUE,
    number: 1,
    name: effect!.name,
    note: "",
    times: { up: fade, down: fade, delayUp: 0, delayDown: 0, families: {} },
    trigger: { kind: "go" },
    reach: null,
    fresh: false,
    assert: false,
    entries,
  };
  const played: CueList = { ...list, end: "stop", cues: cue ? { [ITS_CUE]: cue } : {} };
  made.set(list, { entries, list: played });
  return played;
}

const worlds = new WeakMap<Show, Show>();

/** The world with its effect lanes as they are played. */
export function withLanes(world: World): World {
  const { show } = world;
  if (!Object.values(show.lists).some((list) => list.kind === "effect")) return world;
  let played = worlds.get(show);
  if (!played) {
    const lists = Object.fromEntries(
      Object.entries(show.lists).map(([id, list]) => [id, list.kind === "effect" ? lane(show, list) : list]),
    );
    played = { ...show, lists };
    worlds.set(show, played);
  }
  return { ...world, show: played };
}
