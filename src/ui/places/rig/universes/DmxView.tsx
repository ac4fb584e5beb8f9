"use client";

import { useEffect, useMemo, useRef, useState, type PointerEvent } from "react";
import { setFixtures } from "@/core/patch/intents";
import { addressText, freeRun, occupancyOf } from "@/core/show/address";
import { select } from "@/core/select/intents";
import { useSession, useShow, useStageFrame } from "@/ui/show/useSession";
import { moveAddress, ownersOf } from "./owners";
import classes from "./Universes.module.css";

interface Drag {
  fixture: string;
  start: number;
  /** Which of its slots was taken hold of. */
  grip: number;
  to: number;
  moved: boolean;
}

/** One universe, 512 live bytes with the owner of each; a fixture is dragged to another address. */
export function DmxView({ universe }: { universe: number }) {
  const session = useSession();
  const show = useShow((s) => s.world.show);
  const selection = useShow((s) => s.world.hands.selection);
  const tests = useShow((s) => s.wire.tests);
  const grid = useRef<HTMLDivElement>(null);
  const shown = useRef(new Int16Array(512).fill(-1));
  const [drag, setDrag] = useState<Drag | null>(null);
  const owners = useMemo(() => ownersOf(show, universe), [show.fixtures, show.types, universe]); // oxlint-disable-line react-hooks/exhaustive-deps
  const picked = new Set(selection.map((i) => i.split(".")[0]));
  const target = drag?.moved
    ? moveAddress(show, drag.fixture, { universe, slot: drag.start }, { universe, slot: drag.to - drag.grip })
    : undefined;
  const aim = drag ? drag.to - drag.grip : 0;

  useEffect(() => void shown.current.fill(-1), [universe, owners]);
  useStageFrame((half, view) => {
    const place = view.layout.universes.indexOf(universe);
    const cells = grid.current?.children;
    if (!cells) return;
    for (let i = 0; i < 512; i++) {
      const byte = place < 0 ? 0 : half.bytes[place * 512 + i]!;
      if (shown.current[i] === byte) continue;
      shown.current[i] = byte;
      const cell = cells[i] as HTMLElement | undefined;
      if (!cell) continue;
      cell.lastElementChild!.textContent = String(byte);
      cell.style.setProperty("--level", String(byte / 255));
    }
  }, owners);

  const cardAt = (event: PointerEvent): number =>
    Number(
      (document.elementFromPoint(event.clientX, event.clientY) as HTMLElement | null)?.closest<HTMLElement>(
        "[data-universe-card]",
      )?.dataset.universeCard ?? 0,
    );
  const slotAt = (event: PointerEvent): number =>
    Number(
      (document.elementFromPoint(event.clientX, event.clientY) as HTMLElement | null)?.closest<HTMLElement>(
        "[data-slot]",
      )?.dataset.slot ?? 0,
    );
  const down = (event: PointerEvent<HTMLDivElement>) => {
    const slot = event.button === 0 ? slotAt(event) : 0;
    const owner = slot > 0 ? owners[slot - 1] : null;
    if (!owner) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    setDrag({ fixture: owner.fixture, start: owner.start, grip: slot - owner.start, to: slot, moved: false });
  };
  const move = (event: PointerEvent) => {
    const slot = drag ? slotAt(event) : 0;
    if (drag && slot > 0 && slot !== drag.to) setDrag({ ...drag, to: slot, moved: true });
  };
  const put = (fixture: string, to: { universe: number; slot: number }) => {
    const made = moveAddress(show, fixture, { universe, slot: drag!.start }, to);
    const { number } = show.fixtures[fixture]!;
    if (made.why) return session.tell(`fixture ${number} stays: ${made.why}`, "refused");
    const says = `moves ${number} to ${addressText(to)}`;
    session.act([setFixtures.of({ changes: { [fixture]: made.change }, says })], says);
  };
  const up = (event: PointerEvent) => {
    setDrag(null);
    if (!drag) return;
    const card = cardAt(event);
    if (card > 0 && card !== universe) {
      const to = freeRun(
        occupancyOf(show),
        moveAddress(show, drag.fixture, { universe, slot: drag.start }, { universe, slot: drag.start }).size,
        card,
      );
      return to.universe === card
        ? put(drag.fixture, to)
        : session.tell(`universe ${card} has no free run that is long enough`, "refused");
    }
    if (!target) return void session.act([select.of({ items: [drag.fixture] })], "select");
    put(drag.fixture, { universe, slot: aim });
  };

  return (
    <div
      className={classes.slots}
      ref={grid}
      data-testid="dmx"
      data-universe={universe}
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={up}
      onPointerCancel={() => setDrag(null)}
    >
      {owners.map((owner, i) => {
        const aimed = target && i + 1 >= aim && i + 1 < aim + target.size;
        return (
          <div
            key={i}
            className={classes.slot}
            data-slot={i + 1}
            data-owned={owner !== null}
            data-first={owner?.start === i + 1}
            data-picked={owner !== null && picked.has(owner.fixture)}
            data-aim={aimed ? (target.why ? "clash" : "free") : undefined}
            data-test={tests[`${universe}:${i + 1}`] !== undefined}
            title={`${universe}:${i + 1} ${owner ? owner.text : "free"}`}
          >
            <i>{owner?.start === i + 1 ? owner.number : ""}</i>
            <b>0</b>
          </div>
        );
      })}
    </div>
  );
}
