"use client";

import { Button, Group, List, Modal, NumberInput, Select, Stack, Tabs, Text, TextInput } from "@mantine/core";
import { IconCopy, IconPlus, IconTrash } from "@tabler/icons-react";
import { useState } from "react";
import { LIBRARY } from "@/core/fixture/library/library";
import { KINDS, type FixtureType, type Mode, type Physical } from "@/core/fixture/type";
import { draftProblem, idFor, newMode, newType } from "@/core/rig/typeDraft";
import { putType, typeChanges } from "@/core/rig/typeIntent";
import { useSession, useShow } from "@/ui/show/useSession";
import { ChannelEditor } from "./ChannelEditor";
import { ChannelRows } from "./ChannelRows";
import { TryUnit } from "./TryUnit";
import { DraftNumber } from "./DraftNumber";
import classes from "./Builder.module.css";

/** A fixture type made or changed by hand. @param start the type it begins from; "new" for an empty one. */
export function TypeBuilder({ start, onClose }: { start: FixtureType | "new" | null; onClose(): void }) {
  return (
    <Modal
      opened={start !== null}
      onClose={onClose}
      title={start === "new" ? "A new fixture type" : "Change a fixture type"}
      size="95%"
      centered
    >
      {start && <Builder start={start === "new" ? newType() : start} fresh={start === "new"} onClose={onClose} />}
    </Modal>
  );
}

const NUMBERS = [
  ["beamAngle", "Beam, °"],
  ["lumens", "Lumens"],
  ["watts", "Watts"],
  ["kilograms", "Kilograms"],
] as const;

function Builder({ start, fresh, onClose }: { start: FixtureType; fresh: boolean; onClose(): void }) {
  const session = useSession();
  const show = useShow((s) => s.world.show);
  const shipped = LIBRARY.some((t) => t.id === start.id) && !show.types[start.id];
  // A type that ships stays as it is: changed, it is one of the show's own.
  const own = fresh || shipped;
  const [type, setType] = useState<FixtureType>(() => {
    const { file: _, ...rest } = structuredClone(start);
    return rest;
  });
  const [at, setAt] = useState(0);
  const [channel, setChannel] = useState(0);
  const mode = type.modes[Math.min(at, type.modes.length - 1)]!;
  const made: FixtureType = own ? { ...type, id: idFor(show, type) } : type;
  const problem = draftProblem(made);
  const changes = own || problem ? [] : typeChanges(show, made);
  const setMode = (next: Mode) => setType({ ...type, modes: type.modes.map((m, k) => (k === at ? next : m)) });
  const addMode = (next: Mode) => {
    const names = new Set(type.modes.map((m) => m.name));
    let { name } = next;
    for (let k = 2; names.has(name); k++) name = `${next.name} ${k}`;
    setType({ ...type, modes: [...type.modes, { ...structuredClone(next), name }] });
    setAt(type.modes.length);
    setChannel(0);
  };
  const setPhysical = (name: keyof Physical, value: number | string) => {
    const { [name]: _, ...rest } = type.physical ?? {};
    setType({ ...type, physical: value === "" ? rest : { ...rest, [name]: Number(value) } });
  };
  const save = () => {
    if (session.act([putType.of({ type: made })])) return;
    session.tell(`${made.maker} ${made.model} is in the library of this show`);
    onClose();
  };
  return (
    <Stack gap="sm">
      <Group align="end" gap="xs">
        <TextInput
          size="xs"
          label="Maker"
          value={type.maker}
          onChange={(e) => setType({ ...type, maker: e.currentTarget.value })}
          data-autofocus
        />
        <TextInput
          size="xs"
          label="Model"
          value={type.model}
          onChange={(e) => setType({ ...type, model: e.currentTarget.value })}
        />
        <Select
          size="xs"
          w={130}
          label="Kind"
          data={[...KINDS]}
          value={type.kind}
          onChange={(v) => setType({ ...type, kind: v ?? type.kind })}
          allowDeselect={false}
        />
        {NUMBERS.map(([name, label]) => (
          <NumberInput
            key={name}
            size="xs"
            w={92}
            label={label}
            min={0}
            hideControls
            value={type.physical?.[name] ?? ""}
            onChange={(v) => setPhysical(name, v)}
          />
        ))}
      </Group>
      <Group justify="space-between" align="end">
        <Tabs value={String(at)} onChange={(v) => (setAt(Number(v)), setChannel(0))}>
          <Tabs.List>
            {type.modes.map((m, k) => (
              <Tabs.Tab key={k} value={String(k)}>
                {m.name || "without a name"}
              </Tabs.Tab>
            ))}
          </Tabs.List>
        </Tabs>
        <Group gap={6} align="end">
          <TextInput
            size="xs"
            w={140}
            label="Name of the mode"
            value={mode.name}
            onChange={(e) => setMode({ ...mode, name: e.currentTarget.value })}
          />
          <DraftNumber
            w={70}
            label="Cells"
            max={200}
            value={mode.cells}
            onSet={(cells) => setMode({ ...mode, cells })}
          />
          <Button
            size="compact-sm"
            variant="default"
            leftSection={<IconPlus size={14} />}
            onClick={() => addMode(newMode("mode"))}
          >
            Mode
          </Button>
          <Button
            size="compact-sm"
            variant="default"
            leftSection={<IconCopy size={14} />}
            onClick={() => addMode(mode)}
          >
            Duplicate
          </Button>
          <Button
            size="compact-sm"
            variant="default"
            leftSection={<IconTrash size={14} />}
            disabled={type.modes.length < 2}
            onClick={() => (setType({ ...type, modes: type.modes.filter((_, k) => k !== at) }), setAt(0))}
          >
            Remove
          </Button>
        </Group>
      </Group>
      <div className={classes.builder}>
        <ChannelRows
          mode={mode}
          chosen={channel}
          onChoose={setChannel}
          onChange={(channels) => setMode({ ...mode, channels })}
        />
        <ChannelEditor
          key={`${at} ${channel}`}
          type={type}
          mode={mode}
          place={Math.min(channel, mode.channels.length - 1)}
          onChange={(next) => setMode({ ...mode, channels: mode.channels.map((c, k) => (k === channel ? next : c)) })}
          onPicture={(name, png) => setType((t) => ({ ...t, pictures: { ...t.pictures, [name]: png } }))}
        />
        <TryUnit mode={mode} />
      </div>
      {problem && (
        <Text c="var(--danger)" size="sm" role="alert">
          It cannot be used yet: {problem}
        </Text>
      )}
      {changes.length > 0 && (
        <List size="sm" c="var(--caution)" data-testid="type-changes">
          {changes.map((c) => (
            <List.Item key={c}>{c}</List.Item>
          ))}
        </List>
      )}
      <Group justify="flex-end">
        <Text size="sm" c="dimmed" mr="auto">
          {own
            ? "It becomes a type of this show's own."
            : "Fixtures of this type change with it. One undo takes it back."}
        </Text>
        <Button variant="default" onClick={onClose}>
          Cancel
        </Button>
        <Button onClick={save} disabled={problem !== undefined}>
          {own ? "Make the type" : "Change the type"}
        </Button>
      </Group>
    </Stack>
  );
}
