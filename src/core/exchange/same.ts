/** Whether records of two shows say the same. */
import { canonical } from "./canonical";
import type { Id } from "../show/ids";
import type { Cue, CueList } from "../show/schema";

/** Whether two records say the same, whatever their ids; of lists and groups the ids within count for nothing either. */
export function sameBut(a: object, b: object): boolean {
  const bare = (record: object) => {
    const { id: _, cues, ...rest } = record as { id: Id; cues?: CueList["cues"] };
    const own = Object.values(cues ?? {}).sort((x, y) => x.number - y.number);
    const place = new Map(own.map((c, k) => [c.id, `cue ${k}`]));
    const cue = ({ id: _id, then, reach, signed: _s, ...c }: Cue) => ({
      ...c,
      then: then && place.get(then),
      reach: reach && "cue" in reach ? place.get(reach.cue) : reach,
    });
    return canonical({ ...rest, ...(cues ? { cues: own.map(cue) } : {}) });
  };
  return bare(a) === bare(b);
}
