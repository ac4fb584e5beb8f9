"use client";

import { SegmentedControl, Slider, Tooltip } from "@mantine/core";
import { formatHex } from "culori";
import { useRef, useState } from "react";
import { apart, kelvinNear, xyOfHex, xyOfKelvin, type Xy } from "@/core/colour/chromaticity";
import { FILTER_COLOURS } from "@/core/colour/filterList";
import { chroma, filter, kelvin } from "@/core/command/buildingColour";
import { EditableText } from "@/ui/base/parts/EditableText";
import { useSession } from "@/ui/show/useSession";
import { ColourField } from "./ColourField";
import { GamutPicture } from "./GamutPicture";
import type { AttributeRow } from "@/ui/show/held/summary";
import { useAsked, useColoursNow } from "./useColoursNow";
import classes from "./Programmer.module.css";

const WAYS = [
  { value: "field", label: "Field" },
  { value: "white", label: "White" },
  { value: "filter", label: "Filters" },
  { value: "xy", label: "xy" },
];
const [WARM, COLD] = [1800, 10_000];

/** A chromaticity on screen, as bright as it can be. */
function shown([x, y]: Xy): string {
  return formatHex({ mode: "xyz65", x: (x / y) * 0.8, y: 0.8, z: ((1 - x - y) / y) * 0.8 }) ?? "#ffffff";
}
const SCALE = `linear-gradient(to right, ${Array.from({ length: 9 }, (_, i) => shown(xyOfKelvin(WARM + ((COLD - WARM) * i) / 8))).join(", ")})`;

/** Off the locus by more than this, in u'v', a colour is no white. */
const WHITE_WITHIN = 0.006;
/** So near, in u'v', a colour is the one of a filter. */
const FILTER_WITHIN = 0.003;

/** A colour picked on a field, as a white, a filter of the list, or where it lies among all colours. */
export function ColourPanel({ rows }: { rows: readonly AttributeRow[] }) {
  const [way, setWay] = useState("field");
  return (
    <div>
      <SegmentedControl
        size="xs"
        fullWidth
        value={way}
        onChange={setWay}
        data={WAYS}
        aria-label="Way of picking a colour"
      />
      {way === "field" && <ColourField rows={rows} />}
      {way === "white" && <White />}
      {way === "filter" && <Filters />}
      {way === "xy" && <ByXy />}
    </div>
  );
}

function ByXy() {
  const session = useSession();
  const now = useColoursNow();
  return <GamutPicture now={now} onPick={(xy, join) => session.hold((b) => chroma(b, xy), join)} />;
}

/** White by its colour temperature: what the selection shows, where that is a white, and any other. */
function White() {
  const session = useSession();
  const now = useColoursNow();
  const [asked, ask] = useAsked<number>();
  const first = useRef(true);
  const [near] = now.length === 1 ? [kelvinNear(now[0]!)] : [];
  const shows = near && near.off <= WHITE_WITHIN ? Math.round(near.kelvin / 10) * 10 : undefined;
  const set = (values: readonly number[], join: boolean) =>
    ask(values[0]!, () => session.hold((b) => kelvin(b, values), join));
  return (
    <div className={classes.white}>
      <Slider
        min={WARM}
        max={COLD}
        step={50}
        value={asked ?? Math.min(COLD, Math.max(WARM, shows ?? 3200))}
        onChange={(value) => {
          set([value], !first.current);
          first.current = false;
        }}
        onChangeEnd={() => (first.current = true)}
        label={(v) => `${v} K`}
        thumbLabel="Colour temperature"
      />
      <span className={classes.kelvins} style={{ background: SCALE }} aria-hidden />
      <EditableText
        mono
        label="Colour temperature, kelvin"
        value={shows === undefined ? "" : `${shows} K`}
        empty={now.length > 1 ? "several" : "no white"}
        onSave={(text) => {
          const typed = session.read(
            "kelvins",
            /k$/i.test(text.replace(/\s/g, "")) ? text.replace(/\s+/g, " ").replace(/ (?=k\b)/gi, "") : `${text}K`,
          );
          if (typed) set(typed, false);
        }}
      />
    </div>
  );
}

const FILTERS = FILTER_COLOURS.map((f) => ({ ...f, xy: xyOfHex(f.hex) }));

/** Our list of filter colours; the one the selection shows is marked. */
function Filters() {
  const session = useSession();
  const now = useColoursNow();
  const [nearest] =
    now.length === 1
      ? FILTERS.map((f) => ({ name: f.name, off: apart(f.xy, now[0]!) })).sort((a, b) => a.off - b.off)
      : [];
  const shows = nearest && nearest.off <= FILTER_WITHIN ? nearest.name : undefined;
  return (
    <div className={classes.filters} role="group" aria-label="Filter colours">
      {FILTERS.map(({ name, hex }) => (
        <Tooltip key={name} label={name} openDelay={150}>
          <button
            type="button"
            aria-label={name}
            aria-pressed={name === shows}
            style={{ background: hex }}
            onClick={() => session.hold((b) => filter(b, name))}
          />
        </Tooltip>
      ))}
      <span className={classes["filter-name"]}>{shows ?? (now.length > 1 ? `${now.length} colours` : "")}</span>
    </div>
  );
}
