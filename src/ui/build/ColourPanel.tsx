"use client";

import { SegmentedControl, Slider, Tooltip } from "@mantine/core";
import { formatHex } from "culori";
import { useRef, useState } from "react";
import { xyOfKelvin, type Xy } from "@/core/colour/chromaticity";
import { FILTER_COLOURS } from "@/core/colour/filterList";
import { chroma, filter, kelvin } from "@/core/command/building";
import { EditableText } from "../parts/EditableText";
import { useSession } from "../useSession";
import { ColourField } from "./ColourField";
import { GamutPicture } from "./GamutPicture";
import type { AttributeRow } from "./summary";
import classes from "./Build.module.css";

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

/** A colour picked on a field, as a white, a filter of the list, or where it lies among all colours. */
export function ColourPanel({ rows }: { rows: readonly AttributeRow[] }) {
  const session = useSession();
  const [way, setWay] = useState("field");
  const [white, setWhite] = useState(3200);
  const first = useRef(true);
  const setKelvin = (value: number) => {
    setWhite(value);
    session.hold((b) => kelvin(b, [value]), !first.current);
    first.current = false;
  };
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
      {way === "white" && (
        <div className={classes.white}>
          <Slider
            min={WARM}
            max={COLD}
            step={50}
            value={white}
            onChange={setKelvin}
            onChangeEnd={() => (first.current = true)}
            label={(v) => `${v} K`}
            aria-label="Colour temperature"
          />
          <span className={classes.kelvins} style={{ background: SCALE }} aria-hidden />
          <EditableText
            mono
            label="Colour temperature, kelvin"
            value={`${white} K`}
            onSave={(text) => {
              const typed = session.read(
                "kelvins",
                /k$/i.test(text.replace(/\s/g, "")) ? text.replace(/\s+(?=k\b)/gi, "") : `${text}K`,
              );
              if (!typed) return;
              setWhite(typed[0]!);
              session.hold((b) => kelvin(b, typed));
            }}
          />
        </div>
      )}
      {way === "filter" && (
        <div className={classes.filters} role="group" aria-label="Filter colours">
          {FILTER_COLOURS.map((f) => (
            <Tooltip key={f.name} label={f.name} openDelay={150}>
              <button
                type="button"
                aria-label={f.name}
                style={{ background: f.hex }}
                onClick={() => session.hold((b) => filter(b, f.name))}
              />
            </Tooltip>
          ))}
        </div>
      )}
      {way === "xy" && <GamutPicture onPick={(xy, join) => session.hold((b) => chroma(b, xy), join)} />}
    </div>
  );
}
