"use client";

import { Checkbox, SegmentedControl, Select } from "@mantine/core";
import type { ReactNode } from "react";
import { attributeInfo } from "@/core/fixture/attribute";
import {
  hasStops,
  WAVES,
  type End,
  type Phasing,
  type Shape,
  type Voice,
  type WaveVoice,
} from "@/core/show/effectSchema";
import type { Show } from "@/core/show/schema";
import { BY, type Spread } from "@/core/show/spreadSchema";
import { palettesByNumber, wavesByNumber } from "@/core/show/world";
import { familiesOf } from "@/core/palette/families";
import { NumberField } from "@/ui/show/NumberField";
import { useShow } from "@/ui/show/useSession";
import classes from "./Effects.module.css";

const WORDS: Record<string, string> = { rampup: "ramp up", rampdown: "ramp down" };
const BY_WORDS: Record<Spread["by"], string> = {
  order: "the order",
  left: "left to right",
  front: "front to back",
  centre: "from the centre",
  around: "around",
  steps: "given steps",
};

interface Props {
  voice: Voice;
  all: boolean;
  several: boolean;
  onAll(all: boolean): void;
  onPut(voice: Voice, join: boolean): void;
  /** How it runs: of this voice, or of all where they are edited together. */
  onRun(change: Partial<Phasing>, join: boolean): void;
}

/** The exact numbers of a voice. */
export function VoiceFields({ voice, all, several, onAll, onPut, onRun }: Props) {
  const show = useShow((s) => s.world.show);
  const { spread } = voice;
  const number = (label: string, of: keyof Phasing, suffix: string, min: number, max: number, step = 1) => (
    <Row label={label}>
      <NumberField
        size="xs"
        w={92}
        aria-label={label}
        suffix={suffix}
        min={min}
        max={max}
        step={step}
        value={voice[of] as number}
        onSet={(value, first) => onRun({ [of]: value }, !first)}
      />
    </Row>
  );
  const laid = (change: Partial<Spread>, join = false) => onRun({ spread: { ...spread, ...change } }, join);
  return (
    <div className={classes.fields}>
      {!hasStops(voice) && <WaveFields show={show} voice={voice} onPut={onPut} />}
      {number("Cycles a minute", "bpm", " bpm", 0, 6000, 0.5)}
      {number("Across", "across", "°", 0, 36_000, 5)}
      {number("Start", "start", "°", -360, 360, 5)}
      {number("Width", "width", " %", 1, 100)}
      <Row label="Goes">
        <SegmentedControl
          size="xs"
          aria-label="Direction"
          data={[
            { value: "forward", label: "→" },
            { value: "backward", label: "←" },
            { value: "bounce", label: "⇄" },
          ]}
          value={voice.direction}
          onChange={(direction) => onRun({ direction }, false)}
        />
      </Row>
      <Row label="Spread by">
        <Select
          size="xs"
          w={126}
          aria-label="Spread by"
          allowDeselect={false}
          data={BY.filter((by) => by !== "steps" || spread.by === "steps").map((by) => ({
            value: by,
            label: BY_WORDS[by],
          }))}
          value={spread.by}
          onChange={(by) => by && laid({ by })}
        />
      </Row>
      <div className={classes.three}>
        {(["mirror", "bunch", "repeat"] as const).map((name) => (
          <NumberField
            key={name}
            size="xs"
            label={name}
            min={name === "repeat" ? 0 : 1}
            max={64}
            value={spread[name]}
            onSet={(value, first) => laid({ [name]: Math.round(value) }, !first)}
          />
        ))}
      </div>
      {several && (
        <Checkbox
          size="xs"
          label="all voices together"
          title="Speed, width, direction and spread are set for all voices at once"
          checked={all}
          onChange={(e) => onAll(e.currentTarget.checked)}
        />
      )}
    </div>
  );
}

const Row = ({ label, children }: { label: string; children: ReactNode }) => (
  <div className={classes.field}>
    <span>{label}</span>
    {children}
  </div>
);

