"use client";

import { Button, Modal, Text, TextInput } from "@mantine/core";
import { useCallback, useEffect, useMemo, useState } from "react";
import { cueChanges, recordChanges, type CueChange, type RecordChange } from "@/core/cue/compare";
import { fromVersion } from "@/core/cue/intents/fromVersionIntent";
import { isRefusal, refusalText } from "@/core/show/refusal";
import { restoreShow } from "@/core/show/change/restore";
import type { Show } from "@/core/show/schema";
import { plain } from "@/core/units/units";
import { momentPicture } from "@/session/momentPicture";
import { keepMoment, listMoments, openMoment, type Moment } from "@/session/storage/moments";
import { createLatest } from "@/ui/base/parts/latest";
import { LookPicture } from "@/ui/stage/pictures/LookPicture";
import { useSession, useShow } from "@/ui/show/useSession";
import { changeText, recordText } from "./differs";
import classes from "./Versions.module.css";
import { plural } from "@/core/units/plural";

const PICTURE = { width: 118, height: 84 };
const MOST = 200;
const ONE = { palettes: "palette", effects: "effect", groups: "group", lists: "list" } as const;

/** Earlier moments of the show with their pictures: what has changed since each, and any one thing, or all of it, as it was then. */
export function TimeMachine({ opened, onClose }: { opened: boolean; onClose(): void }) {
  const session = useSession();
  const [moments, setMoments] = useState<Moment[] | null>(null);
  const [name, setName] = useState("");
  const [chosen, setChosen] = useState<number | null>(null);
  const [then, setThen] = useState<Show | null>(null);
  const refresh = useCallback(async () => setMoments(await listMoments(session.id)), [session]);
  useEffect(() => {
    if (opened) void refresh();
  }, [opened, refresh]);

  const keepNow = async (called: string, named: boolean) =>
    keepMoment(session.id, called, session.store.getState().world.show, {
      named,
      picture: await momentPicture(session),
    });
  const keep = async () => {
    await keepNow(name.trim() || "Kept by hand", true);
    setName("");
    await refresh();
  };
  const [latest] = useState(createLatest);
  const choose = async (at: number) => {
    setChosen(at);
    setThen(null);
    const found = await latest(openMoment(session.id, at));
    if (!found) return;
    const show = found.answer;
    if (isRefusal(show)) return session.tell(refusalText(show), "refused");
    setThen(show);
  };
  const goBack = async (show: Show) => {
    await keepNow("Before going back", false);
    if (session.act([restoreShow.of({ show })], "goes back to an earlier version")) return;
    session.tell("The show is as it was then. Undo brings back what was.");
    onClose();
  };
  return (
    <Modal opened={opened} onClose={onClose} title="Time machine" centered size={1120}>
      <div className={classes.machine}>
        <section className={classes.moments} aria-label="Moments">
          <form
            style={{ display: "flex", gap: 6 }}
            onSubmit={(e) => {
              e.preventDefault();
              void keep();
            }}
          >
            <TextInput
              size="xs"
              style={{ flex: 1 }}
              aria-label="Name of this moment"
              placeholder="name this moment"
              maxLength={120}
              value={name}
              onChange={(e) => setName(e.currentTarget.value)}
            />
            <Button type="submit" size="compact-sm" h={30}>
              Keep this moment
            </Button>
          </form>
          {moments?.length === 0 && (
            <Text c="dimmed">No moments yet. The first is kept when something has changed.</Text>
          )}
          <ul>
            {moments?.map((m) => (
              <li key={m.at}>
                <button
                  type="button"
                  className={classes.moment}
                  data-testid="moment"
                  aria-pressed={m.at === chosen}
                  onClick={() => void choose(m.at)}
                >
                  {m.picture ? <img src={m.picture} alt="" /> : <i aria-hidden />}
                  <span>
                    <b>{m.name}</b>
                    {new Date(m.at).toLocaleString(undefined, { dateStyle: "medium", timeStyle: "short" })}
                    <br />
                    <span className="muted">
                      {m.fixtures} fixtures, {m.cues} cues
                    </span>
                  </span>
                </button>
              </li>
            ))}
          </ul>
          <Text size="xs" c="dimmed">
            One comes by itself when a show is opened and every ten minutes. Those that were named stay.
          </Text>
        </section>
        {then ? (
          <Since then={then} onAll={() => void goBack(then)} />
        ) : (
          <Text c="dimmed">
            Choose a moment: what has changed since then is listed here, and each thing can come back.
          </Text>
        )}
      </div>
    </Modal>
  );
}

