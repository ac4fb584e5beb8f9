"use client";

import { ActionIcon, Button, Group, Menu, Select } from "@mantine/core";
import { IconArrowsShuffle, IconArrowsSort, IconChevronLeft, IconChevronRight, IconMap } from "@tabler/icons-react";
import { itemText } from "@/core/show/model";
import { spreadItems } from "@/core/select/place";
import { closedPlace } from "@/core/select/spread";
import { select, setSpread, step as walk } from "@/core/select/intents";
import { orderedBy, stepsFor } from "@/core/select/order";
import type { Item } from "@/core/show/ids";
import { shuffled } from "@/core/units/random";
import type { Spread } from "@/core/show/hands";
import { EditableText } from "../parts/EditableText";
import { NumberField } from "../parts/NumberField";
import { useSession, useShow } from "../useSession";
import classes from "./Build.module.css";

const MOST_BARS = 64;
const PLACES: { value: Spread["by"]; label: string }[] = [
  { value: "order", label: "over the selection order" },
  { value: "left", label: "over the plan, left to right" },
  { value: "front", label: "over the plan, front to back" },
  { value: "centre", label: "over the plan, from the centre" },
  { value: "around", label: "over the plan, around" },
  { value: "steps", label: "by steps given by hand" },
];

/** The order of the selection and how values spread over it, previewed while its settings move. */
export function OrderPanel() {
  const session = useSession();
  const { show, hands } = useShow((s) => s.world);
  const whole = hands.stepping?.whole ?? hands.selection;
  const { step, count } = spreadItems(show, whole, hands.spread);
  const order = (items: readonly Item[]) => session.act([select.of({ items: [...items] })]);
  const go = (to: "next" | "previous" | "whole") => session.act([walk.of({ to })]);
  const give = (given: number[]) => set({ by: "steps", steps: stepsFor(session.store.getState().world, given) });
  const set = (change: Partial<Spread>) =>
    session.act([setSpread.of({ spread: { ...hands.spread, ...change } })], "spread");
  if (whole.length === 0) return null;
  return (
    <>
      <section aria-label="Order">
        <header className={classes.head}>
          <h2>Order</h2>
          <Group gap={2}>
            <ActionIcon
              variant="subtle"
              color="gray"
              title="Reverse"
              aria-label="Reverse the order"
              onClick={() => order([...hands.selection].reverse())}
            >
              <IconArrowsSort size={16} />
            </ActionIcon>
            <ActionIcon
              variant="subtle"
              color="gray"
              title="Shuffle"
              aria-label="Shuffle the order"
              onClick={() => order(shuffled(hands.selection, show.seed))}
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
                <Menu.Item onClick={() => order(orderedBy(show, hands.selection, "left"))}>Left to right</Menu.Item>
                <Menu.Item onClick={() => order(orderedBy(show, hands.selection, "front"))}>Front to back</Menu.Item>
                <Menu.Item onClick={() => order(orderedBy(show, hands.selection, "centre"))}>
                  Out from the centre
                </Menu.Item>
              </Menu.Dropdown>
            </Menu>
          </Group>
        </header>
        <p className={`${classes.order} num`} data-testid="order">
          {hands.selection
            .slice(0, 40)
            .map((i) => itemText(show, i))
            .join(" ")}
          {hands.selection.length > 40 ? " …" : ""}
        </p>
      </section>
      <section aria-label="Spread">
        <header className={classes.head}>
          <h2>Spread</h2>
          <Group gap={2}>
            <ActionIcon
              variant="subtle"
              color="gray"
              aria-label="Previous step"
              title="Previous step"
              onClick={() => go("previous")}
            >
              <IconChevronLeft size={16} />
            </ActionIcon>
            <Button
              size="compact-xs"
              variant="subtle"
              color="gray"
              onClick={() => go("whole")}
              disabled={!hands.stepping}
            >
              {hands.stepping ? `${hands.stepping.step + 1} of ${count}` : "whole"}
            </Button>
            <ActionIcon
              variant="subtle"
              color="gray"
              aria-label="Next step"
              title="Next step"
              onClick={() => go("next")}
            >
              <IconChevronRight size={16} />
            </ActionIcon>
          </Group>
        </header>
        <div className={classes.bars} aria-hidden>
          {step.slice(0, MOST_BARS).map((g, k) => (
            <span
              key={k}
              data-on={!hands.stepping || hands.stepping.step === g}
              style={{ height: `${6 + 94 * closedPlace(g, count)}%` }}
            />
          ))}
        </div>
        <Group gap={6} wrap="nowrap" mt={6}>
          {(["bunch", "mirror", "repeat"] as const).map((name) => (
            <NumberField
              key={name}
              size="xs"
              label={name}
              aria-label={name}
              value={hands.spread[name]}
              min={name === "repeat" ? 0 : 1}
              max={1000}
              onSet={(v) => void set({ [name]: v })}
            />
          ))}
        </Group>
        <Select
          size="xs"
          mt={6}
          aria-label="Spread over"
          data={PLACES}
          value={hands.spread.by}
          allowDeselect={false}
          comboboxProps={{ position: "top" }}
          onChange={(v) => v && (v === "steps" ? give(whole.map((_, k) => k + 1)) : set({ by: v }))}
        />
        {hands.spread.by === "steps" && (
          <EditableText
            mono
            label="Steps, one for each in order"
            value={whole.map((i) => hands.spread.steps?.[i] ?? "–").join(" ")}
            onSave={(text) => {
              const given = session.read("steps", text);
              if (given) give(given);
            }}
          />
        )}
      </section>
    </>
  );
}
