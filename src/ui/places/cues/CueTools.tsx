"use client";

import { ActionIcon, SegmentedControl, TextInput, Tooltip } from "@mantine/core";
import { IconArrowBarToDown, IconPlus, IconPrinter, IconSearch, IconSparkles } from "@tabler/icons-react";
import { memo } from "react";
import type { CUE_SHAPES } from "@/ui/base/preferences/registry";
import classes from "@/ui/features/cues/Cues.module.css";

export type Shape = (typeof CUE_SHAPES)[number];

interface Props {
  cues: number;
  /** How many are chosen. */
  many: number;
  find: string;
  /** How many are found. */
  found: number;
  setFind(text: string): void;
  shape: Shape;
  setShape(shape: Shape): void;
  follows: boolean;
  setFollows(follows: boolean): void;
  onInsert(): void;
  onClean(): void;
  onPaper(): void;
}

/** What can be done with a list as a whole. By itself, as the list changes with every edit and this does not. */
export const CueTools = memo(function CueTools(props: Props) {
  const { cues, many, find, found, setFind, shape, setShape, follows, setFollows, onInsert, onClean, onPaper } = props;
  return (
    <>
      <SegmentedControl
        size="xs"
        aria-label="How the list is seen"
        data={[
          { value: "film", label: "Filmstrip" },
          { value: "sheet", label: "Sheet" },
          { value: "lives", label: "Fixtures" },
        ]}
        value={shape}
        onChange={setShape}
      />
      {many > 1 ? (
        <span className={classes.mark} data-tone="chosen" data-testid="many-cues" title="An edit goes to all of them">
          {many} of {cues} chosen
        </span>
      ) : (
        <span className={classes.mark}>{cues} cues</span>
      )}
      <span className={classes.grow} />
      <TextInput
        size="xs"
        className={classes.find}
        aria-label="Find a cue by number, name or note"
        placeholder="find a cue"
        leftSection={<IconSearch size={13} />}
        rightSection={find.trim() ? <span className="num muted">{found}</span> : null}
        value={find}
        onChange={(e) => setFind(e.currentTarget.value)}
        onKeyDown={(e) => e.key === "Escape" && setFind("")}
      />
      <Tooltip label="Follow: the armed list, its running cue kept in sight">
        <ActionIcon
          size={28}
          variant={follows ? "light" : "default"}
          aria-pressed={follows}
          aria-label="Follow the running cue"
          onClick={() => setFollows(!follows)}
        >
          <IconArrowBarToDown size={16} />
        </ActionIcon>
      </Tooltip>
      <Tooltip label="An empty cue after the chosen one: everything tracks through it">
        <ActionIcon size={28} variant="default" aria-label="Insert a cue" onClick={onInsert}>
          <IconPlus size={16} />
        </ActionIcon>
      </Tooltip>
      <Tooltip label="Clean: drift taken out, every look stays">
        <ActionIcon size={28} variant="default" aria-label="Clean the list" onClick={onClean}>
          <IconSparkles size={16} />
        </ActionIcon>
      </Tooltip>
      <Tooltip label="On paper: cue sheet, patch, groups and palettes, printed or as CSV">
        <ActionIcon size={28} variant="default" aria-label="On paper" onClick={onPaper}>
          <IconPrinter size={16} />
        </ActionIcon>
      </Tooltip>
    </>
  );
});
