"use client";

import { Button, Group as Line, Modal } from "@mantine/core";
import { useRef, useState, type KeyboardEvent, type PointerEvent } from "react";
import { inRowsOf, middleOf, straight, turnedPlan, type Arrangement } from "@/core/select/arrangement";
import { setGroup } from "@/core/select/groupIntents";
import { onStage } from "@/core/select/place";
import type { Item } from "@/core/show/ids";
import { itemText } from "@/core/show/model";
import type { Group } from "@/core/show/schema";
import { NumberField } from "@/ui/show/NumberField";
import { useSession, useShow } from "@/ui/show/useSession";
import classes from "./Groups.module.css";

/** Metres; Shift goes finer. */
const GRID = 0.5;
const LEAST_SPAN = 6;
const snap = (v: number, fine: boolean): number => Math.round(v / (fine ? GRID / 5 : GRID)) * (fine ? GRID / 5 : GRID);

/** A group's members laid by hand on a plan of their own; spreads over places go by it while the group is selected. */
export function ArrangementDialog({ group, onClose }: { group: Group; onClose(): void }) {
  const session = useSession();
  const show = useShow((s) => s.world.show);
  const [plan, setPlan] = useState<Arrangement>(() => ({ ...onStage(show, group.members), ...group.arrangement }));
  const [columns, setColumns] = useState(Math.max(1, Math.round(Math.sqrt(group.members.length))));
  const [dragged, setDragged] = useState<Item | null>(null);
  const svg = useRef<SVGSVGElement>(null);
  const places = Object.values(plan);
  const { x: mx, y: my } = middleOf(plan);
  const span = (values: number[]) => Math.max(...values) - Math.min(...values);
  const view = useRef<{ x: number; y: number; w: number; h: number } | null>(null);
  if (!dragged || !view.current) {
    const w = Math.max(LEAST_SPAN, span(places.map((p) => p.x)) + 3, (span(places.map((p) => p.y)) + 3) * 1.8);
    view.current = { x: mx - w / 2, y: -my - w / 3.6, w, h: w / 1.8 };
  }
  const { x, y, w, h } = view.current;
  const size = Math.max(w / 60, 0.12);
  const put = (item: Item, px: number, py: number) => setPlan((now) => ({ ...now, [item]: { x: px, y: py } }));
  const move = (event: PointerEvent) => {
    const at = dragged && svg.current?.getScreenCTM()?.inverse();
    if (!at) return;
    const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(at);
    put(dragged, snap(point.x, event.shiftKey), snap(-point.y, event.shiftKey));
  };
  const nudge = (item: Item) => (event: KeyboardEvent) => {
    const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[event.key];
    if (!by) return;
    event.preventDefault();
    const step = event.shiftKey ? GRID / 5 : GRID;
    put(item, plan[item]!.x + by[0]! * step, plan[item]!.y + by[1]! * step);
  };
  const keep = () => {
    session.act([setGroup.of({ group: group.id, arrangement: plan })]);
    onClose();
  };
  return (
    <Modal opened onClose={onClose} size="xl" centered title={`The plan of ${group.name}`}>
      <p className={classes.hint}>
        Drag lamps, or move the focused one by arrows; Shift goes finer. Left, front, centre and around go by this plan
        while the whole group is selected. The stage stays as it is.
      </p>
      <svg
        ref={svg}
        className={classes.arrangement}
        viewBox={`${x} ${y} ${w} ${h}`}
        onPointerMove={move}
        onPointerUp={() => setDragged(null)}
        onPointerCancel={() => setDragged(null)}
      >
        {Array.from({ length: Math.min(120, Math.ceil(w)) }, (_, k) => (
          <path key={`x${k}`} d={`M${Math.ceil(x) + k} ${y} v${h}`} />
        ))}
        {Array.from({ length: Math.min(120, Math.ceil(h)) }, (_, k) => (
          <path key={`y${k}`} d={`M${x} ${Math.ceil(y) + k} h${w}`} />
        ))}
        {group.members.map((item) => {
          const at = plan[item];
          return (
            at && (
              <g
                key={item}
                tabIndex={0}
                role="button"
                aria-label={`${itemText(show, item)} at ${at.x.toFixed(1)} ${at.y.toFixed(1)}`}
                transform={`translate(${at.x} ${-at.y})`}
                onPointerDown={(e) => (svg.current?.setPointerCapture(e.pointerId), setDragged(item))}
                onKeyDown={nudge(item)}
              >
                <circle r={size} />
                <text y={-size * 1.5} fontSize={size * 1.7}>
                  {itemText(show, item)}
                </text>
              </g>
            )
          );
        })}
      </svg>
      <Line gap="xs" mt="sm" align="end">
        <Button size="compact-sm" variant="default" onClick={() => setPlan(onStage(show, group.members))}>
          As on stage
        </Button>
        <Button size="compact-sm" variant="default" onClick={() => setPlan(straight(group.members))}>
          Straight
        </Button>
        <Button size="compact-sm" variant="default" onClick={() => setPlan(inRowsOf(group.members, columns))}>
          In rows of
        </Button>
        <NumberField size="xs" w={64} aria-label="Columns" value={columns} min={1} max={500} onSet={setColumns} />
        <Button size="compact-sm" variant="default" onClick={() => setPlan(turnedPlan(plan, "quarter"))}>
          Turn a quarter
        </Button>
        <Button size="compact-sm" variant="default" onClick={() => setPlan(turnedPlan(plan, "mirror"))}>
          Mirror
        </Button>
        <Button ml="auto" size="compact-sm" onClick={keep}>
          Keep this plan
        </Button>
      </Line>
    </Modal>
  );
}
