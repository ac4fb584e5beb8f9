"use client";

import { Button, Group, RangeSlider } from "@mantine/core";
import { useRef, useState } from "react";
import { hold } from "@/core/command/building";
import { plain } from "@/core/units/units";
import { useSession } from "../useSession";
import type { AttributeRow } from "./summary";
import classes from "./Build.module.css";

/** A number fanned over the selection by its two ends; the middle moves both, and it can go from the ends in. */
export function FanRow({ row }: { row: AttributeRow }) {
  const session = useSession();
  const first = useRef(true);
  const { attribute, min, max, low, high } = row;
  const [inward, setInward] = useState(false);
  const [ends, setEnds] = useState<[number, number]>([low, high]);
  const [turned, setTurned] = useState(false);
  const put = (next: [number, number], way = { inward, turned }, join = !first.current) => {
    setEnds(next);
    const [a, b] = way.turned ? [next[1], next[0]] : next;
    session.hold((building) => hold(building, attribute, way.inward ? [a, b, a] : [a, b], false), join);
    first.current = false;
  };
  const settle = (way: { inward: boolean; turned: boolean }) => {
    setInward(way.inward);
    setTurned(way.turned);
    put(ends, way, false);
    first.current = true;
  };
  return (
    <div className={classes.fan}>
      <RangeSlider
        min={min}
        max={max}
        step={max - min > 20 ? 0.5 : 0.05}
        minRange={0}
        value={ends}
        onChange={(next) => put(next)}
        onChangeEnd={() => (first.current = true)}
        label={(v) => plain(v, 1)}
        thumbFromLabel={`${row.label} of the first`}
        thumbToLabel={`${row.label} of the last`}
        size="xs"
      />
      <Group gap={4}>
        <Button
          size="compact-xs"
          variant={inward ? "light" : "default"}
          aria-pressed={inward}
          onClick={() => settle({ inward: !inward, turned })}
        >
          From the ends in
        </Button>
        <Button
          size="compact-xs"
          variant={turned ? "light" : "default"}
          aria-pressed={turned}
          onClick={() => settle({ inward, turned: !turned })}
        >
          Turned round
        </Button>
      </Group>
    </div>
  );
}
