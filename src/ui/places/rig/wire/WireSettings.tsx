"use client";

import { Button, SegmentedControl, Select } from "@mantine/core";
import type { Wire } from "@/core/show/schema";
import { EditableText } from "@/ui/base/parts/EditableText";
import { useSession } from "@/ui/show/useSession";
import classes from "./Wire.module.css";

interface Settings {
  wire: Wire;
  interfaces: readonly { name: string; address: string }[];
  /** How the bridge does, in words, and whether that is bad. */
  state: string;
  bad: boolean;
  onTake: (() => void) | undefined;
  onSet(wire: Partial<Wire>): void;
}

/** What holds for all outputs, and how the bridge does. */
export function WireSettings({ wire, interfaces, state, bad, onTake, onSet }: Settings) {
  const fade = wire.lost === "hold" ? { after: 30, over: 5 } : wire.lost;
  const session = useSession();
  const time = (text: string, set: (seconds: number) => void) => {
    const seconds = session.read("seconds", text);
    if (seconds !== undefined) set(seconds);
  };
  const known = interfaces.map((i) => ({ value: i.address, label: `${i.name} · ${i.address}` }));
  const data = [
    { value: "any", label: "automatic" },
    ...known,
    ...(wire.from !== "" && !known.some((k) => k.value === wire.from)
      ? [{ value: wire.from, label: `${wire.from} (not on this machine)` }]
      : []),
  ];
  return (
    <aside className={classes.settings} aria-label="All outputs">
      <h3>Bridge</h3>
      <p role="status" data-bad={bad}>
        {state}
      </p>
      {onTake && (
        <Button size="compact-sm" variant="default" onClick={onTake}>
          Take the output
        </Button>
      )}
      <h3>All outputs</h3>
      <div className={classes.setting}>
        <span>Sender&apos;s name</span>
        <EditableText label="Sender's name" value={wire.source} onSave={(text) => onSet({ source: text })} />
      </div>
      <Select
        size="xs"
        label="Network interface"
        value={wire.from || "any"}
        data={data}
        allowDeselect={false}
        onChange={(v) => v && onSet({ from: v === "any" ? "" : v })}
      />
      <div>
        <span className={classes.label}>When the browser is gone</span>
        <SegmentedControl
          size="xs"
          fullWidth
          value={wire.lost === "hold" ? "hold" : "fade"}
          onChange={(v) => onSet({ lost: v === "hold" ? "hold" : fade })}
          data={[
            { value: "hold", label: "Hold the look" },
            { value: "fade", label: "Fade out" },
          ]}
        />
        {wire.lost !== "hold" && (
          <p className={classes.fade}>
            after{" "}
            <EditableText
              mono
              label="Seconds before the fade"
              value={String(fade.after)}
              onSave={(t) => time(t, (after) => onSet({ lost: { ...fade, after } }))}
            />{" "}
            s, over{" "}
            <EditableText
              mono
              label="Seconds of the fade"
              value={String(fade.over)}
              onSave={(t) => time(t, (over) => onSet({ lost: { ...fade, over } }))}
            />{" "}
            s; intensity only
          </p>
        )}
      </div>
      <p className={classes.hint}>
        Art-Net counts from 0 in net, sub-net and universe; sACN counts from 1. What leaves is at most 44 frames a
        second, on change, and kept alive.
      </p>
    </aside>
  );
}
