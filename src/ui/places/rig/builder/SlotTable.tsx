"use client";

import { ActionIcon, Button, ColorInput, Group, Popover, TextInput } from "@mantine/core";
import { IconPencil, IconPlus, IconTrash } from "@tabler/icons-react";
import type { ChannelFunction, FixtureType, Step } from "@/core/fixture/type";
import { attributeInfo } from "@/core/fixture/attribute";
import { evenSlots } from "@/core/rig/typeDraft";
import { GoboPicture } from "@/ui/stage/pictures/GoboPicture";
import { GoboDrawing } from "./GoboDrawing";
import { DraftNumber } from "./DraftNumber";
import classes from "./Builder.module.css";

interface Props {
  type: FixtureType;
  fn: ChannelFunction;
  most: number;
  onChange(fn: ChannelFunction): void;
  onPicture(name: string, png: string): void;
}

/** The slots of a wheel or the states of a function: names, ranges, colours, drawn gobos. */
export function SlotTable({ type, fn, most, onChange, onPicture }: Props) {
  const steps = fn.steps ?? [];
  const stepped = attributeInfo(fn.attribute).unit === "slot" || attributeInfo(fn.attribute).unit === "state";
  if (!stepped && steps.length === 0) return null;
  const put = (next: Step[]) => {
    if (next.length === 0) {
      const { steps: _, ...rest } = fn;
      return onChange(rest);
    }
    onChange({
      ...fn,
      steps: next,
      from: Math.min(...next.map((s) => s.value)),
      to: Math.max(...next.map((s) => s.value)),
    });
  };
  const set = (k: number, change: Partial<Step>) => put(steps.map((s, i) => (i === k ? { ...s, ...change } : s)));
  const colours = fn.attribute.startsWith("Color");
  const gobos = fn.attribute.startsWith("Gobo") || fn.attribute.startsWith("AnimationWheel");
  const add = () => onChange(evenSlots(fn, [...steps, { name: `slot ${steps.length + 1}` }]));
  return (
    <div className={classes.slots}>
      {steps.map((s, k) => (
        <Group key={k} gap={6} wrap="nowrap">
          <span className="num muted">{s.value}</span>
          <TextInput
            size="xs"
            w={130}
            aria-label="Name of the slot"
            value={s.name}
            onChange={(e) => set(k, { name: e.currentTarget.value })}
          />
          {(["dmxFrom", "dmxTo"] as const).map((end) => (
            <DraftNumber
              key={end}
              w={76}
              hideControls
              aria-label={end === "dmxFrom" ? "Slot from" : "Slot to"}
              max={most}
              value={s[end]}
              onSet={(v) => set(k, { [end]: v })}
            />
          ))}
          {colours && (
            <ColorInput
              size="xs"
              w={112}
              aria-label="Colour of the slot"
              format="hex"
              value={s.colour ?? "#ffffff"}
              onChange={(v) => /^#[0-9a-f]{6}$/i.test(v) && set(k, { colour: v.toLowerCase() })}
            />
          )}
          {gobos && (
            <Popover position="left" shadow="md" withinPortal>
              <Popover.Target>
                <Button
                  size="compact-xs"
                  variant="default"
                  leftSection={
                    <GoboPicture name={s.name} picture={s.picture ? type.pictures?.[s.picture] : undefined} />
                  }
                  rightSection={<IconPencil size={12} />}
                >
                  Draw
                </Button>
              </Popover.Target>
              <Popover.Dropdown>
                <GoboDrawing
                  start={s.picture ? type.pictures?.[s.picture] : undefined}
                  onDone={(png) => {
                    const name = s.picture ?? `drawn ${fn.attribute} ${s.value}`;
                    onPicture(name, png);
                    set(k, { picture: name });
                  }}
                />
              </Popover.Dropdown>
            </Popover>
          )}
          <ActionIcon
            variant="subtle"
            color="gray"
            size={24}
            aria-label={`Remove slot ${s.name}`}
            onClick={() => put(steps.filter((_, i) => i !== k))}
          >
            <IconTrash size={13} />
          </ActionIcon>
        </Group>
      ))}
      <Group gap={6}>
        <Button size="compact-xs" variant="subtle" leftSection={<IconPlus size={12} />} onClick={add}>
          Slot
        </Button>
        {steps.length > 1 && (
          <Button size="compact-xs" variant="subtle" onClick={() => onChange(evenSlots(fn, steps))}>
            All of equal width
          </Button>
        )}
      </Group>
    </div>
  );
}
