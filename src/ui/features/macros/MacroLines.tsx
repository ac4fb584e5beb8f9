"use client";

import { ActionIcon, Button } from "@mantine/core";
import { IconPlus, IconX } from "@tabler/icons-react";
import { useReorder } from "@/ui/base/gestures/useReorder";
import classes from "./Macros.module.css";

interface Props {
  lines: readonly string[];
  /** Numbers of those that cannot be done as things stand, from 1. */
  wrong: readonly number[];
  onLines(lines: string[]): void;
  /** Which line is looked at, from 0. */
  onAt(k: number): void;
}

const focusOn = (k: number) =>
  requestAnimationFrame(() => document.querySelector<HTMLInputElement>(`[aria-label="Line ${k + 1}"]`)?.focus());

/** The lines of a macro: typed, put in, taken out, dragged to another place. */
export function MacroLines({ lines, wrong, onLines, onAt }: Props) {
  const several = lines.length > 1;
  const without = (k: number) => lines.filter((_, i) => i !== k);
  const reorders = useReorder((from, onto) => {
    const rest = without(Number(from));
    rest.splice(Number(onto), 0, lines[Number(from)] ?? "");
    onLines(rest);
    onAt(Number(onto));
  });
  return (
    <div className={classes.lines}>
      {lines.map((line, k) => (
        <div
          key={k}
          className={classes.line}
          data-wrong={wrong.includes(k + 1)}
          {...(several ? reorders(String(k)) : {})}
        >
          <span title={several ? "Drag it to another place" : undefined}>{k + 1}</span>
          <input
            value={line}
            aria-label={`Line ${k + 1}`}
            spellCheck={false}
            autoComplete="off"
            onFocus={() => onAt(k)}
            onChange={(e) => (onAt(k), onLines(lines.map((l, i) => (i === k ? e.currentTarget.value : l))))}
            onKeyDown={(e) => {
              if (e.key === "Enter") {
                e.preventDefault();
                onLines([...lines.slice(0, k + 1), "", ...lines.slice(k + 1)]);
                onAt(k + 1);
                focusOn(k + 1);
              }
              if (e.key === "Backspace" && line === "" && several) {
                e.preventDefault();
                onLines(without(k));
                focusOn(Math.max(0, k - 1));
              }
            }}
          />
          <ActionIcon
            variant="subtle"
            color="gray"
            size="sm"
            aria-label={`Remove line ${k + 1}`}
            disabled={!several}
            onClick={() => onLines(without(k))}
          >
            <IconX size={14} />
          </ActionIcon>
        </div>
      ))}
      <div>
        <Button
          size="compact-xs"
          variant="subtle"
          color="gray"
          leftSection={<IconPlus size={13} />}
          onClick={() => onLines([...lines, ""])}
        >
          line
        </Button>
      </div>
    </div>
  );
}
