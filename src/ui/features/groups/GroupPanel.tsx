"use client";

import { ActionIcon, Menu } from "@mantine/core";
import { IconPlus } from "@tabler/icons-react";
import { useDeferredValue, useState, type MouseEvent } from "react";
import { members, typeGroups } from "@/core/select/expression";
import { orderGroups, recordGroup } from "@/core/select/groupIntents";
import { select } from "@/core/select/intents";
import type { Item } from "@/core/show/ids";
import { itemsText } from "@/core/show/words/itemsText";
import { groupsByNumber, type World } from "@/core/show/world";
import { useReorder } from "@/ui/base/gestures/useReorder";
import { useSession, useShow } from "@/ui/show/useSession";
import { GroupRow } from "./GroupRow";
import classes from "./Groups.module.css";
import { plural } from "@/core/units/plural";

/** A name to begin with: what the selected fixtures are, and their numbers. */
function offeredName(world: World): string | undefined {
  const { show, hands } = world;
  const models = new Set(
    hands.selection.map((i) => show.types[show.fixtures[i.split(".")[0]!]?.type ?? ""]?.model ?? ""),
  );
  return models.size === 1 ? `${[...models][0]!} ${itemsText(world, hands.selection)}`.slice(0, 60) : undefined;
}

/** Groups: press selects, shift adds or takes away; partly selected ones show it. Below them one for each type, which keeps itself up to date. */
export function GroupPanel() {
  const session = useSession();
  const world = useShow((s) => s.world);
  const { show, hands } = world;
  const groups = groupsByNumber(show);
  const types = typeGroups(useDeferredValue(show));
  const chosen = new Set(hands.selection);
  const [made, setMade] = useState<string>();
  const record = (of: readonly Item[]) => {
    const name = offeredName({ ...world, hands: { ...hands, selection: [...of] } });
    const number = (groups.at(-1)?.number ?? 0) + 1;
    if (session.act([recordGroup.of({ number, members: [...of], ...(name ? { name } : {}) })])) return;
    setMade(groupsByNumber(session.store.getState().world.show).find((g) => g.number === number)?.id);
  };
  const press = (own: readonly Item[], event: MouseEvent) => {
    const all = own.every((m) => chosen.has(m));
    const add = event.shiftKey || event.ctrlKey || event.metaKey;
    const now = hands.selection;
    const items = add
      ? all
        ? now.filter((i) => !own.includes(i))
        : [...now, ...own.filter((m) => !chosen.has(m))]
      : all && own.length === now.length
        ? []
        : [...own];
    session.act([select.of({ items })]);
  };
  const reorder = useReorder((dragged, onto) => {
    const rest = groups.map((g) => g.id).filter((id) => id !== dragged);
    const to = groups.findIndex((g) => g.id === onto);
    session.act([orderGroups.of({ groups: [...rest.slice(0, to), dragged, ...rest.slice(to)] })]);
  });
  const state = (own: readonly Item[]) => {
    const count = own.filter((m) => chosen.has(m)).length;
    return count === 0 ? "none" : count === own.length ? "all" : `${count}/${own.length}`;
  };

  return (
    <section aria-label="Groups">
      <header className={classes.head}>
        <h2>Groups</h2>
        <Menu position="bottom-end" disabled={!hands.stepping}>
          <Menu.Target>
            <ActionIcon
              variant="subtle"
              color="gray"
              aria-label="Record the selection as a new group"
              title="Record the selection as a new group"
              disabled={chosen.size === 0}
              onClick={() => hands.stepping ?? record(hands.selection)}
            >
              <IconPlus size={16} />
            </ActionIcon>
          </Menu.Target>
          <Menu.Dropdown>
            <Menu.Item onClick={() => record(hands.selection)}>
              This step: {plural(hands.selection.length, "fixture")}
            </Menu.Item>
            {hands.stepping && (
              <Menu.Item onClick={() => record(hands.stepping!.whole)}>
                The whole: {plural(hands.stepping.whole.length, "fixture")}
              </Menu.Item>
            )}
          </Menu.Dropdown>
        </Menu>
      </header>
      {groups.length === 0 && (
        <p className={classes.hint}>
          No groups yet. Select some fixtures and press +, or type: record group 1 &quot;Spots&quot;
        </p>
      )}
      <ul className={classes.groups}>
        {groups.map((group) => {
          const own = members(world, group);
          return (
            <GroupRow
              key={group.id}
              group={group}
              own={own}
              state={state(own)}
              onPress={(e) => press(own, e)}
              fresh={group.id === made}
              reorder={reorder(group.id)}
            />
          );
        })}
      </ul>
      {types.length > 1 && (
        <>
          <h3 className={classes.types}>By type, kept up to date</h3>
          <ul className={classes.groups}>
            {types.map((t) => (
              <li
                key={t.type}
                className={classes.group}
                data-state={state(t.members).includes("/") ? "part" : state(t.members)}
              >
                <button type="button" className={classes["group-name"]} onClick={(e) => press(t.members, e)}>
                  <span aria-hidden>↻</span>
                  <span className={classes.clip}>{t.name}</span>
                  <span className="num">{state(t.members).includes("/") ? state(t.members) : t.members.length}</span>
                </button>
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}
