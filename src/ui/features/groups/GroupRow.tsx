"use client";

import { ActionIcon, ColorSwatch, Group as Line, Menu } from "@mantine/core";
import { IconDots } from "@tabler/icons-react";
import { useState, type MouseEvent, type CSSProperties } from "react";
import { inRowsOf, straight } from "@/core/select/arrangement";
import { changeGroup, deleteGroup, duplicateGroup, nameGroup, setGroup } from "@/core/select/groupIntents";
import { onStage } from "@/core/select/place";
import type { Item } from "@/core/show/ids";
import { GROUP_SIGNS, type Group } from "@/core/show/schema";
import { groupsByNumber } from "@/core/show/world";
import { EditableText } from "@/ui/base/parts/EditableText";
import { Levels, Under, useFirstLevel } from "@/ui/base/parts/Levels";
import type { useReorder } from "@/ui/base/gestures/useReorder";
import { useSession, useShow } from "@/ui/show/useSession";
import { ArrangementDialog } from "./ArrangementDialog";
import { GroupUses } from "./GroupUses";
import classes from "./Groups.module.css";

const COLOURS = ["#7ee8c4", "#ffb07a", "#9db2ff", "#ffd27d", "#ff9fb4", "#c3b4ff", "#9be8ff", "#c9e06a"];
const SIGNS: Record<(typeof GROUP_SIGNS)[number], string> = {
  dot: "●",
  square: "■",
  diamond: "◆",
  bar: "▬",
  star: "★",
  wave: "∿",
  sail: "◢",
  moon: "☾",
};

interface Props {
  group: Group;
  own: readonly Item[];
  /** "none", "all", or how many of how many are selected. */
  state: string;
  onPress(event: MouseEvent): void;
  /** It was just recorded: its name is offered. */
  fresh: boolean;
  /** What makes it one to drag. */
  reorder: ReturnType<ReturnType<typeof useReorder>>;
}

/** One group: press to select, drag to put it elsewhere, and what else can be done with it. */
export function GroupRow({ group, own, state, onPress, fresh, reorder }: Props) {
  const session = useSession();
  const [renaming, setRenaming] = useState(fresh);
  const [laying, setLaying] = useState(false);
  const [menu, levels] = useFirstLevel();
  const [asking, setAsking] = useState(false);
  const selection = useShow((s) => s.world.hands.selection);
  const show = useShow((s) => s.world.show);
  const part = state.includes("/");
  const { id } = group;
  const set = (change: Omit<Parameters<typeof setGroup.of>[0], "group">) =>
    session.act([setGroup.of({ group: id, ...change })]);
  const arrange = (how: "stage" | "straight" | "rows" | "off") => {
    const columns = Math.max(1, Math.round(Math.sqrt(group.members.length)));
    const made = {
      stage: onStage(show, group.members),
      straight: straight(group.members),
      rows: inRowsOf(group.members, columns),
      off: null,
    };
    set({ arrangement: made[how] });
  };
  const free = (groupsByNumber(show).at(-1)?.number ?? 0) + 1;
  return (
    <li className={classes.group} data-state={part ? "part" : state} {...reorder}>
      {renaming ? (
        <div className={classes["group-name"]}>
          <EditableText
            value={group.name}
            label="Group name"
            onSave={(name) => void session.act([nameGroup.of({ group: id, name })])}
            onClosed={() => setRenaming(false)}
          />
        </div>
      ) : (
        <button
          type="button"
          className={classes["group-name"]}
          aria-pressed={state === "all" ? true : part ? "mixed" : false}
          title={`${group.name}: press to select, Shift adds or takes away, drag to another place${group.arrangement ? "; has its own arrangement" : ""}`}
          onClick={onPress}
          onDoubleClick={() => setRenaming(true)}
        >
          <span className="num" style={group.colour ? ({ "--own": group.colour } as CSSProperties) : undefined}>
            {group.sign ? `${SIGNS[group.sign]} ` : ""}
            {group.number}
          </span>
          <span className={classes.clip}>
            {group.name}
            {group.arrangement ? " ⊞" : ""}
          </span>
          <span className="num">{part ? state : own.length}</span>
        </button>
      )}
      {asking && <GroupUses group={group} onClose={() => setAsking(false)} />}
      {laying && <ArrangementDialog group={group} onClose={() => setLaying(false)} />}
      <Menu {...menu} position="right-start" shadow="md">
        <Menu.Target>
          <ActionIcon
            className={classes.more}
            variant="subtle"
            color="gray"
            size="sm"
            aria-label={`More for group ${group.number}`}
          >
            <IconDots size={14} />
          </ActionIcon>
        </Menu.Target>
        <Menu.Dropdown>
          <Levels {...levels}>
            <Menu.Item onClick={() => setRenaming(true)}>Rename</Menu.Item>
            <Menu.Item
              disabled={selection.length === 0}
              onClick={() => session.act([changeGroup.of({ group: id, items: selection, out: false })])}
            >
              Add the selection
            </Menu.Item>
            <Menu.Item
              disabled={selection.length === 0}
              onClick={() => session.act([changeGroup.of({ group: id, items: selection, out: true })])}
            >
              Remove the selection
            </Menu.Item>
            <Menu.Item onClick={() => session.act([duplicateGroup.of({ group: id, as: free })])}>Duplicate</Menu.Item>
            <Menu.Item onClick={() => setAsking(true)}>Where it is used …</Menu.Item>
            <Under label="Spreads over places go by">
              <Menu.Item disabled={!group.arrangement} onClick={() => arrange("off")}>
                the stage
              </Menu.Item>
              <Menu.Item onClick={() => arrange("stage")}>its own plan, taken from the stage</Menu.Item>
              <Menu.Item onClick={() => arrange("straight")}>its own plan, turned straight</Menu.Item>
              <Menu.Item onClick={() => arrange("rows")}>its own plan, in rows</Menu.Item>
              <Menu.Item onClick={() => setLaying(true)}>its own plan, laid by hand …</Menu.Item>
            </Under>
            <Under label="Colour and sign">
              <Menu.Item component="div" closeMenuOnClick={false}>
                <Line gap={5}>
                  {COLOURS.map((colour) => (
                    <ColorSwatch
                      key={colour}
                      component="button"
                      type="button"
                      size={26}
                      color={colour}
                      aria-label={`Colour ${colour}`}
                      onClick={() => set({ colour: group.colour === colour ? null : colour })}
                    />
                  ))}
                </Line>
                <Line gap={4} mt={6}>
                  {GROUP_SIGNS.map((sign) => (
                    <button
                      key={sign}
                      type="button"
                      className={classes.sign}
                      aria-label={`Sign ${sign}`}
                      aria-pressed={group.sign === sign}
                      onClick={() => set({ sign: group.sign === sign ? null : sign })}
                    >
                      {SIGNS[sign]}
                    </button>
                  ))}
                </Line>
              </Menu.Item>
            </Under>
            <Menu.Divider />
            <Menu.Item color="red" onClick={() => session.act([deleteGroup.of({ group: id })])}>
              Delete (can be undone)
            </Menu.Item>
          </Levels>
        </Menu.Dropdown>
      </Menu>
    </li>
  );
}
