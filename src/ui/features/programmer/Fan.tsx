"use client";

import { Button, Group, RangeSlider } from "@mantine/core";
import { useRef, useState } from "react";
import { plain } from "@/core/units/units";
import classes from "./Programmer.module.css";

interface Props {
  label: string;
  min: number;
  max: number;
  low: number;
  high: number;
  /** The stops it goes through. @param join goes on with what the same drag did before. */
  onPut(stops: number[], join: boolean): void;
}

/** A number fanned over the selection by its two ends; the middle moves both, and it can go from the ends in. */
export function Fan({ label, min, max, low, high, onPut }: Props) {
  const first = useRef(true);
  const [inward, setInward] = useState(false);
  const [turned, setTurned] = useState(false);
  const [ends, setEnds] = useState<[number, number]>([low, high]);
  const put = (next: [number, number], way = { inward, turned }, join = !first.current) => {
    setEnds(next);
    const [a, b] = way.turned ? [next[1], next[0]] : next;
    onPut(way.inward ? [a, b, a] : [a, b], join);
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
        thumbFromLabel={`${label} of the first`}
        thumbToLabel={`${label} of the last`}
        size="xs"
      />
      <Group gap={4}>
        <Button
          size="compact-xs"
          variant={inward ? "light" : "default"}
          aria-pressed={inward}
          onClick={() => settle({ inward: !inward, turned })}
        >
          Symmetrical
        </Button>
        <Button
          size="compact-xs"
          variant={turned ? "light" : "default"}
          aria-pressed={turned}
          onClick={() => settle({ inward, turned: !turned })}
        >
          Reversed
        </Button>
      </Group>
    </div>
  );
}
