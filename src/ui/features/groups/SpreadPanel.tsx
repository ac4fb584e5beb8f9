"use client";

import { useMemo } from "react";
import { ActionIcon, Button, Group, Select } from "@mantine/core";
import { IconBulb, IconChevronLeft, IconChevronRight, IconPlayerPlay, IconPlayerStop } from "@tabler/icons-react";
import { useEffect } from "react";
import { setSpread, step as walk } from "@/core/select/intents";
import { stepsFor } from "@/core/select/order";
import { patternsFor } from "@/core/select/patterns";
import { spreadItems } from "@/core/select/place";
import type { Spread } from "@/core/show/hands";
import { EditableText } from "@/ui/base/parts/EditableText";
import { NumberField } from "@/ui/show/NumberField";
import { SpreadPicture } from "@/ui/base/parts/SpreadPicture";
import { setStageTools, useStageTools } from "@/ui/stage/stageTools";
import { useKeyTable } from "@/ui/show/keys/useKeyTable";
import { useSession, useShow, useShowNow } from "@/ui/show/useSession";
import { placeBars } from "./placeBars";
import { RecordSteps } from "./RecordSteps";
import classes from "./Groups.module.css";

const MOST_BARS = 64;
const PLACES: { value: Spread["by"]; label: string }[] = [
  { value: "order", label: "over the selection order" },
  { value: "left", label: "over the plan, left to right" },
  { value: "front", label: "over the plan, front to back" },
  { value: "centre", label: "over the plan, from the centre" },
  { value: "around", label: "over the plan, around" },
  { value: "steps", label: "by steps given by hand" },
];

/** How values, times and steps spread over the selection: its settings with their picture, a trial, and its steps. */
export function SpreadPanel() {
  const session = useSession();
  const { shownKey } = useKeyTable();
  const show = useShow((s) => s.world.show);
  const selection = useShow((s) => s.world.hands.selection);
  const spread = useShowNow((s) => s.world.hands.spread);
  const stepping = useShow((s) => s.world.hands.stepping);
  const trial = useStageTools((s) => s.trial);
  const whole = stepping?.whole ?? selection;
  const { step, count } = useMemo(() => spreadItems(show, whole, spread), [show, whole, spread]);
  const lit = trial === null ? (stepping?.step ?? null) : trial % Math.max(1, count);
  const set = (change: Partial<Spread>) => session.act([setSpread.of({ spread: { ...spread, ...change } })], "spread");
  const go = (to: "next" | "previous" | "whole") => session.act([walk.of({ to })]);
  const give = (given: number[]) => set({ by: "steps", steps: stepsFor(session.store.getState().world, given) });
  if (whole.length === 0) return null;
  return (
    <section aria-label="Spread">
      <header className={classes.head}>
        <h2>Spread</h2>
        <Group gap={2}>
          <Arrow label="Previous step" shown={shownKey("step-previous")} onClick={() => go("previous")} />
          <Button
            size="compact-xs"
            variant="subtle"
            color="gray"
            title={`All of it again (${shownKey("step-whole")})`}
            onClick={() => go("whole")}
            disabled={!stepping}
          >
            {stepping ? `${stepping.step + 1} of ${count}` : "whole"}
          </Button>
          <Arrow label="Next step" shown={shownKey("step-next")} onClick={() => go("next")} />
        </Group>
      </header>
      <div className={classes.bars} aria-hidden>
        {placeBars(step, count, MOST_BARS).map(({ low, high, steps }, k) => (
          <span
            key={k}
            data-on={lit === null || steps.has(lit)}
            style={{ height: `${6 + 94 * high}%`, ...(low < high ? { opacity: 0.35 + 0.65 * low } : {}) }}
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
            value={spread[name]}
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
        value={spread.by}
        allowDeselect={false}
        comboboxProps={{ position: "top" }}
        onChange={(v) => v && (v === "steps" ? give(whole.map((_, k) => k + 1)) : set({ by: v }))}
      />
      {spread.by === "steps" && (
        <EditableText
          mono
          label="Steps, one for each in order"
          value={whole.map((i) => spread.steps?.[i] ?? "–").join(" ")}
          onSave={(text) => {
            const given = session.read("steps", text);
            if (given) give(given);
          }}
        />
      )}
      <Patterns size={whole.length} now={spread} onPick={(spread) => set(spread)} />
      <Group gap={6} mt={6}>
        <TrialRun />
        <RecordSteps count={count} />
      </Group>
    </section>
  );
}

const Arrow = ({ label, shown, onClick }: { label: string; shown: string; onClick(): void }) => (
  <ActionIcon variant="subtle" color="gray" aria-label={label} title={`${label} (${shown})`} onClick={onClick}>
    {label.startsWith("Next") ? <IconChevronRight size={16} /> : <IconChevronLeft size={16} />}
  </ActionIcon>
);

/** Patterns worth trying on so many, each with the picture of its steps. */
function Patterns({ size, now, onPick }: { size: number; now: Spread; onPick(spread: Partial<Spread>): void }) {
  const found = patternsFor(Math.min(size, MOST_BARS));
  if (found.length === 0) return null;
  return (
    <div className={classes.patterns} role="group" aria-label="Patterns worth trying">
      {found.map(({ name, spread, step, count }) => (
        <button
          key={name}
          type="button"
          title={name}
          aria-label={name}
          aria-pressed={
            now.by === "order" &&
            now.mirror === spread.mirror &&
            now.bunch === spread.bunch &&
            now.repeat === spread.repeat
          }
          onClick={() => onPick(spread)}
        >
          <SpreadPicture step={step} count={count} />
        </button>
      ))}
    </div>
  );
}

/** The steps light up one after another on the picture of the stage, while the settings are moved; nothing is held. */
function TrialRun() {
  const trial = useStageTools((s) => s.trial);
  const pace = useStageTools((s) => s.pace);
  const outside = useStageTools((s) => s.outside);
  const runs = trial !== null;
  useEffect(() => {
    if (!runs) return;
    let step = 0;
    const timer = setInterval(() => setStageTools({ trial: ++step }), pace * 1000);
    return () => clearInterval(timer);
  }, [runs, pace]);
  useEffect(() => () => setStageTools({ trial: null }), []);
  return (
    <Group gap={4} wrap="nowrap">
      <Button
        size="compact-xs"
        variant={runs ? "filled" : "default"}
        aria-pressed={runs}
        leftSection={runs ? <IconPlayerStop size={13} /> : <IconPlayerPlay size={13} />}
        onClick={() => setStageTools({ trial: runs ? null : 0, aiming: false })}
      >
        Trial
      </Button>
      {runs && (
        <ActionIcon
          size="sm"
          variant={outside ? "filled" : "default"}
          color={outside ? "yellow" : undefined}
          aria-pressed={outside}
          aria-label="On the output too"
          title="On the output too: each step full and open; nothing is held"
          onClick={() => setStageTools({ outside: !outside })}
        >
          <IconBulb size={13} />
        </ActionIcon>
      )}
      {runs && (
        <NumberField
          size="xs"
          w={52}
          aria-label="Seconds for each step of the trial"
          value={pace}
          min={0.1}
          max={10}
          step={0.1}
          onSet={(v) => setStageTools({ pace: v })}
        />
      )}
    </Group>
  );
}
