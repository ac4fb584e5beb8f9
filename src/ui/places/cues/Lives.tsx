"use client";

import { useMemo, useState, useCallback } from "react";
import { attributeInfo, withUnit } from "@/core/fixture/attribute";
import { driftsOf } from "@/core/cue/drift";
import { isLitIn, lifeOf, usedIn, type Change } from "@/core/cue/life";
import { trackingOf } from "@/core/cue/tracking";
import { select } from "@/core/select/intents";
import { splitItem, splitKey } from "@/core/show/ids";
import { specOf } from "@/core/show/model";
import type { Cue, CueList, Fixture, Show } from "@/core/show/schema";
import { plain } from "@/core/units/units";
import { normal } from "@/ui/base/sheet/range";
import { Sheet } from "@/ui/base/sheet/Sheet";
import type { Look } from "@/ui/base/sheet/looks";
import { startView, type SheetColumn, type SheetView } from "@/ui/base/sheet/view";
import { useSession, useShow } from "@/ui/show/useSession";
import type { Chosen } from "@/ui/features/cues/useChosen";
import classes from "@/ui/features/cues/Cues.module.css";

const FIXTURE: SheetColumn = { id: "fixture", title: "Fixture", hint: "the fixture", width: 168, kind: "text" };
const VIEW: SheetView = startView([], false);
const NOTHING: ReadonlySet<string> = new Set();

interface Row {
  id: string;
  fixture: Fixture;
}
interface CueColumn extends SheetColumn {
  at: number;
}

function changeText(show: Show, { key, from, to }: Change): string {
  const spec = specOf(show, key);
  const name = (fn: number) => spec?.functions[fn]?.attribute ?? splitKey(key).head;
  const value = (v: Change["to"]) => withUnit(Number(plain(v.value, 1)), name(v.fn));
  return `${attributeInfo(name(to.fn)).label.toLowerCase()} ${value(from)} to ${value(to)}`;
}

/** Each fixture's life through the list in a row: lit, dark, moved beforehand, drifting. */
export function Lives({ list, cues, chosen }: { list: CueList; cues: readonly Cue[]; chosen: Chosen }) {
  const session = useSession();
  const show = useShow((s) => s.world.show);
  const selection = useShow((s) => s.world.hands.selection);
  const moons = useShow((s) => s.checked?.moons);
  const [view, setView] = useState(VIEW);
  const columns = useMemo(
    (): CueColumn[] => [
      { ...FIXTURE, at: -1 },
      ...cues.map((c, at): CueColumn => ({
        id: c.id,
        title: plain(c.number, 3),
        hint: `cue ${plain(c.number, 3)} ${c.name}`,
        width: 46,
        kind: "text",
        at,
      })),
    ],
    [cues],
  );
  const rows = useMemo(() => {
    const wanted = new Set(selection.map((i) => splitItem(i).fixture));
    const used = usedIn(show, trackingOf(list, show)).filter((f) => wanted.size === 0 || wanted.has(f.id));
    return used.sort((a, b) => a.number - b.number).map((fixture): Row => ({ id: fixture.id, fixture }));
  }, [show, list, selection]);
  const lines = useMemo(() => rows.map((row, index) => ({ row, index })), [rows]);
  const drifts = useMemo(
    () => new Map(driftsOf(show, list).map((d) => [`${d.fixture} ${d.at}`, d.kind])),
    [show, list],
  );
  const look = useCallback(
    ({ fixture }: Row, { at, hint }: CueColumn): Look => {
      if (at < 0) return { content: `${fixture.number} ${fixture.name}` };
      const life = lifeOf(show, list, fixture);
      const lit = isLitIn(life, at);
      const drift = drifts.get(`${fixture.id} ${at}`);
      const moon = moons?.[cues[at]!.id]?.includes(fixture.id) ?? false;
      const changes = life.changes.get(at) ?? [];
      const words = [
        lit ? "lit" : "dark",
        moon && "it has moved here beforehand, in the dark",
        drift === "lit" && "drifts while it fades out",
        drift === "dark" && "drifts unseen",
        ...changes.slice(0, 6).map((c) => changeText(show, c)),
      ];
      return {
        content: (
          <span className={classes.life} data-lit={lit} data-drift={drift}>
            {moon ? "☾" : ""}
            {drift ? "△" : lit && changes.length > 0 && at > 0 ? "↝" : ""}
          </span>
        ),
        title: `${fixture.number} in ${hint}: ${words.filter(Boolean).join("; ")}`,
      };
    },
    [show, list, cues, drifts, moons],
  );
  return (
    <section className={classes.sheetWide} aria-label="Fixtures through the list">
      <p className={classes.legend}>
        <i className={classes.life} data-lit="true" /> lit <i className={classes.life} data-lit="false" /> dark · ☾
        moved there beforehand · ↝ changes while lit · <b>△</b> drift{" "}
        <span className="muted">· {selection.length > 0 ? "the selected fixtures" : "all that the list uses"}</span>
      </p>
      <div className={classes.sheetBody}>
        <Sheet
          label="Fixtures through the list"
          columns={columns}
          lines={lines}
          lead={1}
          view={view}
          setView={setView}
          chosen={NOTHING}
          look={look}
          onToggle={(row) => rows[row] && session.act([select.of({ items: [rows[row].id] })], "select")}
          onTake={(r) => {
            if (!r) return;
            const { c2 } = normal(r);
            const cue = cues[c2 - 1];
            if (cue && cue.id !== chosen.shown) chosen.choose(cue.id);
          }}
          onFill={() => undefined}
          editFrom={() => null}
          onPut={() => undefined}
          onEmpty={() => undefined}
          copied={(r) => {
            const { r1, r2, c1, c2 } = normal(r);
            return rows
              .slice(r1, r2 + 1)
              .map(({ fixture }) =>
                cues
                  .slice(Math.max(0, c1 - 1), c2)
                  .map((_, k) => (isLitIn(lifeOf(show, list, fixture), Math.max(0, c1 - 1) + k) ? "lit" : "dark"))
                  .join("\t"),
              )
              .join("\n");
          }}
          onPaste={() => undefined}
          nameOf={({ fixture }, column) => `fixture ${fixture.number} in ${column.hint}`}
          empty={<p className={classes.hint}>This list stores nothing for them.</p>}
        />
      </div>
    </section>
  );
}
