"use client";

import { ActionIcon, Button, Tooltip } from "@mantine/core";
import { IconBolt, IconClock } from "@tabler/icons-react";
import { memo, useMemo, useRef, useState } from "react";
import { select } from "@/core/select/intents";
import { clear, heldSummary, identify, setHighlight } from "@/core/program/intents";
import { attributeInfo, type Family } from "@/core/fixture/attribute";
import { splitItem } from "@/core/show/ids";
import { cellsOf } from "@/core/show/model";
import { namesIn } from "@/core/units/names";
import { FamilyEffect } from "./FamilyEffect";
import { useKeyTable } from "@/ui/show/keys/useKeyTable";
import { attributesIn, timedIn } from "@/ui/show/held/heldIn";
import parts from "@/ui/base/parts/parts.module.css";
import { useSession, useShow, useStageSummary } from "@/ui/show/useSession";
import { AimPanel } from "./AimPanel";
import { AttributeValue } from "./AttributeValue";
import { ControlActions } from "./ControlActions";
import { ColourPanel } from "./ColourPanel";
import { HandsMenu } from "./HandsMenu";
import { OwnTiming } from "./OwnTiming";
import { PositionPad } from "./PositionPad";
import { prepareSummary, summarise, type FamilyRows } from "@/ui/show/held/summary";
import { timeBars, type TimeBar } from "./timeBars";
import classes from "./Programmer.module.css";
import { plural } from "@/core/units/plural";

/** What the selection shows on stage, what of it is held, and the hands to change it. */
export function Programmer() {
  const session = useSession();
  const selection = useShow((s) => s.world.hands.selection);
  const held = useShow((s) => s.world.hands.held);
  const families = useStageSummary(
    (half, view) => summarise(session.store.getState().world, half, view),
    [] as FamilyRows[],
    [selection, held],
    { prepare: (view) => prepareSummary(session.store.getState().world, view) },
  );
  const shown = useSameFamilies(families);
  return (
    <aside className={classes.programmer} aria-label="Programmer">
      <Head />
      <HeldLine />
      {selection.length === 0 && (
        <p className={classes.hint}>Click fixtures on the stage, press a group, or type numbers such as 1 thru 12.</p>
      )}
      {shown.map((family) => (
        <FamilySection key={family.family} family={family} />
      ))}
      <ControlActions />
    </aside>
  );
}

/** Families and rows of which nothing is another are the very same as before: a drag, or a fade, draws only what it changes. */
function useSameFamilies(families: readonly FamilyRows[]): readonly FamilyRows[] {
  const before = useRef(new Map<string, { text: string; made: object }>());
  return useMemo(() => {
    const same = <T extends object>(name: string, value: T): T => {
      const text = JSON.stringify(value);
      const known = before.current.get(name);
      if (known?.text === text) return known.made as T;
      before.current.set(name, { text, made: value });
      return value;
    };
    return families.map((f) =>
      same(f.family, { ...f, rows: f.rows.map((row) => same(`${f.family} ${row.attribute}`, row)) }),
    );
  }, [families]);
}

function HeldLine() {
  const hands = useShow((s) => s.world.hands);
  const held = namesIn(hands.held).length;
  return (
    <div className={classes.holds}>
      <p className={classes.held} data-testid="held" data-some={held > 0}>
        {held > 0 ? `Held: ${heldSummary({ hands })}` : "Nothing is held"}
      </p>
      <HandsMenu />
    </div>
  );
}

