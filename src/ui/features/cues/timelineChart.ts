/** The chart of how the stage gets into a cue: of the library only what it draws with. */
import { LineChart } from "echarts/charts";
import { GridComponent, MarkLineComponent, TooltipComponent } from "echarts/components";
import { init, use as drawWith, type EChartsCoreOption } from "echarts/core";
import { CanvasRenderer } from "echarts/renderers";
import type { Transition } from "@/core/play/arrive/transition";
import type { CueList, Show } from "@/core/show/schema";
import { plain } from "@/core/units/units";
import { fixturesText, HUES } from "./TimelineRows";

drawWith([LineChart, GridComponent, MarkLineComponent, TooltipComponent, CanvasRenderer]);
export { init };

/** A curve for each row of fixtures, moves in black as bars, and when the cue is complete and others follow. */
export const curvesOf = (made: Transition, cues: CueList["cues"], fixtures: Show["fixtures"]): EChartsCoreOption => ({
  backgroundColor: "transparent",
  animation: false,
  grid: { left: 44, right: 44, top: 26, bottom: 34 },
  tooltip: { trigger: "axis", valueFormatter: (v: unknown) => `${plain(Number(v), 1)} %` },
  xAxis: { type: "value", min: 0, max: made.times.at(-1), name: "s", axisLabel: { color: "#8f9db6" } },
  yAxis: { type: "value", min: 0, max: 100, axisLabel: { color: "#8f9db6", formatter: "{value} %" } },
  series: made.curves.map((curve, k) => ({
    name: fixturesText(fixtures, curve.fixtures),
    type: "line",
    showSymbol: false,
    lineStyle: { width: 2, type: k < HUES.length ? "solid" : "dashed" },
    color: HUES[k % HUES.length],
    data: made.times.map((t, i) => [t, curve.values[i]]),
    ...(k === 0
      ? {
          markLine: {
            symbol: "none",
            lineStyle: { color: "#8f9db6", type: "dotted" },
            label: { color: "#8f9db6" },
            data: [
              { xAxis: made.complete, label: { formatter: "complete" } },
              ...made.follows
                .filter((f) => f.at <= made.times.at(-1)!)
                .map((f) => ({ xAxis: f.at, label: { formatter: `cue ${cues[f.cue]?.number ?? "?"}` } })),
              ...made.black.map((b, row) => [
                {
                  coord: [Math.min(Math.max(0, b.from), made.times.at(-1)!), 2 + row * 4],
                  lineStyle: { type: "solid", width: 5, color: "#8f9db6", opacity: 0.7 },
                  label: { formatter: `☾ ${fixturesText(fixtures, b.fixtures)}`, position: "insideStartTop" },
                },
                { coord: [Math.min(Math.max(0, b.to), made.times.at(-1)!), 2 + row * 4] },
              ]),
            ],
          },
        }
      : {}),
  })),
});
