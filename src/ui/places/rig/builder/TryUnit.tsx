"use client";

import { Button, Slider, Text, TextInput } from "@mantine/core";
import { useEffect, useState } from "react";
import { attributeInfo } from "@/core/fixture/attribute";
import { footprint, layoutOf, type Mode } from "@/core/fixture/type";
import { parseAddress } from "@/core/show/address";
import { useSession, useShow } from "@/ui/show/useSession";
import classes from "./Builder.module.css";

/** A slider for each slot, sent to a unit at an address at once: what it does is laid beside the list. */
export function TryUnit({ mode }: { mode: Mode }) {
  const session = useSession();
  const universes = useShow((s) => s.view?.layout.universes ?? NONE);
  const tests = useShow((s) => s.wire.tests);
  const [start, setStart] = useState("1:1");
  const [on, setOn] = useState(false);
  const at = parseAddress(start);
  const sends = at !== undefined && universes.includes(at.universe);
  // Slots held for a test are not forgotten: they end with what shows them.
  useEffect(() => () => session.askWire("endTests"), [session]);
  const labels: string[] = [];
  layoutOf(mode).forEach((slots, k) =>
    slots.forEach(
      (slot, byte) =>
        (labels[slot] = `${attributeInfo(mode.channels[k]!.functions[0]!.attribute).label}${byte > 0 ? " fine" : ""}`),
    ),
  );
  const put = (slot: number, byte: number) =>
    at && session.askWire({ universe: at.universe, slot: at.slot + slot, byte });
  const stop = () => {
    session.askWire("endTests");
    setOn(false);
  };
  return (
    <div className={classes.try}>
      <h3>Try it on a unit</h3>
      <TextInput
        size="xs"
        label="Address"
        value={start}
        onChange={(e) => setStart(e.currentTarget.value)}
        error={at ? undefined : "An address is universe:slot, such as 1:101"}
        disabled={on}
      />
      {!sends && at && (
        <Text size="xs" c="var(--caution)">
          Nothing is patched in universe {at.universe}, so nothing leaves for it.
        </Text>
      )}
      <Button
        size="compact-sm"
        variant={on ? "filled" : "default"}
        color={on ? "orange" : undefined}
        disabled={!sends}
        onClick={() => (on ? stop() : setOn(true))}
      >
        {on ? "Stop holding its slots" : "Hold its slots"}
      </Button>
      <div className={classes.sliders}>
        {Array.from({ length: footprint(mode) }, (_, slot) => {
          const held = at && tests[`${at.universe}:${at.slot + slot}`];
          return (
            <div key={slot} className={classes.slider}>
              <span>
                <span className="num">{slot + 1}</span> {labels[slot] ?? "unused"}
              </span>
              <Slider
                size="sm"
                min={0}
                max={255}
                step={1}
                label={null}
                aria-label={`Slot ${slot + 1}`}
                disabled={!on}
                value={held ?? 0}
                onChange={(v) => put(slot, v)}
              />
              <span className="num">{on ? (held ?? "-") : ""}</span>
            </div>
          );
        })}
      </div>
    </div>
  );
}
const NONE: readonly number[] = [];