/** What has changed since a version, each with its pictures and a way back. */
function Since({ then, onAll }: { then: Show; onAll(): void }) {
  const session = useSession();
  const show = useShow((s) => s.world.show);
  const cues = useMemo(() => cueChanges(then, show), [then, show]);
  const records = useMemo(() => recordChanges(then, show), [then, show]);
  const nothing = cues.length + records.length === 0;
  const bring = (fields: Omit<Parameters<typeof fromVersion.of>[0], "show">) =>
    session.act([fromVersion.of({ show: then, ...fields })]);
  return (
    <section className={classes.other} aria-label="What has changed since">
      <div style={{ display: "flex", alignItems: "center", gap: 12 }}>
        <strong>
          {nothing
            ? "Nothing has changed since."
            : `Since then: ${[
                cues.length > 0 && plural(cues.length, "cue"),
                records.length > 0 && plural(records.length, "other thing"),
              ]
                .filter(Boolean)
                .join(" and ")}`}
        </strong>
        <span style={{ flex: 1 }} />
        <Button size="compact-sm" variant="default" disabled={nothing} onClick={onAll}>
          Restore the whole show
        </Button>
      </div>
      <div className={classes.rows}>
        {cues.slice(0, MOST).map((change) => (
          <CueRow key={change.cue} then={then} now={show} change={change} onBring={bring} />
        ))}
        {records.slice(0, MOST).map((change) => (
          <RecordRow key={`${change.what} ${change.id}`} then={then} now={show} change={change} onBring={bring} />
        ))}
        {cues.length > MOST || records.length > MOST ? <Text c="dimmed">and more</Text> : null}
      </div>
    </section>
  );
}

type Bring = (fields: Omit<Parameters<typeof fromVersion.of>[0], "show">) => unknown;

function CueRow({ then, now, change, onBring }: { then: Show; now: Show; change: CueChange; onBring: Bring }) {
  const { list, cue, how, look } = change;
  const [was, is] = [then.lists[list]?.cues[cue], now.lists[list]?.cues[cue]];
  const marks = useMemo(() => look.map((d) => d.fixture), [look]);
  const number = plain((is ?? was)!.number, 3);
  const back = (keepLooks: boolean) => onBring({ what: "cue", id: cue, list, ...(keepLooks ? { keepLooks } : {}) });
  return (
    <article className={classes.row} data-testid="since-cue">
      <span className={classes.pair}>
        {was && <LookPicture list={list} cue={cue} {...PICTURE} of={then} marks={marks} label={`Cue ${number} then`} />}
        {is && <LookPicture list={list} cue={cue} {...PICTURE} marks={marks} label={`Cue ${number} now`} />}
      </span>
      <div>
        cue <span className="num">{number}</span> <b>{(is ?? was)!.name}</b>{" "}
        <span className="muted">of {now.lists[list]?.name}</span>
        <p>{changeText(change)}</p>
        {was && is && <p>then and now</p>}
      </div>
      {how === "new" || (how === "changed" && change.fields.length === 0) ? (
        <span />
      ) : (
        <span className={classes.deeds}>
          <Button size="compact-sm" variant="light" onClick={() => back(true)}>
            Restore it
          </Button>
          <Button
            size="compact-xs"
            variant="subtle"
            color="gray"
            title="What it stores tracks on into the cues after it"
            onClick={() => back(false)}
          >
            and let it track
          </Button>
        </span>
      )}
    </article>
  );
}

function RecordRow({ then, now, change, onBring }: { then: Show; now: Show; change: RecordChange; onBring: Bring }) {
  const what = ONE[change.what as keyof typeof ONE];
  return (
    <article className={classes.row} data-testid="since-record">
      <span />
      <div>{recordText(then, now, change)}</div>
      {what && change.how !== "new" ? (
        <Button size="compact-sm" variant="light" onClick={() => onBring({ what, id: change.id })}>
          Restore it
        </Button>
      ) : (
        <span />
      )}
    </article>
  );
}
