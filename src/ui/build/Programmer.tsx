"use client";

import { ActionIcon, Button, Tooltip } from "@mantine/core";
import { IconBolt, IconClock } from "@tabler/icons-react";
import { useMemo, useState } from "react";
import { select } from "@/core/select/intents";
import { clear, heldSummary, identify, setHighlight } from "@/core/program/intents";
import { splitItem } from "@/core/show/ids";
import { cellsOf } from "@/core/show/model";
import { FamilyEffect } from "../effects/FamilyEffect";
import { useKeyTable } from "../shell/useKeyTable";
import parts from "../parts/parts.module.css";
import { useSession, useShow, useStageSummary } from "../useSession";
import { AimPanel } from "./AimPanel";
import { AttributeValue } from "./AttributeValue";
import { ControlActions } from "./ControlActions";
import { ColourPanel } from "./ColourPanel";
import { OwnTiming } from "./OwnTiming";
import { PositionPad } from "./PositionPad";
import { summarise, type FamilyRows } from "./summary";
import { timeBars } from "./timeBars";
import classes from "./Build.module.css";

/** What the selection shows on stage, what of it is held, and the hands to change it. */
export function Programmer() {
  const session = useSession();
  const { shownKey } = useKeyTable();
  const world = useShow((s) => s.world);
  const families = useStageSummary(
    (half, view) => summarise(session.store.getState().world, half, view),
    [] as FamilyRows[],
    [world.hands.selection, world.hands.held],
  );
  const title = useMemo(() => {
    const types = new Map<string, number>();
    for (const id of new Set(world.hands.selection.map((i) => i.split(".")[0]!))) {
      const model = world.show.types[world.show.fixtures[id]?.type ?? ""]?.model;
      if (model) types.set(model, (types.get(model) ?? 0) + 1);
    }
    return [...types].map(([model, n]) => `${n} × ${model}`).join(", ");
  }, [world]);
  const { highlight } = world.hands;
  const held = Object.keys(world.hands.held).length;

  return (
    <aside className={classes.programmer} aria-label="Programmer">
      <header className={classes.head}>
        <h2 title={title}>{title || "Nothing selected"}</h2>
        <CellsButton />
        <Tooltip label="Shows the selection full and open while it is pressed">
          <ActionIcon
            variant="subtle"
            color="gray"
            aria-label="Flash the selection while pressed"
            disabled={world.hands.selection.length === 0}
            onPointerDown={(e) => {
              e.currentTarget.setPointerCapture(e.pointerId);
              session.act([identify.of({ items: [...world.hands.selection] })], "identify");
            }}
            onPointerUp={() => session.act([identify.of({ items: [] })], "identify off")}
            onPointerCancel={() => session.act([identify.of({ items: [] })], "identify off")}
          >
            <IconBolt size={16} />
          </ActionIcon>
        </Tooltip>
        <Tooltip label={highlight ? "Ends the highlight" : "Shows the selection full and open; never recorded"}>
          <Button
            size="compact-sm"
            variant={highlight ? "light" : "subtle"}
            color={highlight ? "yellow" : "gray"}
            aria-pressed={highlight}
            onClick={() => session.act([setHighlight.of({ on: !highlight })])}
          >
            Highlight
          </Button>
        </Tooltip>
        <Tooltip
          label={
            world.hands.selection.length > 0
              ? `Drops the selection; pressed again, lets go of what is held (${shownKey("clear")} does both)`
              : `Lets go of everything held (${shownKey("clear")})`
          }
        >
          <Button
            size="compact-sm"
            variant="subtle"
            color="gray"
            disabled={held === 0 && world.hands.selection.length === 0}
            onClick={() => session.act(world.hands.selection.length > 0 ? [select.of({ items: [] })] : [clear.of({})])}
          >
            Clear
          </Button>
        </Tooltip>
      </header>
      <p className={classes.held} data-testid="held" data-some={held > 0}>
        {held > 0 ? `Held: ${heldSummary(world)}` : "Nothing is held"}
      </p>
      {world.hands.selection.length === 0 && (
        <p className={classes.hint}>Click fixtures on the stage, press a group, or type numbers such as 1 thru 12.</p>
      )}
      {families.map((family) => (
        <FamilySection key={family.family} family={family} />
      ))}
      <ControlActions />
    </aside>
  );
}

/** Opens what is selected into its cells, or closes cells to their fixtures. */
function CellsButton() {
  const session = useSession();
  const { show, hands } = useShow((s) => s.world);
  const open = hands.selection.some((i) => splitItem(i).cell > 0);
  const cells = open ? [] : hands.selection.flatMap((i) => cellsOf(show, i));
  if (!open && cells.length === 0) return null;
  const whole = [...new Set(hands.selection.map((i) => splitItem(i).fixture))];
  return (
    <Tooltip
      label={open ? "Closes the cells: the fixtures are selected" : `Opens them into their ${cells.length} cells`}
    >
      <Button
        size="compact-sm"
        variant={open ? "light" : "subtle"}
        color={open ? undefined : "gray"}
        px={6}
        aria-pressed={open}
        onClick={() => session.act([select.of({ items: open ? whole : cells })], "select")}
      >
        Cells
      </Button>
    </Tooltip>
  );
}

function FamilySection({ family: { family, rows, source, palette } }: { family: FamilyRows }) {
  const world = useShow((s) => s.world);
  const [timed, setTimed] = useState(false);
  const bars = useMemo(() => timeBars(world, family), [world, family]);
  const has = (name: string) => rows.some((r) => r.attribute === name);
  const mixes = has("ColorAdd_R") || has("ColorSub_C") || has("Color1");
  return (
    <section className={parts.section} aria-label={family}>
      <header>
        <h2>{family}</h2>
        <span>{palette ? `${palette} · ${source}` : source}</span>
        {family !== "Control" && <FamilyEffect family={family} />}
        {bars.length > 0 && (
          <ActionIcon
            size="sm"
            variant={timed || bars.some((b) => b.own) ? "light" : "subtle"}
            color="gray"
            aria-pressed={timed}
            aria-label={`Own times of ${family.toLowerCase()}`}
            title="Own times of what is held here"
            onClick={() => setTimed(!timed)}
          >
            <IconClock size={14} />
          </ActionIcon>
        )}
      </header>
      {timed && bars.length > 0 && <OwnTiming family={family} bars={bars} />}
      {family === "Colour" && mixes && <ColourPanel rows={rows} />}
      {family === "Position" && has("Pan") && has("Tilt") && (
        <>
          <PositionPad rows={rows} />
          <AimPanel />
        </>
      )}
      {rows.map((row) => (
        <AttributeValue key={row.attribute} row={row} />
      ))}
    </section>
  );
}
