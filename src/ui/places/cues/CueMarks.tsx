"use client";

import {
  IconAlertTriangle,
  IconArrowForwardUp,
  IconClock,
  IconMoon,
  IconSignature,
  IconWaveSine,
} from "@tabler/icons-react";
import { useState } from "react";
import { reachText } from "@/core/cue/reach";
import { isFrom, isStop } from "@/core/show/effectSchema";
import type { Cue, CueList } from "@/core/show/schema";
import { grouped } from "@/core/units/grouped";
import type { Checked } from "@/session/looksLink";
import { useShow } from "@/ui/show/useSession";
import { Timeline } from "@/ui/features/cues/Timeline";
import classes from "@/ui/features/cues/Cues.module.css";
import { plural } from "@/core/units/plural";

type Finding = Checked["findings"][number];
const NOTHING: readonly Finding[] = [];
const sorted = new WeakMap<Checked, ReadonlyMap<string, Finding[]>>();

/** What Check has found of each cue: sorted once, as a large list may have thousands. */
function byCue(checked: Checked): ReadonlyMap<string, Finding[]> {
  const known = sorted.get(checked);
  if (known) return known;
  const made = grouped(
    checked.findings.filter((f) => f.cue !== undefined),
    (f) => f.cue!,
  );
  sorted.set(checked, made);
  return made;
}

/** What is special about a cue, each mark explained on hover. */
export function CueMarks({ list, cue }: { list: CueList; cue: Cue }) {
  const show = useShow((s) => s.world.show);
  const end = reachText(list, cue);
  const own = Object.values(cue.entries).filter((e) => e.time).length;
  const effects = Object.values(cue.entries).flatMap((e) => (e.effect ? [e.effect] : []));
  const names = [
    ...new Set(
      effects.map((e) =>
        isStop(e) ? "a stop" : isFrom(e) ? (show.effects[e.from]?.name ?? "an effect") : "a wave of its own",
      ),
    ),
  ];
  const checked = useShow((s) => s.checked);
  const found = (checked && byCue(checked).get(cue.id)) ?? NOTHING;
  const moons = checked?.moons[cue.id];
  const drift = found.find((f) => f.concern === "Drift");
  const late = found.find((f) => f.concern === "Moves in the dark");
  const empty = Object.keys(cue.entries).length === 0;
  const [timing, setTiming] = useState(false);
  return (
    <>
      {timing && <Timeline list={list} cue={cue} onClose={() => setTiming(false)} />}
      {cue.trigger.kind !== "go" && (
        <span
          title={
            cue.trigger.kind === "auto"
              ? `Starts by itself ${cue.trigger.after} s after the previous go`
              : `Starts by itself ${cue.trigger.after} s after the previous cue is complete`
          }
          className={classes.mark}
        >
          <IconArrowForwardUp size={13} /> {cue.trigger.after} s
        </span>
      )}
      {cue.fresh && (
        <span title="Nothing before this cue tracks into it" className={classes.mark}>
          fresh start
        </span>
      )}
      {cue.assert && (
        <span title="Assert: on go, takes back everything it tracks from other lists" className={classes.mark}>
          assert
        </span>
      )}
      {cue.reach && (
        <span
          title={`What it stores covers later cues up to ${end ?? "?"}; then what lay below comes back`}
          className={classes.mark}
        >
          reach {end ?? "?"}
        </span>
      )}
      {own > 0 && (
        <button
          type="button"
          title={`${own} values with their own timing: press to see and change it`}
          className={classes.mark}
          onClick={(e) => (e.stopPropagation(), setTiming(true))}
        >
          <IconClock size={13} /> <span className={classes.word}>own time</span>
        </button>
      )}
      {effects.length > 0 && (
        <span title={`${effects.length} effects stored: ${names.join(", ")}`} className={classes.mark}>
          <IconWaveSine size={13} /> <span className={classes.word}>{effects.every(isStop) ? "stops" : "effect"}</span>
        </span>
      )}
      {cue.signed && (
        <span
          title={
            found.some((f) => f.concern === "Looks that were signed off")
              ? "It does not look as it was signed off: see Check"
              : "Signed off: it looks as it was agreed on"
          }
          className={classes.mark}
          data-tone={found.some((f) => f.concern === "Looks that were signed off") ? "danger" : undefined}
        >
          <IconSignature size={13} />{" "}
          {found.some((f) => f.concern === "Looks that were signed off") ? "changed" : "signed"}
        </span>
      )}
      {moons && (
        <span
          title={`${plural(moons.length, "fixture has", "fixtures have")} moved here beforehand, in the dark`}
          className={classes.mark}
        >
          <IconMoon size={13} /> {moons.length}
        </span>
      )}
      {drift && (
        <span title={`${drift.what}. ${drift.why}`} className={classes.mark} data-tone="caution">
          <IconAlertTriangle size={13} /> drift
        </span>
      )}
      {late && (
        <span title={`${late.what}. ${late.why}`} className={classes.mark} data-tone="caution">
          <IconAlertTriangle size={13} /> {late.what.includes("changing") ? "comes up changing" : "too late"}
        </span>
      )}
      {(cue.meant?.length ?? 0) > 0 && (
        <span title={`The moves of ${cue.meant!.length} fixtures in the dark are meant here`} className={classes.mark}>
          meant
        </span>
      )}
      {cue.then && (
        <span title="Its next go jumps there" className={classes.mark}>
          then {list.cues[cue.then]?.number ?? "?"}
        </span>
      )}
      {cue.runs && (
        <span title="Runs on its go" className={classes.mark}>
          runs {cue.runs}
        </span>
      )}
      {cue.times.curve && (
        <span title="Fade curve of its intensity" className={classes.mark}>
          {cue.times.curve}
        </span>
      )}
      {empty && (
        <span title="Stores nothing: everything tracks through" className={classes.mark}>
          ∅ empty
        </span>
      )}
    </>
  );
}
