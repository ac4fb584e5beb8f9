"use client";

import { Select } from "@mantine/core";
import { useEffect, useMemo, useRef, useState } from "react";
import { attributeInfo } from "@/core/fixture/attribute";
import { modelOf } from "@/core/fixture/model";
import { sizeOf } from "@/core/patch/address";
import { select } from "@/core/select/intents";
import type { Show } from "@/core/show/schema";
import { useSession, useShow, useStageFrame } from "../useSession";
import classes from "./Rig.module.css";

interface Owner {
  fixture: string;
  number: number;
  /** Name and what the slot does. */
  text: string;
  first: boolean;
}

/** Who owns each of the 512 slots of a universe. */
function ownersOf(show: Show, universe: number): (Owner | null)[] {
  const owners = new Array<Owner | null>(512).fill(null);
  for (const fixture of Object.values(show.fixtures)) {
    for (const address of fixture.addresses) {
      if (address.universe !== universe) continue;
      let slot = address.slot - 1;
      for (const channel of modelOf(show, fixture).mode.channels) {
        const label = `${attributeInfo(channel.functions[0]!.attribute).label}${channel.cell ? ` of cell ${channel.cell}` : ""}`;
        for (let byte = 0; byte < channel.bytes; byte++, slot++) {
          owners[slot] = { fixture: fixture.id, number: fixture.number, text: `${fixture.number} ${fixture.name}: ${label}${channel.bytes === 2 ? (byte ? ", fine" : ", coarse") : ""}`, first: slot === address.slot - 1 };
        }
      }
      if (slot - address.slot + 1 !== sizeOf(show, fixture)) throw new Error("a mode's channels do not fill its footprint");
    }
  }
  return owners;
}

/** One universe, 512 live bytes with the owner of each. */
export function DmxView() {
  const session = useSession();
  const show = useShow((s) => s.world.show);
  const universes = useShow((s) => s.view?.layout.universes) ?? [];
  const selection = useShow((s) => s.world.hands.selection);
  const [chosen, setChosen] = useState<number | null>(null);
  const universe = chosen !== null && universes.includes(chosen) ? chosen : universes[0];
  const grid = useRef<HTMLDivElement>(null);
  const shown = useRef(new Int16Array(512).fill(-1));
  const owners = useMemo(() => (universe === undefined ? [] : ownersOf(show, universe)), [show.fixtures, show.types, universe]); // eslint-disable-line react-hooks/exhaustive-deps
  const picked = new Set(selection.map((i) => i.split(".")[0]));

  useEffect(() => void shown.current.fill(-1), [universe, owners]);
  useStageFrame((half, view) => {
    const place = universe === undefined ? -1 : view.layout.universes.indexOf(universe);
    const cells = grid.current?.children;
    if (place < 0 || !cells) return;
    for (let i = 0; i < 512; i++) {
      const byte = half.bytes[place * 512 + i]!;
      if (shown.current[i] === byte) continue;
      shown.current[i] = byte;
      const cell = cells[i] as HTMLElement | undefined;
      if (!cell) continue;
      cell.lastElementChild!.textContent = String(byte);
      cell.style.setProperty("--level", String(byte / 255));
    }
  });

  if (universe === undefined) return <p className={classes.empty}>No fixture has an address yet, so nothing goes down the wire. Patch some fixtures first.</p>;
  return (
    <div className={classes.dmx}>
      <header className={classes.head}>
        <Select size="xs" w={170} aria-label="Universe" value={String(universe)} onChange={(v) => setChosen(Number(v))} allowDeselect={false} data={universes.map((u) => ({ value: String(u), label: `Universe ${u}` }))} />
        <span className="muted">{owners.filter((o) => o === null).length} of 512 slots free. The small number is the fixture; press a slot to select it.</span>
      </header>
      <div className={classes.slots} ref={grid} data-testid="dmx" data-universe={universe}>
        {owners.map((owner, i) => (
          <button
            key={i} type="button" className={classes.slot} data-owned={owner !== null} data-first={owner?.first ?? false} data-picked={owner !== null && picked.has(owner.fixture)}
            title={`${universe}:${i + 1} ${owner ? owner.text : "free"}`} tabIndex={-1}
            onClick={() => owner && session.act([select.of({ items: [owner.fixture] })], "select")}
          >
            <i>{owner?.first ? owner.number : ""}</i>
            <b>0</b>
          </button>
        ))}
      </div>
    </div>
  );
}
