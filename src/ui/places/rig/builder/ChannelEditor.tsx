"use client";

import { ActionIcon, Button, Group, NumberInput, SegmentedControl, Select, Stack, Text } from "@mantine/core";
import { IconPlus, IconTrash } from "@tabler/icons-react";
import { attributeInfo, attributesKnown, FAMILIES, UNITS, type Unit } from "@/core/fixture/attribute";
import type { Channel, ChannelFunction, FixtureType, Mode } from "@/core/fixture/type";
import { inBytes, needsInfo, newFunction } from "@/core/rig/typeDraft";
import { AttributeField } from "./AttributeField";
import { MasterRow } from "./MasterRow";
import { MeasuredRow } from "./MeasuredRow";
import { SlotTable } from "./SlotTable";
import { DraftNumber } from "./DraftNumber";
import classes from "./Builder.module.css";

interface Props {
  type: FixtureType;
  mode: Mode;
  place: number;
  onChange(channel: Channel): void;
  onPicture(name: string, png: string): void;
}

/** One channel: how many bytes, of which cell, its functions with their ranges, and the slots of each. */
export function ChannelEditor({ type, mode, place, onChange, onPicture }: Props) {
  const channel = mode.channels[place]!;
  const most = 256 ** channel.bytes - 1;
  const setFn = (k: number, fn: ChannelFunction) =>
    onChange({ ...channel, functions: channel.functions.map((f, i) => (i === k ? fn : f)) });
  const first = channel.functions[0]!;
  const add = () => {
    // The last one makes room for it.
    const last = channel.functions.at(-1)!;
    const cut = Math.floor((last.dmxFrom + last.dmxTo + 1) / 2);
    const used = new Set(channel.functions.map((f) => f.attribute));
    const name =
      attributesKnown().find((a) => !used.has(a.name) && a.family === attributeInfo(first.attribute).family)?.name ??
      "Control9";
    const shorter = {
      ...last,
      dmxTo: cut - 1,
      ...(last.steps ? { steps: last.steps.filter((s) => s.dmxTo < cut) } : {}),
    };
    onChange({
      ...channel,
      functions: [...channel.functions.slice(0, -1), shorter, newFunction(name, cut, last.dmxTo)],
    });
  };
  return (
    <Stack gap="xs" className={classes.editor}>
      <Group gap="xs" align="end">
        <SegmentedControl
          size="xs"
          aria-label="Bits"
          data={[1, 2, 3, 4].map((b) => ({ value: String(b), label: `${b * 8} bit` }))}
          value={String(channel.bytes)}
          onChange={(v) => onChange(inBytes(channel, Number(v) as Channel["bytes"]))}
        />
        <DraftNumber
          w={80}
          label="Cell (0: none)"
          max={mode.cells}
          value={channel.cell}
          onSet={(cell) => onChange({ ...channel, cell })}
        />
        <NumberInput
          size="xs"
          w={90}
          label="Default"
          hideControls
          placeholder="usual"
          value={channel.default ?? ""}
          onChange={(v) => {
            const { default: _, ...rest } = channel;
            onChange(v === "" ? rest : { ...rest, default: Number(v) });
          }}
        />
      </Group>
      {channel.functions.map((fn, k) => (
        <div key={k} className={classes.fn}>
          <Group gap="xs" align="end" wrap="nowrap" className={classes.ranges}>
            <AttributeField
              label={k === 0 ? "Attribute" : undefined}
              attribute={fn.attribute}
              onChange={(v) => setFn(k, { ...withAttribute(fn, v) })}
            />
            {(["dmxFrom", "dmxTo"] as const).map((end) => (
              <DraftNumber
                key={end}
                w={92}
                hideControls
                label={k === 0 ? (end === "dmxFrom" ? "DMX from" : "to") : undefined}
                aria-label={end === "dmxFrom" ? "DMX from" : "DMX to"}
                max={most}
                value={fn[end]}
                onSet={(v) => setFn(k, { ...fn, [end]: v })}
              />
            ))}
            {(["from", "to"] as const).map((end) => (
              <DraftNumber
                key={end}
                w={84}
                isWhole={false}
                hideControls
                disabled={fn.steps !== undefined}
                label={k === 0 ? (end === "from" ? `Means, ${unitOf(fn)}` : "to") : undefined}
                aria-label={end === "from" ? "Means from" : "Means to"}
                value={fn[end]}
                onSet={(v) => setFn(k, { ...fn, [end]: v })}
              />
            ))}
            <ActionIcon
              variant="subtle"
              color="gray"
              aria-label={`Remove ${fn.attribute}`}
              disabled={channel.functions.length < 2}
              onClick={() => onChange({ ...channel, functions: channel.functions.filter((_, i) => i !== k) })}
            >
              <IconTrash size={14} />
            </ActionIcon>
          </Group>
          {needsInfo(fn.attribute) && (
            <Group gap="xs" mt={4}>
              <Text size="xs" c="dimmed">
                This maker's own attribute:
              </Text>
              <Select
                size="xs"
                w={120}
                aria-label="Family"
                data={[...FAMILIES]}
                value={fn.info?.family ?? "Control"}
                onChange={(v) =>
                  setFn(k, {
                    ...fn,
                    info: {
                      label: fn.info?.label ?? fn.attribute,
                      unit: fn.info?.unit ?? "",
                      family: v ?? "Control",
                    },
                  })
                }
                allowDeselect={false}
              />
              <Select
                size="xs"
                w={90}
                aria-label="Unit"
                data={UNITS.map((u) => ({ value: u || "none", label: u || "none" }))}
                value={fn.info?.unit || "none"}
                onChange={(v) =>
                  setFn(k, {
                    ...fn,
                    info: {
                      label: fn.info?.label ?? fn.attribute,
                      family: fn.info?.family ?? "Control",
                      unit: (v === "none" ? "" : v) as Unit,
                    },
                  })
                }
                allowDeselect={false}
              />
            </Group>
          )}
          <MeasuredRow fn={fn} onChange={(next) => setFn(k, next)} />
          <MasterRow mode={mode} place={place} fn={fn} onChange={(next) => setFn(k, next)} />
          <SlotTable type={type} fn={fn} most={most} onChange={(next) => setFn(k, next)} onPicture={onPicture} />
        </div>
      ))}
      <Button
        size="compact-sm"
        variant="subtle"
        w="fit-content"
        leftSection={<IconPlus size={14} />}
        onClick={add}
        disabled={channel.functions.at(-1)!.dmxFrom >= channel.functions.at(-1)!.dmxTo}
      >
        Function on the same channel
      </Button>
    </Stack>
  );
}

const unitOf = (fn: ChannelFunction): string => fn.info?.unit ?? attributeInfo(fn.attribute).unit;

/** Another attribute over the same DMX values, with its own usual range. */
function withAttribute(fn: ChannelFunction, attribute: string): ChannelFunction {
  const name = attribute.replace(/[\s.]+/g, "_").slice(0, 60) || fn.attribute;
  if (name === fn.attribute) return fn;
  const made = newFunction(name, fn.dmxFrom, fn.dmxTo);
  return { ...made, ...(fn.master ? { master: fn.master } : {}) };
}
