"use client";

import { ActionIcon, Button, Group, Modal, SegmentedControl, Table } from "@mantine/core";
import { IconCopy, IconPlayerPlayFilled, IconPlus, IconSquareRoundedX, IconTrash } from "@tabler/icons-react";
import { useState, type ReactNode } from "react";
import { recordCue } from "@/core/cue/intents/recordIntents";
import { setList } from "@/core/cue/intents/intents";
import { deleteList, duplicateList } from "@/core/cue/intents/listIntents";
import { arm } from "@/core/program/intents";
import type { CueList } from "@/core/show/schema";
import { cuesOf, listsByNumber } from "@/core/show/world";
import { plain } from "@/core/units/units";
import { EditableText } from "@/ui/base/parts/EditableText";
import { REMEMBERED } from "@/ui/base/preferences/registry";
import { useRemembered } from "@/ui/base/preferences/remembered";
import { useSession, useShow } from "@/ui/show/useSession";
import { kindText } from "./kindText";
import { ListOptions } from "./ListOptions";
import classes from "./Cues.module.css";

/** All lists with how they stand; chosen, run, made, copied and deleted from here, with a lane or without. */
export function ListIndex({
  list,
  onChoose,
  icon,
}: {
  list: CueList;
  onChoose(id: string): void;
  /** Opened by this instead of by the list's name. */
  icon?: ReactNode;
}) {
  const session = useSession();
  const [open, setOpen] = useState(false);
  const show = useShow((s) => s.world.show);
  const armed = useShow((s) => s.world.hands.armed);
  const runs = useShow((s) => s.playing.runs);
  const [order, setOrder] = useRemembered(REMEMBERED.listsOrder);
  const lists = listsByNumber(show);
  const free = (lists.at(-1)?.number ?? 0) + 1;
  const ordered = {
    number: () => lists,
    name: () => [...lists].sort((a, b) => a.name.localeCompare(b.name)),
    running: () => [...lists].sort((a, b) => Number(Boolean(runs[b.id]?.cue)) - Number(Boolean(runs[a.id]?.cue))),
  }[order];
  return (
    <>
      {icon ? (
        <ActionIcon variant="default" size={32} aria-label="All lists" title="All lists" onClick={() => setOpen(true)}>
          {icon}
        </ActionIcon>
      ) : (
        <Button variant="default" size="compact-md" onClick={() => setOpen(true)} title="All lists" data-testid="lists">
          <span className="num">{list.number}</span>&nbsp;{list.name}&nbsp;▾
        </Button>
      )}
      <Modal opened={open} onClose={() => setOpen(false)} title="Lists" size={860} centered>
        <Group gap="sm" mb={6}>
          <SegmentedControl
            size="xs"
            aria-label="Order of the lists"
            data={[
              { value: "number", label: "by number" },
              { value: "name", label: "by name" },
              { value: "running", label: "running first" },
            ]}
            value={order}
            onChange={(v) => setOrder(v)}
          />
          <Button
            size="compact-sm"
            variant="default"
            leftSection={<IconPlus size={14} />}
            onClick={() => session.act([recordCue.of({ list: free, cue: 1, empty: true })])}
          >
            New list
          </Button>
        </Group>
        <Table verticalSpacing={4} aria-label="All lists" highlightOnHover>
          <Table.Thead>
            <Table.Tr>
              <Table.Th>List</Table.Th>
              <Table.Th>Kind</Table.Th>
              <Table.Th>Level</Table.Th>
              <Table.Th>Current cue</Table.Th>
              <Table.Th aria-label="Actions" />
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {(open ? ordered() : []).map((l) => {
              const run = runs[l.id];
              const cue = run?.cue ? l.cues[run.cue] : undefined;
              return (
                <Table.Tr key={l.id} data-testid={`list-${l.number}`}>
                  <Table.Td>
                    <span className={classes.listName}>
                      <Button
                        variant={l.id === list.id ? "light" : "subtle"}
                        size="compact-xs"
                        onClick={() => (onChoose(l.id), setOpen(false))}
                        title="Show its cues"
                      >
                        {l.number}
                      </Button>
                      <EditableText
                        value={l.name}
                        label={`Name of list ${l.number}`}
                        onSave={(name) => session.act([setList.of({ list: l.id, change: { name } })])}
                      />
                    </span>
                  </Table.Td>
                  <Table.Td>{kindText(l)}</Table.Td>
                  <Table.Td className={`num ${classes.level}`}>{plain(run?.level ?? 100, 0)} %</Table.Td>
                  <Table.Td>
                    {cue ? `${plain(cue.number, 3)} ${cue.name}` : run?.cue ? "runs" : "released"}
                    {l.id === armed ? " · armed" : ""}
                  </Table.Td>
                  <Table.Td>
                    <span className={classes.listDeeds}>
                      {(l.kind === "list" || l.kind === "effect" || l.kind === "chase") && (
                        <>
                          <ActionIcon
                            variant="default"
                            aria-label={`Go list ${l.number}`}
                            title="Go"
                            onClick={() => void session.event({ kind: "go", list: l.id })}
                          >
                            <IconPlayerPlayFilled size={14} />
                          </ActionIcon>
                          <ActionIcon
                            variant="default"
                            aria-label={`Release list ${l.number}`}
                            title="Release"
                            onClick={() => void session.event({ kind: "release", list: l.id })}
                          >
                            <IconSquareRoundedX size={14} />
                          </ActionIcon>
                        </>
                      )}
                      <Button
                        size="compact-xs"
                        variant="default"
                        disabled={l.id === armed}
                        onClick={() => session.act([arm.of({ list: l.id })], "arm")}
                      >
                        Arm
                      </Button>
                      <ListOptions list={l} of={`list ${l.number}`} />
                      <ActionIcon
                        variant="default"
                        aria-label={`Duplicate list ${l.number}`}
                        title={`Duplicate as list ${free}`}
                        onClick={() => session.act([duplicateList.of({ list: l.id, as: free })])}
                      >
                        <IconCopy size={14} />
                      </ActionIcon>
                      <ActionIcon
                        variant="default"
                        aria-label={`Delete list ${l.number}`}
                        title={`Delete it and its ${cuesOf(l).length} cues; undo brings it back`}
                        onClick={() => session.act([deleteList.of({ list: l.id })])}
                      >
                        <IconTrash size={14} />
                      </ActionIcon>
                    </span>
                  </Table.Td>
                </Table.Tr>
              );
            })}
          </Table.Tbody>
        </Table>
      </Modal>
    </>
  );
}
