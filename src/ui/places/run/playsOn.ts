/** What plays, by how it ends: lists that a release ends, and playbacks that stand by their level. */
import { kindOf } from "@/core/play/lists/kinds/kinds";
import type { CueList, Show } from "@/core/show/schema";
import { listsByNumber } from "@/core/show/world";
import { plain } from "@/core/units/units";
import type { Playing } from "@/engine/messages";

export interface PlaysOn {
  /** Started by go: *release all* ends them. */
  goes: CueList[];
  /** Submasters, morphs and takeovers above 0: they stay until their level comes down. */
  stands: { list: CueList; level: number }[];
}

/** Limiters give nothing and are not counted. */
export function playsOn(show: Show, runs: Playing["runs"]): PlaysOn {
  const running = listsByNumber(show).filter((list) => runs[list.id]?.cue);
  return {
    goes: running.filter((list) => kindOf(list).goes),
    stands: running
      .filter((list) => !kindOf(list).goes && !kindOf(list).limits && runs[list.id]!.level > 0)
      .map((list) => ({ list, level: runs[list.id]!.level })),
  };
}

const named = (lists: readonly CueList[]): string => lists.map((l) => `${l.number} ${l.name}`).join(", ");

/** What a press would do, in words; null where nothing plays. */
export function releaseWords({ goes, stands }: PlaysOn): { label: string; does: string } | null {
  const levels = stands.map(({ list, level }) => `${list.number} ${list.name} at ${plain(level, 0)} %`).join(", ");
  if (goes.length > 0)
    return {
      label: `Release ${goes.length === 1 ? goes[0]!.name : `all ${goes.length}`}`,
      does: `Releases ${named(goes)}.${levels ? ` What plays by its level stays: ${levels}; a second press brings it down.` : ""}`,
    };
  return stands.length > 0
    ? { label: stands.length === 1 ? "Level to 0" : `${stands.length} levels to 0`, does: `Brings down ${levels}.` }
    : null;
}
