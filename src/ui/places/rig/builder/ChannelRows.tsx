"use client";

import { ActionIcon, Button } from "@mantine/core";
import { IconGripVertical, IconPlus, IconTrash } from "@tabler/icons-react";
import type { KeyboardEvent } from "react";
import { attributeInfo } from "@/core/fixture/attribute";
import { layoutOf, type Channel, type Mode } from "@/core/fixture/type";
import { moved, newChannel, without } from "@/core/rig/typeDraft";
import { useReorder } from "@/ui/base/gestures/useReorder";
import { slotsText } from "@/ui/places/rig/library/slotsText";
import classes from "./Builder.module.css";

interface Props {
  mode: Mode;
  chosen: number;
  onChoose(place: number): void;
  onChange(channels: Channel[]): void;
}

/** What to begin the next channel with: what modes usually have and this one lacks. */
const USUAL = [
  "Dimmer",
  "Pan",
  "Tilt",
  "Shutter1",
  "ColorAdd_R",
  "ColorAdd_G",
  "ColorAdd_B",
  "ColorAdd_W",
  "Color1",
  "Gobo1",
  "Zoom",
  "Control1",
];

/** The channels of a mode in their order, beside their slots; dragged, or moved with Alt and the arrows. */
export function ChannelRows({ mode, chosen, onChoose, onChange }: Props) {
  const layout = layoutOf(mode);
  const reorder = useReorder((from, to) => move(Number(from), Number(to)));
  const move = (from: number, to: number) => {
    if (to < 0 || to >= mode.channels.length || from === to) return;
    onChange(moved(mode.channels, from, to));
    onChoose(to);
  };
  const add = () => {
    const has = new Set(mode.channels.filter((c) => c.cell === 0).map((c) => c.functions[0]!.attribute));
    let name = USUAL.find((a) => !has.has(a)) ?? "Control2";
    for (let k = 3; has.has(name); k++) name = `Control${k}`;
    onChange([...mode.channels, newChannel(name)]);
    onChoose(mode.channels.length);
  };
  const onKeyDown = (event: KeyboardEvent, k: number) => {
    const step = event.key === "ArrowUp" ? -1 : event.key === "ArrowDown" ? 1 : 0;
    if (step === 0) return;
    event.preventDefault();
    event.stopPropagation();
    if (event.altKey) move(k, k + step);
    else onChoose(Math.max(0, Math.min(mode.channels.length - 1, k + step)));
  };
  return (
    <div className={classes.rows} role="listbox" aria-label="Channels of the mode">
      {mode.channels.map((c, k) => (
        <div
          key={k}
          role="option"
          tabIndex={k === chosen ? 0 : -1}
          aria-selected={k === chosen}
          className={classes.channel}
          {...reorder(String(k))}
          onClick={() => onChoose(k)}
          onKeyDown={(e) => onKeyDown(e, k)}
        >
          <IconGripVertical size={14} className="muted" />
          <span className="num">{slotsText(layout[k]!.map((s) => s + 1))}</span>
          <span className={classes.label}>
            {attributeInfo(c.functions[0]!.attribute).label}
            {c.cell > 0 && <span className="muted"> cell {c.cell}</span>}
            {c.functions.length > 1 && <span className="muted"> +{c.functions.length - 1}</span>}
          </span>
          <ActionIcon
            variant="subtle"
            color="gray"
            size={24}
            aria-label={`Remove channel ${k + 1}`}
            disabled={mode.channels.length < 2}
            onClick={(e) => (e.stopPropagation(), onChange(without(mode.channels, k)), onChoose(Math.max(0, k - 1)))}
          >
            <IconTrash size={14} />
          </ActionIcon>
        </div>
      ))}
      <Button size="compact-sm" variant="subtle" leftSection={<IconPlus size={14} />} onClick={add}>
        Channel
      </Button>
    </div>
  );
}
