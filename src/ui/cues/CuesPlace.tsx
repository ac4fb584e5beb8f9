"use client";

import { ActionIcon, SegmentedControl, TextInput, Tooltip } from "@mantine/core";
import { IconArrowBarToDown, IconPlus, IconPrinter, IconSearch, IconSparkles } from "@tabler/icons-react";
import { useEffect, useState } from "react";
import { z } from "@/core/units/zod";
import { recordCue } from "@/core/cue/recordIntents";
import { cuesOf, listsByNumber } from "@/core/show/world";
import { Paper } from "../paper/Paper";
import { usePrefs } from "../parts/usePrefs";
import { Stage } from "../stage/Stage";
import { useSession, useShow } from "../useSession";
import { CueSheet } from "./CueSheet";
import { CueTable, matches } from "./CueTable";
import { numberBefore } from "./cueRoom";
import { CleanDialog } from "./CleanDialog";
import { ListIndex } from "./ListIndex";
import { ListOptions } from "./ListOptions";
import { Lives } from "./Lives";
import { useShownCue } from "./showCue";
import { RipplePanel } from "./RipplePanel";
import { useChosen } from "./useChosen";
import classes from "./Cues.module.css";

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
  const [shape, setShape] = usePrefs("bold-comet-cues-shape", z.enum(["film", "sheet", "lives"]), "film");
  const [follows, setFollows] = usePrefs("bold-comet-cues-follow", z.boolean(), false);
  // While it follows, the armed list is what is seen.
  const list = (follows ? undefined : show.lists[picked ?? ""]) ?? show.lists[hands.armed] ?? lists[0];
  const cues = list ? cuesOf(list) : [];
  const chosen = useChosen(cues);
  useEffect(() => chosen.choose(null), [list?.id]); // eslint-disable-line react-hooks/exhaustive-deps
  const wanted = useShownCue();
  useEffect(() => {
    if (!wanted.list || !wanted.cue) return;
    setFollows(false);
    setPicked(wanted.list);
    if (list?.id !== wanted.list) return;
    chosen.choose(wanted.cue);
    setSight(wanted.cue);
    useShownCue.setState({ list: null, cue: null });
  }, [wanted, list?.id]); // eslint-disable-line react-hooks/exhaustive-deps
  if (!list) return null;
  const found = find.trim() ? cues.filter((c) => matches(c, find)).length : 0;
  const insert = () => {
    const at = cues.findIndex((c) => c.id === chosen.shown);
    const number = numberBefore(cues, at < 0 ? cues.length : at + 1);
    if (number === undefined) return session.tell("no number is left there: renumber the list first", "refused");
    session.act([recordCue.of({ list: list.number, cue: number, empty: true })]);
  };
  return (
    <div className={classes.cues}>
      <section className={classes.left}>
        <header className={classes.head}>
          <ListIndex
            list={list}
            onChoose={(id) => {
              setPicked(id);
              setFollows(false);
            }}
          />
          <SegmentedControl
            size="xs"
            aria-label="How the list is seen"
            data={[
              { value: "film", label: "Filmstrip" },
              { value: "sheet", label: "Sheet" },
              { value: "lives", label: "Lives" },
            ]}
            value={shape}
            onChange={setShape}
          />
          <span className={classes.mark}>{cues.length} cues</span>
          {chosen.ids.size > 1 && (
            <span className={classes.many} data-testid="many-cues">
              {chosen.ids.size} chosen: an edit goes to all of them
            </span>
          )}
          <span className={classes.grow} />
          <TextInput
            size="xs"
            w={132}
            aria-label="Find a cue by number, name or note"
            placeholder="find a cue"
            leftSection={<IconSearch size={13} />}
            rightSection={find.trim() ? <span className="num muted">{found}</span> : null}
            value={find}
            onChange={(e) => setFind(e.currentTarget.value)}
            onKeyDown={(e) => e.key === "Escape" && setFind("")}
          />
          <Tooltip label="Follow: the armed list, its running cue kept in sight">
            <ActionIcon
              size={28}
              variant={follows ? "light" : "default"}
              aria-pressed={follows}
              aria-label="Follow the running cue"
              onClick={() => setFollows(!follows)}
            >
              <IconArrowBarToDown size={16} />
            </ActionIcon>
          </Tooltip>
          <Tooltip label="An empty cue after the chosen one: everything tracks through it">
            <ActionIcon size={28} variant="default" aria-label="Insert a cue" onClick={insert}>
              <IconPlus size={16} />
            </ActionIcon>
          </Tooltip>
          <Tooltip label="Clean: drift taken out, every look stays">
            <ActionIcon size={28} variant="default" aria-label="Clean the list" onClick={() => setCleaning(true)}>
              <IconSparkles size={16} />
            </ActionIcon>
          </Tooltip>
          <Tooltip label="On paper: cue sheet, patch, groups and palettes, printed or as CSV">
            <ActionIcon size={28} variant="default" aria-label="On paper" onClick={() => setPaper(true)}>
              <IconPrinter size={16} />
            </ActionIcon>
          </Tooltip>
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
      <aside className={classes.right}>
        <div className={classes.stage}>
          <Stage />
        </div>
        <RipplePanel />
        {shape !== "sheet" && <CueSheet list={list} cues={cues} chosen={chosen} narrow />}
      </aside>
    </div>
  );
}