/** What is selected, in words; its cells, a flash, the highlight, and letting go. */
function Head() {
  const session = useSession();
  const { shownKey } = useKeyTable();
  const selection = useShow((s) => s.world.hands.selection);
  const fixtures = useShow((s) => s.world.show.fixtures);
  const kinds = useShow((s) => s.world.show.types);
  const highlight = useShow((s) => s.world.hands.highlight);
  const some = useShow((s) => namesIn(s.world.hands.held).length > 0);
  const title = useMemo(() => {
    const types = new Map<string, number>();
    for (const id of new Set(selection.map((i) => splitItem(i).fixture))) {
      const model = kinds[fixtures[id]?.type ?? ""]?.model;
      if (model) types.set(model, (types.get(model) ?? 0) + 1);
    }
    const named = [...types].map(([model, n]) => `${n} × ${model}`).join(", ");
    const all = [...types.values()].reduce((sum, n) => sum + n, 0);
    return { named, short: types.size < 2 ? named : plural(all, "fixture") };
  }, [selection, fixtures, kinds]);
  return (
    <header className={classes.head}>
      <h2 title={title.named}>{title.short || "Nothing selected"}</h2>
      <CellsButton />
      <Tooltip label="Shows the selection full and open while it is pressed">
        <ActionIcon
          variant="subtle"
          color="gray"
          aria-label="Flash the selection while pressed"
          disabled={selection.length === 0}
          onPointerDown={(e) => {
            e.currentTarget.setPointerCapture(e.pointerId);
            session.act([identify.of({ items: [...selection] })], "identify");
          }}
          onPointerUp={() => session.act([identify.of({ items: [] })], "identify off")}
          onPointerCancel={() => session.act([identify.of({ items: [] })], "identify off")}
        >
          <IconBolt size={16} />
        </ActionIcon>
      </Tooltip>
      <Tooltip
        label={`${highlight ? "Ends the highlight" : "Shows the selection full and open; never recorded"} (${shownKey("highlight")})`}
      >
        <Button
          size="compact-sm"
          px={6}
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
          selection.length > 0
            ? `Deselect; press again to clear the programmer (${shownKey("clear")} does both)`
            : `Clear the programmer (${shownKey("clear")})`
        }
      >
        <Button
          size="compact-sm"
          px={6}
          variant="subtle"
          color="gray"
          disabled={!some && selection.length === 0}
          onClick={() => session.act(selection.length > 0 ? [select.of({ items: [] })] : [clear.of({})])}
        >
          Clear
        </Button>
      </Tooltip>
    </header>
  );
}

/** Opens what is selected into its cells, or closes cells to their fixtures. */
function CellsButton() {
  const session = useSession();
  const show = useShow((s) => s.world.show);
  const selection = useShow((s) => s.world.hands.selection);
  const { open, cells } = useMemo(() => {
    const open = selection.some((i) => splitItem(i).cell > 0);
    return { open, cells: open ? [] : selection.flatMap((i) => cellsOf(show, i)) };
  }, [selection, show.fixtures, show.types]); // oxlint-disable-line react-hooks/exhaustive-deps
  if (!open && cells.length === 0) return null;
  const whole = () => [...new Set(selection.map((i) => splitItem(i).fixture))];
  return (
    <Tooltip
      label={open ? "Select the fixtures instead of their cells" : `Opens them into their ${cells.length} cells`}
    >
      <Button
        size="compact-sm"
        variant={open ? "light" : "subtle"}
        color={open ? undefined : "gray"}
        px={6}
        aria-pressed={open}
        onClick={() => session.act([select.of({ items: open ? whole() : cells })], "select")}
      >
        Cells
      </Button>
    </Tooltip>
  );
}

const FamilySection = memo(function FamilySection({
  family: { family, rows, source, palette },
}: {
  family: FamilyRows;
}) {
  const [timed, setTimed] = useState(false);
  const has = (name: string) => rows.some((r) => r.attribute === name);
  const mixes = has("ColorAdd_R") || has("ColorSub_C") || has("Color1");
  return (
    <section className={parts.section} aria-label={family}>
      <header>
        <h2>{family}</h2>
        <span>{palette ? `${palette} · ${source}` : source}</span>
        {family !== "Control" && <FamilyEffect family={family} />}
        <TimesButton family={family} timed={timed} setTimed={setTimed} />
      </header>
      {timed && <Times family={family} />}
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
});

/** Own times of what is held of a family. */
function useBars(family: Family): TimeBar[] {
  const world = useShow((s) => s.world);
  return useMemo(() => timeBars(world, family), [world, family]);
}

const TimesButton = memo(function TimesButton({
  family,
  timed,
  setTimed,
}: {
  family: Family;
  timed: boolean;
  setTimed(timed: boolean): void;
}) {
  const held = useShow(({ world: { hands } }) =>
    [...attributesIn(hands.held)].some((a) => attributeInfo(a).family === family),
  );
  const timedHere = useShow((s) => timedIn(s.world.hands.held).has(family));
  if (!held) return null;
  return (
    <ActionIcon
      size="sm"
      variant={timed || timedHere ? "light" : "subtle"}
      color="gray"
      aria-pressed={timed}
      aria-label={`Own times of ${family.toLowerCase()}`}
      title="Own times of what is held here"
      onClick={() => setTimed(!timed)}
    >
      <IconClock size={14} />
    </ActionIcon>
  );
});

function Times({ family }: { family: Family }) {
  const bars = useBars(family);
  return bars.length > 0 ? <OwnTiming family={family} bars={bars} /> : null;
}
