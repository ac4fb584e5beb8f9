"use client";

import { useCallback, useEffect, useRef, useState } from "react";
import { recordCue } from "@/core/cue/intents/recordIntents";
import { cuesOf, listsByNumber } from "@/core/show/world";
import { Paper } from "@/ui/features/paper/Paper";
import { Split } from "@/ui/base/parts/Split";
import { REMEMBERED } from "@/ui/base/preferences/registry";
import { useRemembered } from "@/ui/base/preferences/remembered";
import { Stage } from "@/ui/stage/Stage";
import { useSession, useShow } from "@/ui/show/useSession";
import { CueSheet } from "./CueSheet";
import { CueTable, matches } from "./CueTable";
import { numberBefore } from "@/ui/features/cues/cueRoom";
import { CleanDialog } from "@/ui/features/cues/CleanDialog";
import { CueTools } from "./CueTools";
import { ListIndex } from "@/ui/features/cues/ListIndex";
import { ListOptions } from "@/ui/features/cues/ListOptions";
import { Lives } from "./Lives";
import { useShownCue } from "@/ui/features/cues/showCue";
import { RipplePanel } from "@/ui/features/cues/RipplePanel";
import { useChosen } from "@/ui/features/cues/useChosen";
import classes from "@/ui/features/cues/Cues.module.css";

/** A cue list as a filmstrip; the stage, what an edit would change, and values through the list. */
export function CuesPlace() {
  const session = useSession();
  const { show, hands } = useShow((s) => s.world);
  const lists = listsByNumber(show);
  const [picked, setPicked] = useState<string | null>(null);
  const [paper, setPaper] = useState(false);
  const [cleaning, setCleaning] = useState(false);
  const [find, setFind] = useState("");
  /** A cue that is to be brought into sight. */
  const [sight, setSight] = useState<string | null>(null);
  const [shape, setShape] = useRemembered(REMEMBERED.cuesShape);
  const [follows, setFollows] = useRemembered(REMEMBERED.cuesFollow);
  // While it follows, the armed list is what is seen.
  const list = (follows ? undefined : show.lists[picked ?? ""]) ?? show.lists[hands.armed] ?? lists[0];
  const cues = list ? cuesOf(list) : [];
  const chosen = useChosen(cues);
  useEffect(() => chosen.choose(null), [list?.id]); // oxlint-disable-line react-hooks/exhaustive-deps
  const wanted = useShownCue();
  useEffect(() => {
    if (!wanted.list || !wanted.cue) return;
    setFollows(false);
    setPicked(wanted.list);
    if (list?.id !== wanted.list) return;
    chosen.choose(wanted.cue);
    setSight(wanted.cue);
    useShownCue.setState({ list: null, cue: null });
  }, [wanted, list?.id]); // oxlint-disable-line react-hooks/exhaustive-deps
  const insert = useRef(() => undefined as void);
  const inserts = useCallback(() => insert.current(), []);
  const cleans = useCallback(() => setCleaning(true), []);
  const prints = useCallback(() => setPaper(true), []);
  if (!list) return null;
  const found = find.trim() ? cues.filter((c) => matches(c, find)).length : 0;
  insert.current = () => {
    const at = cues.findIndex((c) => c.id === chosen.shown);
    const number = numberBefore(cues, at < 0 ? cues.length : at + 1);
    if (number === undefined) return session.tell("no number is left there: renumber the list first", "refused");
    session.act([recordCue.of({ list: list.number, cue: number, empty: true })]);
  };
  const left = (
    <section className={classes.left}>
      <header className={classes.head}>
        <ListIndex
          list={list}
          onChoose={(id) => {
            setPicked(id);
            setFollows(false);
          }}
        />
        <CueTools
          cues={cues.length}
          many={chosen.ids.size}
          found={found}
          find={find}
          setFind={setFind}
          shape={shape}
          setShape={setShape}
          follows={follows}
          setFollows={setFollows}
          onInsert={inserts}
          onClean={cleans}
          onPaper={prints}
        />
        <ListOptions list={list} />
        {cleaning && <CleanDialog list={list} onClose={() => setCleaning(false)} />}
        {paper && <Paper onClose={() => setPaper(false)} />}
      </header>
      {shape === "sheet" ? (
        <CueSheet list={list} cues={cues} chosen={chosen} />
      ) : shape === "lives" ? (
        <Lives list={list} cues={cues} chosen={chosen} />
      ) : (
        <CueTable list={list} cues={cues} chosen={chosen} follows={follows} find={find.trim()} sight={sight} />
      )}
    </section>
  );
  return (
    <Split
      name="cues-across"
      label="Width of the list"
      keeps="second"
      size="33.5%"
      least={[440, 260]}
      first={left}
      second={
        <aside className={classes.right}>
          {shape === "sheet" ? (
            <>
              <div className={classes.stage}>
                <Stage />
              </div>
              <RipplePanel />
            </>
          ) : (
            <Split
              name="cues-down"
              label="Height of the stage"
              keeps="first"
              size={250}
              least={[140, 140]}
              first={<Stage />}
              second={
                <div className={classes.below}>
                  <RipplePanel />
                  <CueSheet list={list} cues={cues} chosen={chosen} narrow />
                </div>
              }
            />
          )}
        </aside>
      }
    />
  );
}
