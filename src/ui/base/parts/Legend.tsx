"use client";

import { ActionIcon, Popover, Tooltip } from "@mantine/core";
import { IconHelp } from "@tabler/icons-react";
import { useState, type ReactNode } from "react";
import { useEscape } from "../gestures/useEscape";
import classes from "./parts.module.css";

/** What every mark of a sheet means, at a press. */
export function Legend({ marks }: { marks: readonly (readonly [mark: ReactNode, means: string])[] }) {
  const [opened, setOpened] = useState(false);
  useEscape(opened, () => setOpened(false));
  return (
    <Popover position="bottom-end" shadow="md" withinPortal opened={opened} onChange={setOpened}>
      <Popover.Target>
        <Tooltip label="What the marks mean">
          <ActionIcon variant="subtle" color="gray" aria-label="What the marks mean" onClick={() => setOpened(!opened)}>
            <IconHelp size={18} />
          </ActionIcon>
        </Tooltip>
      </Popover.Target>
      <Popover.Dropdown>
        <dl className={classes.legend}>
          {marks.map(([mark, means]) => (
            <div key={means}>
              <dt className="num">{mark}</dt>
              <dd>{means}</dd>
            </div>
          ))}
        </dl>
      </Popover.Dropdown>
    </Popover>
  );
}
