"use client";

import { Slider } from "@mantine/core";
import { useEffect, useLayoutEffect, useRef, useState } from "react";
import { cuesOf, listsByNumber } from "@/core/show/world";
import { timesText } from "@/core/cue/times";
import { plain } from "@/core/units/units";
import { LookPicture } from "@/ui/stage/pictures/LookPicture";
import { Split } from "@/ui/base/parts/Split";
import { Stage } from "@/ui/stage/Stage";
import { useSession, useShow } from "@/ui/show/useSession";
import { NowNext } from "./NowNext";
import { PageBar } from "./PageBar";
import { PagePlaces } from "./PagePlaces";
import { ScreenLock } from "./ScreenLock";
import { TallLane } from "./TallLane";
import { TimecodeStrip } from "./TimecodeStrip";
import { usePage } from "@/ui/show/playing/usePage";
import { startsText } from "@/ui/show/playing/playbackWords";
import classes from "./Run.module.css";

/** Now and next, a page of lanes and pads, the stage, and the armed list with its current cue centred. */
export function RunPlace() {
  const session = useSession();
  const { show, hands } = useShow((s) => s.world);
  const grand = useShow((s) => s.playing.grand);
  const [page, pages, choose] = usePage();
  const [arranges, setArranges] = useState(false);
  const [locked, setLocked] = useState(false);
  const armed = show.lists[hands.armed];
  /** Each page is where its hand left it. */
  const places = useRef<HTMLDivElement>(null);
  const scrolled = useRef<Record<string, number>>({});
  useLayoutEffect(() => {
    if (places.current) places.current.scrollTop = scrolled.current[page?.id ?? ""] ?? 0;
  }, [page?.id]);
  return (
    <>
      <Split
        name="run-across"
        label="Width of the deck"
        keeps="first"
        size="50.3%"
        least={[520, 260]}
        first={
          <section className={classes.left} aria-label="Deck">
            {armed && <NowNext listId={armed.id} />}
            <PageBar
              page={page}
              pages={pages}
              onChoose={choose}
              arranges={arranges}
              onArrange={setArranges}
              onLock={() => setLocked(true)}
            />
            <TimecodeStrip />
            <div
              ref={places}
              className={classes.places}
              onScroll={(e) => void (scrolled.current[page?.id ?? ""] = e.currentTarget.scrollTop)}
            >
              {page ? (
                <PagePlaces page={page} arranges={arranges} />
              ) : (
                <div className={classes.lanes}>
                  {listsByNumber(show).map((list) => (
                    <div key={list.id} className={classes.slot}>
                      <TallLane list={list} />
                    </div>
                  ))}
                </div>
              )}
            </div>
            <label className={classes.grand} data-learn="grand">
              grand master
              <Slider
                thumbLabel="Grand master"
                aria-label="Grand master"
                style={{ flex: 1 }}
                size="lg"
                value={grand}
                onChange={(value) => void session.event({ kind: "grand", value })}
                label={null}
                color="indigo"
              />
              <span className="num">{plain(grand, 0)}</span>
            </label>
          </section>
        }
        second={
          armed ? (
            <Split
              name="run-down"
              label="Height of the stage"
              keeps="first"
              size="55%"
              least={[140, 100]}
              first={<Stage live />}
              second={<ArmedList listId={armed.id} />}
            />
          ) : (
            <Stage live />
          )
        }
      />
      {locked && <ScreenLock onOpen={() => setLocked(false)} />}
    </>
  );
}

function ArmedList({ listId }: { listId: string }) {
  const session = useSession();
  const list = useShow((s) => s.world.show.lists[listId]!);
  const run = useShow((s) => s.playing.runs[listId]);
  const here = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    void here.current?.scrollIntoView({ block: "center", behavior: "smooth" });
  }, [run?.cue]);
  const cues = cuesOf(list);
  return (
    <section className={classes.list} aria-label={`Cues of ${list.name}`}>
      {cues.length === 0 && <p className={classes.empty}>No cues in {list.name} yet.</p>}
      {cues.map((cue) => {
        const leads = cue.then === undefined ? undefined : list.cues[cue.then];
        return (
          <button
            key={cue.id}
            ref={cue.id === run?.cue ? here : undefined}
            type="button"
            className={classes.cue}
            data-now={cue.id === run?.cue}
            data-next={cue.id === run?.next}
            title={`Sets cue ${plain(cue.number, 3)} as next`}
            onClick={() => void session.event({ kind: "next", list: listId, cue: cue.id })}
          >
            <span className={`${classes.number} num`}>{plain(cue.number, 3)}</span>
            <LookPicture
              list={listId}
              cue={cue.id}
              width={60}
              height={44}
              label={`Look of cue ${plain(cue.number, 3)}`}
            />
            <span className={classes.words}>
              <strong>{cue.name || "no name"}</strong>
              {cue.note && <span className="muted">{cue.note}</span>}
            </span>
            <span className={`${classes.time} num`}>
              {cue.id === run?.next ? "next · " : ""}
              {timesText(cue.times)} s{cue.trigger.kind === "go" ? "" : ` · ${startsText(cue)}`}
              {leads ? ` · then ${plain(leads.number, 3)}` : ""}
            </span>
          </button>
        );
      })}
    </section>
  );
}
