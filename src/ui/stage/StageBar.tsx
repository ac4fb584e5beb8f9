"use client";

import { ActionIcon, Tooltip } from "@mantine/core";
import { IconCube3dSphere, IconFocus2, IconLasso, IconMaximize, IconMinus, IconPlus } from "@tabler/icons-react";
import { memo } from "react";
import { setStageTools, toggleRoom, useStageTools } from "./stageTools";
import classes from "./Stage.module.css";

interface Props {
  onZoom(by: number): void;
  onFit(what: "all" | "selection"): void;
  fitted: boolean;
  some: boolean;
  /** Whether dragging selects an area. */
  areas: boolean;
}

/** How the plan is looked at, and what a drag over the floor means. */
export const StageBar = memo(function StageBar({ onZoom, onFit, fitted, some, areas }: Props) {
  const area = useStageTools((s) => s.area);
  const button = (label: string, icon: React.ReactNode, onClick: () => void, more: object = {}) => (
    <Tooltip label={label} openDelay={400}>
      <ActionIcon variant="subtle" color="gray" size={30} aria-label={label} onClick={onClick} {...more}>
        {icon}
      </ActionIcon>
    </Tooltip>
  );
  return (
    <div className={classes.bar} role="toolbar" aria-label="Plan view">
      {areas &&
        button(
          area === "lasso"
            ? "Dragging draws around lamps; press for a rectangle"
            : "Draw around lamps instead of a rectangle",
          <IconLasso size={16} />,
          () => setStageTools({ area: area === "lasso" ? "marquee" : "lasso" }),
          { "aria-pressed": area === "lasso", variant: area === "lasso" ? "light" : "subtle" },
        )}
      {areas && button("Show the room in three dimensions", <IconCube3dSphere size={16} />, toggleRoom)}
      {button("Farther", <IconMinus size={16} />, () => onZoom(1 / 1.4))}
      {button(
        "Nearer (or the wheel; drag with Alt or the middle button, or press Space while dragging, to move)",
        <IconPlus size={16} />,
        () => onZoom(1.4),
      )}
      {button("Fit the selection", <IconFocus2 size={16} />, () => onFit("selection"), { disabled: !some })}
      {button("Fit all", <IconMaximize size={16} />, () => onFit("all"), { disabled: fitted })}
    </div>
  );
});
