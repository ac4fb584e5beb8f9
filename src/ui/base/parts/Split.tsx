"use client";

import type { ReactNode } from "react";
import { Group, Panel, Separator } from "react-resizable-panels";
import { z } from "@/core/units/zod";
import { usePrefs } from "@/ui/base/preferences/usePrefs";
import classes from "./parts.module.css";

/** Shares of a split that is remembered, in percent by panel. */
export const LayoutSchema = z.record(z.string().max(20), z.number().min(0).max(100));

/** The line between two panels, dragged or moved by arrows. */
export const Grip = ({ label }: { label: string }) => <Separator className={classes.grip} aria-label={label} />;

interface Props {
  /** Under this name what was dragged is remembered. */
  name: string;
  way: "across" | "down";
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
export function Split({ name, way, label, keeps, size, least, first, second }: Props) {
  const [layout, setLayout] = usePrefs(`bold-comet-${name}-${way}`, LayoutSchema, {});
  const idOf = (which: "first" | "second") => `${name}-${way}-${which}`;
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
      orientation={way === "across" ? "horizontal" : "vertical"}
      {...(remembered ? { defaultLayout: layout } : {})}
      onLayoutChanged={(next, { isUserInteraction }) => isUserInteraction && setLayout(next)}
    >
      {panel("first", first)}
      <Grip label={label} />
      {panel("second", second)}
    </Group>
  );
}
