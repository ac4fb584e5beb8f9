"use client";

import type { ReactNode } from "react";
import { Group, Panel, Separator } from "react-resizable-panels";
import { REMEMBERED, type SplitName } from "@/ui/base/preferences/registry";
import { useRemembered } from "@/ui/base/preferences/remembered";
import classes from "./parts.module.css";

/** The line between two panels, dragged or moved by arrows. */
export const Grip = ({ label }: { label: string }) => <Separator className={classes.grip} aria-label={label} />;

interface Props {
  /** Under this name what was dragged is remembered; its end says whether the panels lie across or down. */
  name: SplitName;
  /** What is dragged, in words. */
  label: string;
  /** Which of the two keeps its size when the window grows. */
  keeps: "first" | "second";
  /** Its size as long as nobody has dragged it: CSS pixels, or a share as text. */
  size: number | `${number}%`;
  /** The least of both, CSS pixels. */
  least: [first: number, second: number];
  first: ReactNode;
  second: ReactNode;
}

/** Two panels beside or under each other; what is dragged stays so. */
export function Split({ name, label, keeps, size, least, first, second }: Props) {
  const [layout, setLayout] = useRemembered(REMEMBERED.splits[name]);
  const idOf = (which: "first" | "second") => `${name}-${which}`;
  const remembered = idOf("first") in layout && idOf("second") in layout;
  const panel = (which: "first" | "second", content: ReactNode) => (
    <Panel
      id={idOf(which)}
      minSize={least[which === "first" ? 0 : 1]}
      {...(keeps === which ? { defaultSize: size, groupResizeBehavior: "preserve-pixel-size" as const } : {})}
    >
      {content}
    </Panel>
  );
  return (
    <Group
      className={classes.split}
      orientation={name.endsWith("-across") ? "horizontal" : "vertical"}
      {...(remembered ? { defaultLayout: layout } : {})}
      onLayoutChanged={(next, { isUserInteraction }) => isUserInteraction && setLayout(next)}
    >
      {panel("first", first)}
      <Grip label={label} />
      {panel("second", second)}
    </Group>
  );
}
