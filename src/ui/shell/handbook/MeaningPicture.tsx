"use client";

import { useMemo } from "react";
import { spectralLocus, xyOfKelvin, type Xy } from "@/core/colour/chromaticity";
import { beamOf } from "@/core/patch/room";
import { alongStops, closedPlace, placesOf } from "@/core/select/spread";
import { plain } from "@/core/units/units";
import type { Picture } from "./meanings";
import { beamsOf, cellsOf, curvesOf, gamutsOf, type Curve } from "./tinyShow";
import classes from "./Handbook.module.css";

type Of<K extends Picture["kind"]> = Extract<Picture, { kind: K }>;

/** The picture of a meaning, computed when it comes into sight. */
export function MeaningPicture({ of }: { of: Picture }) {
  switch (of.kind) {
    case "places":
      return <Places of={of} />;
    case "curves":
      return <Curves of={of} />;
    case "cells":
      return <Cells of={of} />;
    case "layers":
      return (
        <ol className={classes.layers}>
          {of.rows.map((row) => (
            <li key={row}>{row}</li>
          ))}
        </ol>
      );
    case "aim":
      return <Aim of={of} />;
    case "colours":
      return <Colours of={of} />;
  }
}

const PLAIN = { mirror: 1, bunch: 1, repeat: 0 };

function Places({ of: { items, rows } }: { of: Of<"places"> }) {
  return (
    <div className={classes.places}>
      {rows.map(({ says, spread, stops = [0, 100] }) => {
        const { step, count } = placesOf(items, { ...PLAIN, ...spread });
        return (
          <figure key={says}>
            <div aria-hidden>
              {step.map((g, k) => (
                <span key={k} style={{ height: `${4 + 0.96 * alongStops(stops, closedPlace(g, count))}%` }} />
              ))}
            </div>
            <figcaption>{says}</figcaption>
          </figure>
        );
      })}
    </div>
  );
}

const [WIDE, TALL] = [360, 96];
const TONES = ["var(--selection)", "var(--held)", "var(--running)", "var(--caution)", "var(--text)"];

function Curves({ of }: { of: Of<"curves"> }) {
  const curves = useMemo(() => curvesOf(of), [of]);
  const {
    seconds,
    range: [low, high],
    play,
  } = of;
  const x = (t: number) => (t / seconds) * WIDE;
  const line = ({ points }: Curve) =>
    points.map(([t, v]) => `${x(t).toFixed(1)},${(TALL - 3 - ((v - low) / (high - low)) * (TALL - 6)).toFixed(1)}`);
  return (
    <figure className={classes.curves}>
      <svg viewBox={`0 0 ${WIDE} ${TALL}`} role="img" aria-label={curves.map((c) => c.says).join(", ")}>
        {Array.from({ length: Math.floor(seconds) }, (_, k) => (
          <line key={k} className={classes.second} x1={x(k + 1)} x2={x(k + 1)} y1={0} y2={TALL} />
        ))}
        {play.map(([t], k) => (
          <line key={`go ${k}`} className={classes.go} x1={x(t)} x2={x(t)} y1={0} y2={TALL} />
        ))}
        {curves.map((curve, k) => (
          <polyline key={curve.says} points={line(curve).join(" ")} style={{ stroke: TONES[k % TONES.length] }} />
        ))}
      </svg>
      <figcaption>
        {curves.map(({ says }, k) => (
          <span key={says} style={{ color: TONES[k % TONES.length] }}>
            {says}
          </span>
        ))}
        <span>
          {plain(seconds)} s{play.length > 0 && `; dashed: ${[...new Set(play.map(([, l]) => l))].join(", ")}`}
        </span>
      </figcaption>
    </figure>
  );
}

const MARKS = { stored: "●", tracked: "↧", released: "∅", unset: "" };

