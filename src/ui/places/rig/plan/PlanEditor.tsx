"use client";

import { Button, Switch, TextInput } from "@mantine/core";
import { useState } from "react";
import { aligned, distributed, inArc, inCircle, inGrid, inRow, type Place } from "@/core/patch/arrange";
import { drawScenic, eraseScenic } from "@/core/patch/sceneryIntents";
import { setFixtures } from "@/core/patch/intents";
import { splitItem } from "@/core/show/ids";
import type { Scenic } from "@/core/show/schema";
import { EditableText } from "@/ui/base/parts/EditableText";
import { StagePlan, type PlanEdit } from "@/ui/stage/plan/StagePlan";
import { useSession, useShow } from "@/ui/show/useSession";
import { columnOf } from "@/ui/places/rig/patch/columns";
import classes from "./Plan.module.css";
import { plural } from "@/core/units/plural";

type Tool = "move" | "row" | "arc" | "circle" | "grid" | Scenic["shape"];
interface ToolCard {
  value: Tool;
  label: string;
  hint: string;
}
const HANGING: ToolCard[] = [
  { value: "move", label: "Move", hint: "Drag a lamp to move what is selected; drag elsewhere to select an area" },
  { value: "row", label: "Row", hint: "Drag a line: the selected lamps hang along it, in their order" },
  { value: "arc", label: "Arc", hint: "Drag from the middle outwards: they hang on an arc, upstage of it" },
  { value: "circle", label: "Circle", hint: "Drag from the middle outwards: they hang around it" },
  { value: "grid", label: "Grid", hint: "Drag from the middle sideways: they hang in columns as far apart" },
];
const DRAWING: ToolCard[] = [
  { value: "truss", label: "Truss", hint: "Drag from end to end" },
  { value: "line", label: "Line", hint: "Drag from end to end" },
  { value: "area", label: "Area", hint: "Drag from corner to corner" },
  { value: "round", label: "Round", hint: "Drag from corner to corner" },
];
const HANGS = new Set<Tool>(["row", "arc", "circle", "grid"]);
const STEP = 0.5;
const ARC = 75;
type Point = { x: number; y: number };

