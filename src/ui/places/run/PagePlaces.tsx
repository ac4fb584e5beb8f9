"use client";

import { useState } from "react";
import { putOnPage } from "@/core/deck/intents";
import type { Page, Placed } from "@/core/show/deckSchema";
import { MOST_PLACES } from "@/core/show/deckSchema";
import { useSession, useShow } from "@/ui/show/useSession";
import { Pad } from "./Pad";
import { PlacePicker } from "./PlacePicker";
import { TallLane } from "./TallLane";
import classes from "./Run.module.css";

/** Lanes beside each other in a row. */
const ROW = 5;

/** A page of the deck: its lanes, its pads, and empty places to put more. @param arranges places are moved and emptied. */
export function PagePlaces({ page, arranges }: { page: Page; arranges: boolean }) {
  const session = useSession();
  const lists = useShow((s) => s.world.show.lists);
  const [picking, setPicking] = useState<number | null>(null);
  const [moving, setMoving] = useState<number | null>(null);
  const placed = Object.entries(page.places)
    .map(([place, of]) => ({ place: Number(place), of }))
    .sort((a, b) => a.place - b.place);
  const lanes = placed.filter(({ of }) => of.as === "lane" && lists[of.id]);
  const pads = placed.filter(({ of }) => of.as !== "lane");
  const taken = new Set(placed.map((p) => p.place));
  const free = Array.from({ length: MOST_PLACES }, (_, i) => i + 1).filter((n) => !taken.has(n));
  const after = Math.max(0, ...placed.map((p) => p.place));
  const between = free.filter((n) => n < after);
  const shown = pads.length + between.length;
  // The last row is filled up, and there is always one place more.
  const empties = [...between, ...free.filter((n) => n > after).slice(0, ROW - (shown % ROW))];
  const putIn = (place: number, of: Placed | undefined) =>
    putOnPage.of({
      page: page.number,
      place,
      put: of ? { what: of.what, id: of.id, pad: of.as === "pad", ...(of.held ? { held: true } : {}) } : null,
    });
  /** In arranging, the first press takes a place up, the second puts it there: what is there changes places with it. */
  const swap = (place: number) => {
    if (moving === null) return taken.has(place) ? setMoving(place) : setPicking(place);
    setMoving(null);
    if (moving === place) return;
    const [from, to] = [page.places[moving], page.places[place]];
    session.act(
      [putIn(place, from), ...(to ? [putIn(moving, to)] : [putIn(moving, undefined)])],
      `moves place ${moving} of page ${page.number} to ${place}`,
    );
  };
  const cover = (place: number) =>
    arranges && (
      <span className={classes.cover} data-moving={moving === place}>
        <button type="button" aria-label={`Move place ${place}`} onClick={() => swap(place)}>
          {moving === place ? "press its new place" : "move"}
        </button>
        <button
          type="button"
          aria-label={`Empty place ${place}`}
          onClick={() => session.act([putIn(place, undefined)])}
        >
          take out
        </button>
      </span>
    );
  return (
    <>
      {lanes.length > 0 && (
        <div className={classes.lanes}>
          {lanes.map(({ place, of }) => (
            <div key={place} className={classes.slot}>
              <TallLane list={lists[of.id]!} />
              {cover(place)}
            </div>
          ))}
        </div>
      )}
      <div className={classes.pads}>
        {pads.map(({ place, of }) => (
          <div key={place} className={classes.slot}>
            <Pad placed={of} place={place} />
            {cover(place)}
          </div>
        ))}
        {empties.map((place) => (
          <button
            key={place}
            type="button"
            className={classes.emptyPad}
            aria-label={moving === null ? `Put something in place ${place}` : `Move it to place ${place}`}
            onClick={() => (moving === null ? setPicking(place) : swap(place))}
          >
            {moving === null ? "+" : "here"}
          </button>
        ))}
      </div>
      {picking !== null && <PlacePicker page={page} place={picking} onClose={() => setPicking(null)} />}
    </>
  );
}
