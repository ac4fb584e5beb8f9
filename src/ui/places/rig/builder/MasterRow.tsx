"use client";

import { ActionIcon, Button, Select } from "@mantine/core";
import { IconLink, IconX } from "@tabler/icons-react";
import { attributeInfo } from "@/core/fixture/attribute";
import { layoutOf, type ChannelFunction, type Mode } from "@/core/fixture/type";
import { slotsText } from "@/ui/places/rig/library/slotsText";
import { DraftNumber } from "./DraftNumber";
import classes from "./Builder.module.css";

interface Props {
  mode: Mode;
  /** The channel the function is on. */
  place: number;
  fn: ChannelFunction;
  onChange(fn: ChannelFunction): void;
}

/** On which other channel a function depends: it works only while that one stands in a range. */
export function MasterRow({ mode, place, fn, onChange }: Props) {
  const { master } = fn;
  const layout = layoutOf(mode);
  const most = (channel: number) => 256 ** mode.channels[channel]!.bytes - 1;
  const put = (channel: number, from = 0, to = most(channel)) => onChange({ ...fn, master: { channel, from, to } });
  if (!master) {
    const other = mode.channels.findIndex((_, k) => k !== place);
    return (
      <Button
        size="compact-xs"
        variant="subtle"
        color="gray"
        w="fit-content"
        leftSection={<IconLink size={13} />}
        disabled={other < 0}
        onClick={() => put(other)}
      >
        Depends on another channel
      </Button>
    );
  }
  return (
    <div className={classes.master}>
      <span className="muted">works only while</span>
      <Select
        size="xs"
        aria-label={`${fn.attribute} depends on`}
        allowDeselect={false}
        searchable
        data={mode.channels.flatMap((c, k) =>
          k === place
            ? []
            : [
                {
                  value: String(k),
                  label: `${slotsText(layout[k]!.map((s) => s + 1))} ${attributeInfo(c.functions[0]!.attribute).label}`,
                },
              ],
        )}
        value={String(master.channel)}
        onChange={(v) => v !== null && put(Number(v))}
      />
      <span className="muted">stands from</span>
      {(["from", "to"] as const).map((end) => (
        <DraftNumber
          key={end}
          w={74}
          hideControls
          max={most(master.channel)}
          aria-label={`${fn.attribute} depends on it ${end}`}
          value={master[end]}
          onSet={(v) => onChange({ ...fn, master: { ...master, [end]: v } })}
        />
      ))}
      <ActionIcon
        variant="subtle"
        color="gray"
        size={24}
        aria-label={`${fn.attribute} depends on nothing`}
        onClick={() => {
          const { master: _, ...free } = fn;
          onChange(free);
        }}
      >
        <IconX size={14} />
      </ActionIcon>
    </div>
  );
}
