"use client";

import { ActionIcon, Group, Menu } from "@mantine/core";
import { IconArrowsShuffle, IconArrowsSort, IconMap } from "@tabler/icons-react";
import { useState } from "react";
import { order } from "@/core/select/intents";
import type { Item } from "@/core/show/ids";
import { itemText } from "@/core/show/model";
import { setStageTools } from "@/ui/stage/stageTools";
import { useSession, useShow } from "@/ui/show/useSession";
import classes from "./Groups.module.css";

const MOST = 60;
const WAYS = [
  { by: "left", label: "Left to right" },
  { by: "front", label: "Front to back" },
  { by: "centre", label: "Out from the centre" },
  { by: "around", label: "Around the centre" },
] as const;

/** The order of the selection: seen, turned round, shuffled, sorted by the plan, and dragged by hand. */
export function OrderPanel() {
  const session = useSession();
  const show = useShow((s) => s.world.show);
  const selection = useShow((s) => s.world.hands.selection);
  const stepping = useShow((s) => s.world.hands.stepping);
  const [dragged, setDragged] = useState<{ item: Item; over: number } | null>(null);
  const whole = stepping?.whole ?? selection;
  if (whole.length === 0) return null;
  const put = (items: readonly Item[]) => session.act([order.of({ how: "hand", items: [...items] })]);
  const now = dragged ? moved(whole, dragged.item, dragged.over) : whole;
  const lit = new Set(selection);
  return (
    <section aria-label="Order">
      <header className={classes.head}>
        <h2>Order</h2>
        <Group gap={2}>
          <ActionIcon
            variant="subtle"
            color="gray"
            title="Reverse"
            aria-label="Reverse the order"
            onClick={() => session.act([order.of({ how: "reverse" })])}
          >
            <IconArrowsSort size={16} />
          </ActionIcon>
          <ActionIcon
            variant="subtle"
            color="gray"
            title="Shuffle"
            aria-label="Shuffle the order"
            onClick={() => session.act([order.of({ how: "shuffle" })])}
          >
            <IconArrowsShuffle size={16} />
          </ActionIcon>
          <Menu>
            <Menu.Target>
              <ActionIcon
                variant="subtle"
                color="gray"
                title="By place on the plan"
                aria-label="Order by place on the plan"
              >
                <IconMap size={16} />
              </ActionIcon>
            </Menu.Target>
            <Menu.Dropdown>
              {WAYS.map(({ by, label }) => (
                <Menu.Item key={by} onClick={() => session.act([order.of({ how: by })])}>
                  {label}
                </Menu.Item>
              ))}
              <Menu.Divider />
              {(["centre", "around"] as const).map((ordering) => (
                <Menu.Item key={ordering} onClick={() => setStageTools({ ordering, aiming: false, trial: null })}>
                  {ordering === "centre" ? "Out from a point …" : "Around a point …"}
                </Menu.Item>
              ))}
            </Menu.Dropdown>
          </Menu>
        </Group>
      </header>
      <ol
        className={`${classes.order} num`}
        data-testid="order"
        onPointerMove={(e) => {
          const over = (document.elementFromPoint(e.clientX, e.clientY) as HTMLElement | null)?.closest<HTMLElement>(
            "[data-place]",
          );
          if (dragged && over) setDragged({ ...dragged, over: Number(over.dataset.place) });
        }}
        onPointerUp={() => {
          if (dragged && now.join() !== whole.join()) put(now);
          setDragged(null);
        }}
        onPointerCancel={() => setDragged(null)}
      >
        {now.slice(0, MOST).map((i, k) => (
          <li
            key={i}
            data-place={k}
            data-lit={lit.has(i)}
            data-dragged={dragged?.item === i}
            title="Drag to another place in the order; Alt and arrows move it"
            tabIndex={0}
            onPointerDown={(e) => e.button === 0 && setDragged({ item: i, over: k })}
            onKeyDown={(e) => {
              const by = e.altKey ? ({ ArrowLeft: -1, ArrowRight: 1 }[e.key] ?? 0) : 0;
              if (by === 0) return;
              e.preventDefault();
              put(moved(whole, i, Math.min(whole.length - 1, Math.max(0, k + by))));
            }}
          >
            {k > 0 ? " " : ""}
            {itemText(show, i)}
          </li>
        ))}
        {now.length > MOST && <li aria-hidden>…</li>}
      </ol>
    </section>
  );
}

/** Items with one of them at another place. */
function moved(items: readonly Item[], item: Item, place: number): Item[] {
  const rest = items.filter((i) => i !== item);
  return [...rest.slice(0, place), item, ...rest.slice(place)];
}
