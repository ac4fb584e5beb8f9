"use client";

import { Button, Group } from "@mantine/core";
import { cueTime, ownTime } from "@/core/command/building";
import type { Family } from "@/core/fixture/attribute";
import { plain } from "@/core/units/units";
import { EditableText } from "@/ui/base/parts/EditableText";
import { useSession } from "@/ui/show/useSession";
import { Fan } from "./Fan";
import type { TimeBar } from "./timeBars";
import classes from "./Programmer.module.css";

const LEAST_SCALE = 10;

/** Own times of a family: a bar for each fixture, from when it starts to when it has arrived; fanned, typed, taken away. */
export function OwnTiming({ family, bars }: { family: Family; bars: readonly TimeBar[] }) {
  const session = useSession();
  const what = { families: [family] };
  const delays = bars.map((b) => b.delay);
  const fades = bars.map((b) => b.fade);
  const most = Math.max(LEAST_SCALE, ...bars.map((b) => b.delay + (b.fade ?? 0)));
  const put = (name: "delay" | "fade", stops: number[], join: boolean) =>
    session.hold((b) => (name === "delay" ? ownTime(b, what, stops) : ownTime(b, what, undefined, stops)), join);
  const typed = (name: "delay" | "fade") => (text: string) => {
    const amounts = session.read("times", text);
    if (amounts)
      session.hold((b) => (name === "delay" ? ownTime(b, what, amounts) : ownTime(b, what, undefined, amounts)));
  };
  const range = (values: readonly (number | undefined)[]) => {
    const own = values.filter((v) => v !== undefined);
    if (own.length === 0) return "";
    const [low, high] = [Math.min(...own), Math.max(...own)];
    return low === high ? plain(low) : `${plain(low)} … ${plain(high)}`;
  };
  const tall = 50 / Math.max(1, bars.length);
  return (
    <div className={classes.timing} role="group" aria-label={`Own times of ${family.toLowerCase()}`}>
      <svg viewBox={`0 0 ${most} 54`} preserveAspectRatio="none" role="img" aria-label={`0 to ${plain(most)} seconds`}>
        {bars.map((b, k) => (
          <g key={b.item}>
            <rect data-waits x={0} y={2 + k * tall} width={b.delay} height={Math.max(0.7, tall * 0.25)} />
            <rect
              x={b.delay}
              y={2 + k * tall}
              width={Math.max(most / 120, b.fade ?? 0)}
              height={Math.max(1, tall * 0.8)}
            />
          </g>
        ))}
      </svg>
      <Group gap={8} wrap="nowrap">
        <span className="muted">delay</span>
        <EditableText mono label="Delays, such as 0 to 10" value={range(delays) || "–"} onSave={typed("delay")} />
        <span className="muted">fade</span>
        <EditableText mono label="Fade times, such as 2" value={range(fades) || "–"} onSave={typed("fade")} />
        <span className="muted">s</span>
        <Button
          size="compact-xs"
          variant="default"
          disabled={bars.every((b) => !b.own)}
          onClick={() => session.hold((b) => cueTime(b, what))}
        >
          Cue time
        </Button>
      </Group>
      {bars.length > 1 && (
        <Fan
          label="Delay"
          min={0}
          max={most}
          low={Math.min(...delays)}
          high={Math.max(...delays)}
          onPut={(stops, join) => void put("delay", stops, join)}
        />
      )}
    </div>
  );
}
