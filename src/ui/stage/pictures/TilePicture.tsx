"use client";

import { GoboPicture } from "./GoboPicture";
import type { Picture } from "./palettePicture";
import tiles from "./Tiles.module.css";

/** The room, as the plan sees it: metres across and upstage. */
const ROOM = { left: -8, right: 8, front: -3, back: 10 };

/** What a palette does, small. */
export function TilePicture({ picture }: { picture: Picture }) {
  if (picture.kind === "colours")
    return (
      <span className={tiles.swatch} aria-hidden>
        {picture.colours.map((c, k) => (
          <i key={k} style={{ background: c }} />
        ))}
      </span>
    );
  if (picture.kind === "level")
    return (
      <span className={tiles.level} aria-hidden>
        <i style={{ height: `${Math.max(4, picture.percent)}%` }} />
      </span>
    );
  if (picture.kind === "gobo") return <GoboPicture name={picture.name} />;
  if (picture.kind === "aims")
    return (
      <svg
        className={tiles.aims}
        viewBox={`${ROOM.left} ${-ROOM.back} ${ROOM.right - ROOM.left} ${ROOM.back - ROOM.front}`}
        aria-hidden
      >
        {picture.beams.map(([x, y, toX, toY], k) => (
          <path key={k} d={`M${x} ${-y} L${toX} ${-toY}`} />
        ))}
        {picture.point && <circle cx={picture.point[0]} cy={-picture.point[1]} r={0.7} />}
      </svg>
    );
  return (
    <span className={tiles.words}>
      {picture.words.map((w) => (
        <i key={w}>{w}</i>
      ))}
    </span>
  );
}