/** Places on the plan: by hand, by tools, in numbers; and trusses and set pieces to read the room by. */
export function PlanEditor() {
  const session = useSession();
  const show = useShow((s) => s.world.show);
  const selection = useShow((s) => s.world.hands.selection);
  const [tool, setTool] = useState<Tool>("move");
  const [snaps, setSnaps] = useState(true);
  const [columns, setColumns] = useState("4");
  const [label, setLabel] = useState("");
  const ids = [...new Set(selection.map((i) => splitItem(i).fixture))];
  const fixtures = ids.map((id) => show.fixtures[id]!);
  const snap = (v: number) => Math.round(snaps ? Math.round(v / STEP) * STEP * 1000 : v * 1000) / 1000;
  const at = (p: Point): Point => ({ x: snap(p.x), y: snap(p.y) });

  const put = (places: readonly Place[], says: string) =>
    session.act(
      [setFixtures.of({ changes: Object.fromEntries(ids.map((id, k) => [id, { place: places[k]! }])), says })],
      says,
    );
  const places = (from: Point, to: Point): Place[] => {
    const now = fixtures.map((f) => f.place);
    const [a, b] = [at(from), at(to)];
    const reach = Math.max(STEP, Math.hypot(b.x - a.x, b.y - a.y));
    if (tool === "row") return inRow(now, a, b);
    if (tool === "arc") return inArc(now, a, reach, -ARC, ARC);
    if (tool === "circle") return inCircle(now, a, reach);
    return inGrid(
      now,
      a,
      Math.max(1, Number(columns) || 1),
      Math.max(0.2, snap(reach / Math.max(1, Number(columns) - 1))),
    );
  };
  const outline = (from: Point, to: Point): Point[] =>
    tool === "area" || tool === "round"
      ? [at(from), { x: at(to).x, y: at(from).y }, at(to), { x: at(from).x, y: at(to).y }]
      : [at(from), at(to)];
  const drag = (from: Point, to: Point) => {
    if (HANGS.has(tool)) {
      if (ids.length === 0)
        return session.tell("nothing is selected to hang. Select fixtures first, such as: 1 thru 12", "refused");
      return void put(places(from, to), `hangs ${plural(ids.length, "fixture")} in a ${tool}`);
    }
    session.act(
      [drawScenic.of({ piece: { shape: tool as Scenic["shape"], name: label, from: at(from), to: at(to) } })],
      `draws the ${tool}`,
    );
  };
  const edit: PlanEdit = {
    moves: tool === "move",
    ...(tool === "move" ? {} : { onDrag: drag }),
    preview: (from, to) => (HANGS.has(tool) ? places(from, to) : outline(from, to)),
    onMove: (dx, dy) =>
      put(
        fixtures.map((f) => ({ ...f.place, ...at({ x: f.place.x + dx, y: f.place.y + dy }) })),
        `moves ${plural(ids.length, "fixture")}`,
      ),
  };
  const type = (id: string) => (text: string) => {
    const made = columnOf(id)!.put!(text, fixtures, show);
    if (typeof made === "string") return session.tell(made, "refused");
    session.act(
      [
        setFixtures.of({
          changes: Object.fromEntries(ids.map((f, k) => [f, made[k]!])),
          says: `sets ${columnOf(id)!.title} of ${plural(ids.length, "fixture")}`,
        }),
      ],
      "place",
    );
  };
  const level = (axis: "x" | "y" | "z", arrange: typeof aligned, says: string) =>
    put(
      arrange(
        fixtures.map((f) => f.place),
        axis,
      ),
      `${says} in ${axis}: ${plural(ids.length, "fixture")}`,
    );

  return (
    <div className={classes.plan}>
      <div className={classes.stage}>
        <StagePlan edit={edit} />
      </div>
      <aside className={classes.side} aria-label="Plan tools">
        <Tools title="Hang" tools={HANGING} tool={tool} onTool={setTool} />
        <Tools title="Draw" tools={DRAWING} tool={tool} onTool={setTool} />
        <p className={classes.hint}>{[...HANGING, ...DRAWING].find((t) => t.value === tool)!.hint}.</p>
        <Switch
          size="xs"
          label={`Snap to ${STEP} m`}
          checked={snaps}
          onChange={(e) => setSnaps(e.currentTarget.checked)}
        />
        {tool === "grid" && (
          <TextInput size="xs" label="Columns" value={columns} onChange={(e) => setColumns(e.currentTarget.value)} />
        )}
        {!HANGS.has(tool) && tool !== "move" && (
          <TextInput
            size="xs"
            label="Its name"
            value={label}
            onChange={(e) => setLabel(e.currentTarget.value)}
            placeholder="Mast truss"
          />
        )}
        <h3>{fixtures.length === 0 ? "Nothing selected" : `${plural(fixtures.length, "fixture")} selected`}</h3>
        {fixtures.length > 0 && (
          <>
            <dl className={classes.numbers}>
              {["placeX", "placeY", "placeZ", "turnX", "turnY", "turnZ"].map((id) => (
                <div key={id}>
                  <dt title={columnOf(id)!.hint}>{columnOf(id)!.title}</dt>
                  <dd>
                    <EditableText
                      mono
                      label={columnOf(id)!.hint}
                      value={rangeText(fixtures.map((f) => columnOf(id)!.text(f, show)))}
                      onSave={type(id)}
                    />
                  </dd>
                </div>
              ))}
            </dl>
            <p className={classes.hint}>A range such as -4 to 4 spreads over them.</p>
            <div className={classes.buttons}>
              {(["x", "y", "z"] as const).map((axis) => (
                <Button key={axis} size="compact-xs" variant="default" onClick={() => level(axis, aligned, "aligned")}>
                  Align {axis}
                </Button>
              ))}
              {(["x", "y", "z"] as const).map((axis) => (
                <Button
                  key={axis}
                  size="compact-xs"
                  variant="default"
                  onClick={() => level(axis, distributed, "spaced evenly")}
                >
                  Space {axis}
                </Button>
              ))}
            </div>
          </>
        )}
        <h3>Room</h3>
        <ul className={classes.pieces}>
          {Object.values(show.scenery).map((s) => (
            <li key={s.id}>
              <EditableText
                value={s.name}
                empty={s.shape}
                label={`Name of the ${s.shape}`}
                onSave={(name) =>
                  session.act(
                    [drawScenic.of({ id: s.id, piece: { shape: s.shape, name, from: s.from, to: s.to } })],
                    `names the ${s.shape}`,
                  )
                }
              />
              <Button
                size="compact-xs"
                variant="subtle"
                aria-label={`Erase ${s.name || s.shape}`}
                onClick={() => session.act([eraseScenic.of({ id: s.id })], `erases ${s.name || s.shape}`)}
              >
                Erase
              </Button>
            </li>
          ))}
          {Object.keys(show.scenery).length === 0 && (
            <li className="muted">No truss or set piece yet: choose one above and drag it on the plan.</li>
          )}
        </ul>
      </aside>
    </div>
  );
}

function Tools({
  title,
  tools,
  tool,
  onTool,
}: {
  title: string;
  tools: readonly ToolCard[];
  tool: Tool;
  onTool(tool: Tool): void;
}) {
  return (
    <div role="group" aria-label={title} className={classes.tools}>
      <span className="muted">{title}</span>
      {tools.map((t) => (
        <button
          key={t.value}
          type="button"
          aria-pressed={t.value === tool}
          title={t.hint}
          onClick={() => onTool(t.value)}
        >
          {t.label}
        </button>
      ))}
    </div>
  );
}

/** One value, or the first and the last of several. */
const rangeText = (texts: readonly string[]): string =>
  new Set(texts).size === 1 ? texts[0]! : `${texts[0]} to ${texts.at(-1)}`;