function WaveFields({
  show,
  voice,
  onPut,
}: {
  show: Show;
  voice: WaveVoice;
  onPut(voice: Voice, join: boolean): void;
}) {
  const { wave, range } = voice;
  const own = wavesByNumber(show);
  const value = typeof wave === "string" ? wave : "own" in wave ? `${wave.own} ${wave.track}` : "drawn";
  const options = [
    ...WAVES.map((name) => ({ value: name, label: WORDS[name] ?? name })),
    ...own.flatMap((w) => [
      { value: `${w.id} 1`, label: `“${w.name}”` },
      ...(w.second ? [{ value: `${w.id} 2`, label: `“${w.name}”, second` }] : []),
    ]),
    ...(value === "drawn" ? [{ value: "drawn", label: "drawn" }] : []),
  ];
  const shape = (chosen: string): Shape => {
    const named = WAVES.find((name) => name === chosen);
    if (named) return named;
    const [id, track] = chosen.split(" ");
    return { own: id!, track: track === "2" ? 2 : 1 };
  };
  const { unit } = attributeInfo(voice.attribute);
  return (
    <>
      <Row label="Wave">
        <Select
          size="xs"
          w={126}
          aria-label="Wave"
          allowDeselect={false}
          data={options}
          value={value}
          onChange={(v) => v && v !== "drawn" && onPut({ ...voice, wave: shape(v) }, false)}
        />
      </Row>
      <Row label="Works">
        <SegmentedControl
          size="xs"
          aria-label="Between two values, or around what lies underneath"
          data={[
            { value: "between", label: "between" },
            { value: "around", label: "around" },
          ]}
          value={"size" in range ? "around" : "between"}
          onChange={(v) =>
            onPut(
              {
                ...voice,
                range:
                  v === "around"
                    ? {
                        centre: 0,
                        size:
                          "low" in range && typeof range.low === "number" && typeof range.high === "number"
                            ? Math.max(1, Math.abs(range.high - range.low) / 2)
                            : 10,
                      }
                    : {
                        low: unit === "%" ? 0 : -("size" in range ? range.size : 10),
                        high: unit === "%" ? 100 : "size" in range ? range.size : 10,
                      },
              },
              false,
            )
          }
        />
      </Row>
      {"size" in range ? (
        <>
          <Row label="Size">
            <NumberField
              size="xs"
              w={92}
              aria-label="Size"
              min={-1000}
              step={0.5}
              value={range.size}
              onSet={(size, first) => onPut({ ...voice, range: { ...range, size } }, !first)}
            />
          </Row>
          <Row label="Centre">
            <NumberField
              size="xs"
              w={92}
              aria-label="Centre"
              min={-1000}
              step={0.5}
              value={range.centre}
              onSet={(centre, first) => onPut({ ...voice, range: { ...range, centre } }, !first)}
            />
          </Row>
        </>
      ) : (
        (["high", "low"] as const).map((end) => (
          <EndField
            key={end}
            show={show}
            attribute={voice.attribute}
            label={end === "high" ? "High" : "Low"}
            value={range[end]}
            onSet={(v, join) => onPut({ ...voice, range: { ...range, [end]: v } }, join)}
          />
        ))
      )}
    </>
  );
}

/** A number, or a palette in its place. */
function EndField({
  show,
  attribute,
  label,
  value,
  onSet,
}: {
  show: Show;
  attribute: string;
  label: string;
  value: End;
  onSet(value: End, join: boolean): void;
}) {
  const { family } = attributeInfo(attribute);
  const palettes = palettesByNumber(show).filter((p) => familiesOf(p).includes(family));
  return (
    <Row label={label}>
      <span className={classes.end}>
        {typeof value === "number" && (
          <NumberField
            size="xs"
            w={64}
            aria-label={label}
            min={-100_000}
            step={attributeInfo(attribute).stepped ? 1 : 0.5}
            value={value}
            onSet={(v, first) => onSet(v, !first)}
          />
        )}
        <Select
          size="xs"
          w={typeof value === "number" ? 58 : 126}
          aria-label={`${label} as a palette`}
          title="A palette instead of a number"
          placeholder="◇"
          clearable={typeof value !== "number"}
          searchable
          data={palettes.map((p) => ({ value: p.id, label: `${p.number} ${p.name}` }))}
          value={typeof value === "number" ? null : value.palette}
          onChange={(palette) => onSet(palette ? { palette } : 0, false)}
          comboboxProps={{ width: 200, position: "bottom-end" }}
        />
      </span>
    </Row>
  );
}
