"use client";

import { useRef, type PointerEvent } from "react";
import { isColour, spectralLocus, type Xy } from "@/core/colour/chromaticity";
import { colourValues } from "@/core/palette/colour";
import { gamutIn } from "@/core/palette/gamut";
import { splitItem } from "@/core/show/ids";
import { modelOf } from "@/core/show/model";
import { plain } from "@/core/units/units";
import { EditableText } from "@/ui/base/parts/EditableText";
import { useSession, useShow } from "@/ui/show/useSession";
import { useAsked } from "./useColoursNow";
import classes from "./Programmer.module.css";

const WIDE = 0.78;
const TALL = 0.88;
const at = ([x, y]: Xy): string => `${x},${TALL - y}`;

interface Gamut {
  model: string;
  fixture: string;
  corners: Xy[];
}

interface Props {
  /** The colours the selection shows. */
  now: readonly Xy[];
  onPick(xy: Xy, join: boolean): void;
}

/**
 * All colours, what the selected types can show of them, and what they do show. Press or drag to pick; how near each
 * type comes is said.
 */
export function GamutPicture({ now, onPick }: Props) {
  const session = useSession();
  const drawing = useRef(false);
  const show = useShow((s) => s.world.show);
  const selection = useShow((s) => s.world.hands.selection);
  const [picked, ask] = useAsked<Xy>();
  const gamuts = new Map<string, Gamut>();
  for (const i of selection) {
    const fixture = show.fixtures[splitItem(i).fixture];
    if (!fixture || gamuts.has(fixture.type)) continue;
    const { specs, type } = modelOf(show, fixture);
    const corners = gamutIn(specs);
    if (corners.length > 0) gamuts.set(fixture.type, { model: type.model, fixture: fixture.id, corners });
  }
  const near = picked
    ? [...gamuts.values()].map(({ model, fixture }) => ({
        model,
        off: colourValues(show, fixture, { xy: picked, white: false }).off,
      }))
    : [];
  const take = (xy: Xy, join: boolean) => {
    if (!isColour(xy)) return;
    ask(xy, () => onPick(xy, join));
  };
  const pick = (event: PointerEvent<SVGSVGElement>, join: boolean) => {
    const edge = event.currentTarget.getBoundingClientRect();
    const round = (v: number) => Math.round(v * 1000) / 1000;
    take(
      [
        round(((event.clientX - edge.left) / edge.width) * WIDE),
        round(TALL - ((event.clientY - edge.top) / edge.height) * TALL),
      ],
      join,
    );
  };
  return (
    <div className={classes.gamut}>
      <svg
        viewBox={`0 0 ${WIDE} ${TALL}`}
        role="application"
        aria-label="All colours by xy; press or drag to pick one"
        data-testid="gamut"
        onPointerDown={(e) => {
          e.currentTarget.setPointerCapture(e.pointerId);
          drawing.current = true;
          pick(e, false);
        }}
        onPointerMove={(e) => drawing.current && pick(e, true)}
        onPointerUp={() => (drawing.current = false)}
      >
        <polygon className={classes.locus} points={spectralLocus().map(at).join(" ")} />
        {[...gamuts.values()].map(({ model, corners }) => (
          <polygon key={model} className={classes.reach} points={corners.map(at).join(" ")} />
        ))}
        {now.map(([x, y]) => (
          <circle key={`${x} ${y}`} className={classes.seen} cx={x} cy={TALL - y} r={0.016} data-testid="colour-now" />
        ))}
        {picked && <circle className={classes.picked} cx={picked[0]} cy={TALL - picked[1]} r={0.022} />}
      </svg>
      <div className={classes.near}>
        <EditableText
          mono
          label="xy of the colour"
          value={now.length === 1 ? now[0]!.map((v) => plain(v, 4)).join(" ") : ""}
          empty={now.length === 0 ? "no colour" : `${now.length} colours`}
          onSave={(text) => {
            const typed = session.read("numbers", text);
            if (typed?.length === 2) take([typed[0]!, typed[1]!], false);
            else if (typed)
              session.tell("A colour here is two numbers, such as 0.31 0.33: it stays as it was", "refused");
          }}
        />
        {near.map(({ model, off }) => (
          <span key={model} data-off={off > 0.002}>
            {model}: {off <= 0.002 ? "met" : `${plain(off, 3)} off in u'v'`}
          </span>
        ))}
      </div>
    </div>
  );
}
