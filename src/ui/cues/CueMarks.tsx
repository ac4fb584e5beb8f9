"use client";

import { Tooltip } from "@mantine/core";
import {
  IconAlertTriangle,
  IconArrowForwardUp,
  IconClock,
  IconMoon,
  IconSignature,
  IconWaveSine,
} from "@tabler/icons-react";
import { reachText } from "@/core/cue/reach";
import { isFrom, isStop } from "@/core/show/effectSchema";
import type { Cue, CueList } from "@/core/show/schema";
import { grouped } from "@/core/units/grouped";
import type { Checked } from "@/session/looksLink";
import { useShow } from "../useSession";
import classes from "./Cues.module.css";

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
  return (
    <>
      {cue.trigger.kind !== "go" && (
        <Tooltip
          label={
            cue.trigger.kind === "auto"
              ? `Follows by itself ${cue.trigger.after} s after the go before`
              : `Follows by itself ${cue.trigger.after} s after the cue before is complete`
          }
        >
          <span className={classes.mark}>
            <IconArrowForwardUp size={13} /> {cue.trigger.after} s
          </span>
        </Tooltip>
      )}
      {cue.fresh && (
        <Tooltip label="Nothing before this cue tracks into it">
          <span className={classes.mark}>fresh start</span>
        </Tooltip>
      )}
      {cue.assert && (
        <Tooltip label="Its go stamps everything in force, so it wins over other lists">
          <span className={classes.mark}>assert</span>
        </Tooltip>
      )}
      {cue.reach && (
        <Tooltip label={`What it stores covers later cues up to ${end ?? "?"}; then what lay below comes back`}>
          <span className={classes.mark}>reach {end ?? "?"}</span>
        </Tooltip>
      )}
      {own > 0 && (
        <Tooltip label={`${own} values with their own timing`}>
          <span className={classes.mark}>
            <IconClock size={13} /> own time
          </span>
        </Tooltip>
      )}
      {effects.length > 0 && (
        <Tooltip label={`${effects.length} effects stored: ${names.join(", ")}`}>
          <span className={classes.mark}>
            <IconWaveSine size={13} /> {effects.every(isStop) ? "stops" : "effect"}
          </span>
        </Tooltip>
      )}
      {cue.signed && (
        <Tooltip
          label={
            found.some((f) => f.concern === "Looks that were signed off")
              ? "It does not look as it was signed off: see Check"
              : "Signed off: it looks as it was agreed on"
          }
        >
          <span
            className={classes.mark}
            data-tone={found.some((f) => f.concern === "Looks that were signed off") ? "danger" : undefined}
          >
            <IconSignature size={13} />{" "}
            {found.some((f) => f.concern === "Looks that were signed off") ? "changed" : "signed"}
          </span>
        </Tooltip>
      )}
      {moons && (
        <Tooltip
          label={`${moons.length} ${moons.length === 1 ? "fixture has" : "fixtures have"} moved here beforehand, in the dark`}
        >
          <span className={classes.mark}>
            <IconMoon size={13} /> {moons.length}
          </span>
        </Tooltip>
      )}
      {drift && (
        <Tooltip label={`${drift.what}. ${drift.why}`}>
          <span className={classes.mark} data-tone="caution">
            <IconAlertTriangle size={13} /> drift
          </span>
        </Tooltip>
      )}
      {late && (
        <Tooltip label={`${late.what}. ${late.why}`}>
          <span className={classes.mark} data-tone="caution">
            <IconAlertTriangle size={13} /> {late.what.includes("changing") ? "comes up changing" : "too late"}
          </span>
        </Tooltip>
      )}
      {(cue.meant?.length ?? 0) > 0 && (
        <Tooltip label={`The moves of ${cue.meant!.length} fixtures in the dark are meant here`}>
          <span className={classes.mark}>meant</span>
        </Tooltip>
      )}
      {cue.then && (
        <Tooltip label="Its next go leads there, as a jump">
          <span className={classes.mark}>then {list.cues[cue.then]?.number ?? "?"}</span>
        </Tooltip>
      )}
      {cue.runs && (
        <Tooltip label="Run at its go">
          <span className={classes.mark}>runs {cue.runs}</span>
        </Tooltip>
      )}
      {cue.times.curve && (
        <Tooltip label="How the progress of its intensity is bent">
          <span className={classes.mark}>{cue.times.curve}</span>
        </Tooltip>
      )}
      {empty && (
        <Tooltip label="Stores nothing: everything tracks through">
          <span className={classes.mark}>∅ empty</span>
        </Tooltip>
      )}
    </>
  );
}
