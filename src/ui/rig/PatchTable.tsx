"use client";

import { Button } from "@mantine/core";
import { useVirtualizer } from "@tanstack/react-virtual";
import { useRef, type MouseEvent } from "react";
import { addressText } from "@/core/patch/address";
import { select } from "@/core/select/intents";
import type { Fixture } from "@/core/show/schema";
import { fixturesByNumber } from "@/core/show/world";
import { plain } from "@/core/units/units";
import { EditableText } from "../parts/EditableText";
import { quote } from "../parts/quote";
import { useSession, useShow } from "../useSession";
import classes from "./Rig.module.css";

const ROW = 34;

/** Every fixture, edited where it stands. Pressing a row selects it; shift takes a range, ctrl one more. */
export function PatchTable({ onPatch }: { onPatch(): void }) {
  const session = useSession();
  const scroll = useRef<HTMLDivElement>(null);
  const anchor = useRef(0);
  const show = useShow((s) => s.world.show);
  const selection = useShow((s) => s.world.hands.selection);
  const fixtures = fixturesByNumber(show);
  const chosen = new Set(selection);
  const rows = useVirtualizer({ count: fixtures.length, getScrollElement: () => scroll.current, estimateSize: () => ROW, overscan: 12 });

  const press = (index: number, event: MouseEvent) => {
    if ((event.target as HTMLElement).closest("button, input, label")) return;
    const id = fixtures[index]!.id;
    const range = fixtures.slice(Math.min(anchor.current, index), Math.max(anchor.current, index) + 1).map((f) => f.id);
    const items = event.shiftKey ? range : event.ctrlKey || event.metaKey ? (chosen.has(id) ? selection.filter((i) => i !== id) : [...selection, id]) : [id];
    if (!event.shiftKey) anchor.current = index;
    session.act([select.of({ items })], "select");
  };

  if (fixtures.length === 0) {
    return (
      <div className={classes.empty}>
        <p>Nothing is patched yet. A show begins with its rig: choose a type, how many, and where they start.</p>
        <Button onClick={onPatch}>Patch the first fixtures</Button>
      </div>
    );
  }
  return (
    <div ref={scroll} className={classes.scroll} role="table" aria-label="Patch" aria-rowcount={fixtures.length}>
      <div className={`${classes.row} ${classes.titles}`} role="row">
        {["No.", "Name", "Type", "Mode", "Address", "Invert", "Swap", "Scale", "Correct pan, tilt", "Place x, y, z"].map((title) => <span key={title} role="columnheader">{title}</span>)}
      </div>
      <div style={{ height: rows.getTotalSize(), position: "relative" }}>
        {rows.getVirtualItems().map((row) => (
          <div key={fixtures[row.index]!.id} role="row" className={classes.row} data-chosen={chosen.has(fixtures[row.index]!.id)} style={{ position: "absolute", top: row.start, left: 0, right: 0, height: ROW }} onClick={(e) => press(row.index, e)}>
            <FixtureCells fixture={fixtures[row.index]!} type={show.types[fixtures[row.index]!.type]!} />
          </div>
        ))}
      </div>
    </div>
  );
}

function FixtureCells({ fixture, type }: { fixture: Fixture; type: { maker: string; model: string } }) {
  const session = useSession();
  const { number } = fixture;
  const run = (rest: string) => void session.run(`${number} ${rest}`);
  const { pan, tilt } = fixture.correct;
  const { x, y, z } = fixture.place;
  const threeNumbers = (text: string): string | undefined => /^-?\d+(\.\d+)?([\s,]+-?\d+(\.\d+)?){2}$/.test(text) ? text.split(/[\s,]+/).join(" ") : undefined;
  const setPlace = (text: string) => {
    const read = threeNumbers(text);
    if (read) run(`place ${read}`);
    else session.tell(`"${text}" is not a place. A place is three numbers in metres: x, y, z`, "refused");
  };
  const setCorrect = (text: string) => {
    const [p, t] = text.split(/[\s,]+/);
    run(`correct pan ${p} tilt ${t ?? 0}`);
  };
  return (
    <>
      <span role="cell" className="num"><EditableText mono value={String(number)} label={`Number of fixture ${number}`} onSave={(text) => run(`renumber ${text}`)} /></span>
      <span role="cell" className={classes.clip}><EditableText value={fixture.name} label={`Name of fixture ${number}`} empty="no name" onSave={(text) => run(`name ${quote(text)}`)} /></span>
      <span role="cell" className={classes.clip}>{type.maker} {type.model}</span>
      <span role="cell" className={classes.clip}>{fixture.mode}</span>
      <span role="cell" className="num"><EditableText mono value={fixture.addresses.map(addressText).join(" ")} label={`Address of fixture ${number}`} empty="unpatched" onSave={(text) => run(text === "" ? "unpatch" : `address ${text}`)} /></span>
      <span role="cell" className={classes.checks}>
        <label><input type="checkbox" checked={fixture.invertPan} onChange={(e) => run(`invert pan ${e.currentTarget.checked ? "on" : "off"}`)} /> pan</label>
        <label><input type="checkbox" checked={fixture.invertTilt} onChange={(e) => run(`invert tilt ${e.currentTarget.checked ? "on" : "off"}`)} /> tilt</label>
      </span>
      <span role="cell" className={classes.checks}><label aria-label={`Swap pan and tilt of fixture ${number}`}><input type="checkbox" checked={fixture.swap} onChange={(e) => run(`swap ${e.currentTarget.checked ? "on" : "off"}`)} /></label></span>
      <span role="cell" className="num"><EditableText mono value={plain(fixture.scale)} label={`Scale of fixture ${number}, percent`} onSave={(text) => run(`scale ${text}`)} /></span>
      <span role="cell" className="num"><EditableText mono value={`${plain(pan)}, ${plain(tilt)}`} label={`Hang correction of fixture ${number}, degrees`} onSave={setCorrect} /></span>
      <span role="cell" className="num"><EditableText mono value={`${plain(x)}, ${plain(y)}, ${plain(z)}`} label={`Place of fixture ${number}, metres`} onSave={setPlace} /></span>
    </>
  );
}
