"use client";

import { Button, Group } from "@mantine/core";
import { IconCrosshair } from "@tabler/icons-react";
import { memo, useMemo } from "react";
import { aim, hold } from "@/core/command/building";
import { aimOfFixture } from "@/core/program/resolve";
import { splitItem } from "@/core/show/ids";
import { targetsOf } from "@/core/show/model";
import { isAim, type AimPoint } from "@/core/show/value";
import { plain } from "@/core/units/units";
import { EditableText } from "@/ui/base/parts/EditableText";
import { setStageTools, useStageTools } from "@/ui/stage/stageTools";
import { useSession, useShow } from "@/ui/show/useSession";
import { HangPanel } from "./HangPanel";
import classes from "./Programmer.module.css";
import { plural } from "@/core/units/plural";

/** The point the selected movers are held at; undefined where there is none, or several. */
function useAim(): AimPoint | undefined {
  const show = useShow((s) => s.world.show);
  const { selection, held } = useShow((s) => s.world.hands);
  return useMemo(() => {
    let found: AimPoint | undefined;
    for (const i of selection)
      for (const { key } of targetsOf(show, i, "Pan")) {
        const value = held[key]?.value;
        if (value === undefined || !isAim(value)) return undefined;
        if (found && JSON.stringify(found) !== JSON.stringify(value)) return undefined;
        found ??= value;
      }
    return found;
  }, [show, selection, held]);
}

/** Pointing movers at a place in the room, the other way round, and back to the middle. */
export const AimPanel = memo(function AimPanel() {
  const session = useSession();
  const aiming = useStageTools((s) => s.aiming);
  const point = useAim();
  const show = useShow((s) => s.world.show);
  const selection = useShow((s) => s.world.hands.selection);
  const short = useMemo(
    () =>
      point
        ? selection.filter((i) => {
            const fixture = show.fixtures[splitItem(i).fixture];
            return fixture && (aimOfFixture(show, fixture, point)?.off ?? 0) > 0;
          }).length
        : 0,
    [point, show, selection],
  );
  const set = (text: string) => {
    const numbers = session.read("numbers", text);
    if (!numbers) return;
    if (numbers.length !== 3)
      return session.tell("a point is three numbers: across, upstage, up, such as 0 2 0", "refused");
    const [x, y, z] = numbers as [number, number, number];
    session.hold((b) => aim(b, { aim: [x, y, z], ...(point?.flip ? { flip: true } : {}) }));
  };
  return (
    <div className={classes.aim}>
      <Group gap={4} wrap="nowrap">
        <Button
          size="compact-xs"
          variant={aiming ? "filled" : "default"}
          leftSection={<IconCrosshair size={14} />}
          aria-pressed={aiming}
          onClick={() => setStageTools({ aiming: !aiming, ordering: null, trial: null })}
        >
          Aim on the stage
        </Button>
        <Button
          size="compact-xs"
          variant="default"
          disabled={!point}
          title="Reach the same point the other way round"
          onClick={() =>
            point && session.hold((b) => aim(b, { aim: point.aim, ...(point.flip ? {} : { flip: true }) }))
          }
        >
          Other way
        </Button>
        <Button
          size="compact-xs"
          variant="default"
          onClick={() => session.hold((b) => (hold(b, "Pan", [0], false), hold(b, "Tilt", [0], false)))}
        >
          Centre
        </Button>
      </Group>
      <div className={classes["aim-at"]}>
        <span className="muted">at</span>
        <EditableText
          mono
          label="Point in the room: across, upstage and up, in metres"
          value={point ? point.aim.map((v) => plain(v)).join(" ") : ""}
          empty="x y z, metres"
          onSave={set}
        />
        {short > 0 && <span className={classes.short}>{plural(short, "mover")} cannot reach it</span>}
      </div>
      <HangPanel />
    </div>
  );
});
