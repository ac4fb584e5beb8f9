"use client";

import { ActionIcon, Menu } from "@mantine/core";
import { IconDots, IconPlus } from "@tabler/icons-react";
import { useState, type MouseEvent } from "react";
import { members } from "@/core/select/expression";
import { deleteGroup, nameGroup, recordGroup } from "@/core/select/groupIntents";
import { select } from "@/core/select/intents";
import type { Group } from "@/core/show/schema";
import { groupsByNumber } from "@/core/show/world";
import { EditableText } from "../parts/EditableText";
import { useSession, useShow } from "../useSession";
import classes from "./Build.module.css";

/** Groups: press selects, shift adds or takes away; partly selected ones show it. */
export function GroupPanel() {
  const session = useSession();
  const world = useShow((s) => s.world);
  const [renaming, setRenaming] = useState<string | null>(null);
  const groups = groupsByNumber(world.show);
  const chosen = new Set(world.hands.selection);
  const record = () =>
    session.act([recordGroup.of({ number: (groups.at(-1)?.number ?? 0) + 1, members: world.hands.selection })]);

  const press = (group: Group, event: MouseEvent) => {
    const own = members(world, group);
    const all = own.every((m) => chosen.has(m));
    const add = event.shiftKey || event.ctrlKey || event.metaKey;
    const now = world.hands.selection;
    const items = add
      ? all
        ? now.filter((i) => !own.includes(i))
        : [...now, ...own.filter((m) => !chosen.has(m))]
      : all && own.length === now.length
        ? []
        : own;
    session.act([select.of({ items })], `group ${group.number}`);
  };

  return (
    <section aria-label="Groups">
      <header className={classes.head}>
        <h2>Groups</h2>
        <ActionIcon
          variant="subtle"
          color="gray"
          aria-label="Record the selection as a new group"
          title="Record the selection as a new group"
          disabled={chosen.size === 0}
          onClick={record}
        >
          <IconPlus size={16} />
        </ActionIcon>
      </header>
      {groups.length === 0 && (
        <p className={classes.hint}>
          No groups yet. Select some fixtures and press +, or type: record group 1 &quot;Spots&quot;
        </p>
      )}
      <ul className={classes.groups}>
        {groups.map((group) => {
          const own = members(world, group);
          const count = own.filter((m) => chosen.has(m)).length;
          const state = count === 0 ? "none" : count === own.length ? "all" : "part";
          return (
            <li key={group.id} className={classes.group} data-state={state}>
              {renaming === group.id ? (
                <div className={classes["group-name"]}>
                  <EditableText
                    value={group.name}
                    label="Group name"
                    onSave={(text) => (session.act([nameGroup.of({ group: group.id, name: text })]), setRenaming(null))}
                  />
                </div>
              ) : (
                <button
                  type="button"
                  className={classes["group-name"]}
                  aria-pressed={state === "all" ? true : state === "part" ? "mixed" : false}
                  onClick={(e) => press(group, e)}
                  onDoubleClick={() => setRenaming(group.id)}
                >
                  <span className="num">{group.number}</span>
                  <span className={classes.clip}>{group.name}</span>
                  <span className="num">{state === "part" ? `${count}/${own.length}` : own.length}</span>
                </button>
              )}
              <Menu position="right-start">
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
                  <Menu.Item onClick={() => setRenaming(group.id)}>Rename</Menu.Item>
                  <Menu.Item
                    disabled={chosen.size === 0}
                    onClick={() =>
                      session.act([recordGroup.of({ number: group.number, members: world.hands.selection })])
                    }
                  >
                    Record the selection here
                  </Menu.Item>
                  <Menu.Item color="red" onClick={() => session.act([deleteGroup.of({ group: group.id })])}>
                    Delete (can be undone)
                  </Menu.Item>
                </Menu.Dropdown>
              </Menu>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