function Cells({ of }: { of: Of<"cells"> }) {
  const rows = useMemo(() => cellsOf(of), [of]);
  return (
    <figure className={classes.cells}>
      <table>
        <thead>
          <tr>
            <th>Cue</th>
            {of.fixtures.map((n) => (
              <th key={n}>fixture {n}</th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(({ cue, cells }) => (
            <tr key={cue}>
              <th>{plain(cue)}</th>
              {cells.map(({ state, value }, k) => (
                <td key={k} data-state={state}>
                  {MARKS[state]} {value ?? ""}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      <figcaption>
        <span>● stored</span> <span>↧ tracks in</span> <span>∅ released</span>
      </figcaption>
    </figure>
  );
}

function Aim({ of }: { of: Of<"aim"> }) {
  const beams = useMemo(() => beamsOf(of), [of]);
  const scale = 18;
  const at = (y: number, z: number): [number, number] => [WIDE / 2 + y * scale, 140 - z * scale];
  const [px, py] = at(...of.at);
  return (
    <figure className={classes.curves}>
      <svg viewBox={`0 0 ${WIDE} 150`} role="img" aria-label="Movers on three trusses pointed at one place">
        <line className={classes.second} x1={0} x2={WIDE} y1={140} y2={140} />
        {beams.map(({ fixture, from, pan, tilt }) => {
          const [x, y] = at(...from);
          // Where its own pan and tilt send the beam, down to the floor.
          const [, dy, dz] = beamOf({ turn: { x: 0, y: 0, z: 0 } }, pan, tilt);
          const long = from[1] / -dz;
          const [ex, ey] = at(from[0] + dy * long, 0);
          return (
            <g key={fixture}>
              <line x1={x} y1={y} x2={ex} y2={ey} style={{ stroke: "var(--selection)" }} />
              <circle cx={x} cy={y} r={5} className={classes.lamp} />
              <text x={x} y={y - 9}>
                {fixture}
              </text>
            </g>
          );
        })}
        <circle cx={px} cy={py} r={7} className={classes.point} />
      </svg>
      <figcaption>
        {beams.map(({ fixture, pan, tilt }) => (
          <span key={fixture}>{`${fixture}: pan ${plain(pan, 0)}°, tilt ${plain(tilt, 0)}°`}</span>
        ))}
        <span>upstage is to the right</span>
      </figcaption>
    </figure>
  );
}

function Colours({ of }: { of: Of<"colours"> }) {
  const gamuts = useMemo(() => gamutsOf(of), [of]);
  const place = ([x, y]: Xy): [number, number] => [20 + x * 240, 214 - y * 240];
  const points = (all: readonly Xy[]) =>
    all
      .map((xy) =>
        place(xy)
          .map((v) => v.toFixed(1))
          .join(),
      )
      .join(" ");
  const locus = Array.from({ length: 60 }, (_, k) => xyOfKelvin(1e6 / (50 + ((1000 - 50) * k) / 59)));
  return (
    <figure className={classes.curves}>
      <svg viewBox={`0 0 ${WIDE} 214`} role="img" aria-label="All colours, the whites among them, and what types reach">
        <polygon className={classes.outline} points={points(spectralLocus())} />
        {gamuts.map(({ model, corners }, k) => (
          <polygon key={model} points={points(corners)} style={{ stroke: TONES[k] }} />
        ))}
        <polyline points={points(locus)} style={{ stroke: "var(--text)" }} />
        {of.kelvins.map((kelvin, k) => {
          const [x, y] = place(xyOfKelvin(kelvin));
          const beside = 40 + 18 * k;
          return (
            <g key={kelvin}>
              <circle cx={x} cy={y} r={2.5} className={classes.white} />
              <line className={classes.second} x1={x} y1={y} x2={250} y2={beside} />
              <text x={254} y={beside + 3} style={{ textAnchor: "start" }}>{`${kelvin.toLocaleString("en")} K`}</text>
            </g>
          );
        })}
      </svg>
      <figcaption>
        {gamuts.map(({ model }, k) => (
          <span key={model} style={{ color: TONES[k] }}>
            {model}
          </span>
        ))}
      </figcaption>
    </figure>
  );
}
