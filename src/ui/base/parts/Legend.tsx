"use client";

import { ActionIcon, Popover, Tooltip } from "@mantine/core";
import { IconHelp } from "@tabler/icons-react";
import type { ReactNode } from "react";
import classes from "./parts.module.css";

/** What every mark of a sheet means, at a press. */
export function Legend({ marks }: { marks: readonly (readonly [mark: ReactNode, means: string])[] }) {
  return (
    <Popover position="bottom-end" shadow="md" withinPortal>
      <Popover.Target>
        <Tooltip label="What the marks mean">
          <ActionIcon variant="subtle" color="gray" aria-label="What the marks mean">
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
