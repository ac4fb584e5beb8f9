"use client";

import { Button, Tooltip } from "@mantine/core";
import { useMemo } from "react";
import { select } from "@/core/select/intents";
import { clear, heldSummary, setHighlight } from "@/core/program/intents";
import { shownKey } from "../keys";
import parts from "../parts/parts.module.css";
import { useSession, useShow, useStageSummary } from "../useSession";
import { AimPanel } from "./AimPanel";
import { AttributeValue } from "./AttributeValue";
import { ColourPanel } from "./ColourPanel";
import { PositionPad } from "./PositionPad";
import { summarise, type FamilyRows } from "./summary";
import classes from "./Build.module.css";

/** What the selection shows on stage, what of it is held, and the hands to change it. */
export function Programmer() {
  const session = useSession();
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
    </aside>
  );
}

function FamilySection({ family: { family, rows, source } }: { family: FamilyRows }) {
  const has = (name: string) => rows.some((r) => r.attribute === name);
  const mixes = has("ColorAdd_R") || has("ColorSub_C") || has("Color1");
  return (
    <section className={parts.section} aria-label={family}>
      <header>
        <h2>{family}</h2>
        <span>{source}</span>
      </header>
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
