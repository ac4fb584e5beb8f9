"use client";

import { Button, CloseButton, Menu, Tooltip } from "@mantine/core";
import { IconRefresh } from "@tabler/icons-react";
import { useEffect, useRef, useState } from "react";
import { putOnPage } from "@/core/deck/intents";
import { MOST_PLACES } from "@/core/show/deckSchema";
import { playEffect } from "@/core/cue/intents/intents";
import { deleteEffect, recordEffect, setEffect, updateEffect } from "@/core/effect/intents";
import { castEntries } from "@/core/effect/lane";
import { hold, keepOut } from "@/core/program/intents";
import { puttingBack } from "@/core/program/puttingBack";
import { effectsByNumber, listsByNumber } from "@/core/show/world";
import type { Session } from "@/session/state";
import { EditableText } from "@/ui/base/parts/EditableText";
import { NumberField } from "@/ui/show/NumberField";
import { useKeyTable } from "@/ui/show/keys/useKeyTable";
import { usePage } from "@/ui/show/playing/usePage";
import { useSession, useShow } from "@/ui/show/useSession";
import { editEffect, useEditing } from "@/ui/show/effects/editing";
import type { Target } from "./target";
import classes from "./Effects.module.css";
import { plural } from "@/core/units/plural";

/** The programmer is as it was, however the trial ends. */
function endTrial(session: Session): void {
  const { trial } = useEditing.getState();
  if (!trial) return;
  useEditing.setState({ trial: null });
  const back = puttingBack(trial.before, trial.during, session.store.getState().world.hands);
  if (back.length > 0) session.act(back, "ends the trial");
}

/** What is edited: its name, its fixtures, where it is used; recorded, tried, compared with what it was. */
export function EditorHead({ target }: { target: Target }) {
  const session = useSession();
  const world = useShow((s) => s.world);
  const { shownKey } = useKeyTable();
  const { show, hands } = world;
  const { record } = target;
  const before = useEditing((s) => (s.before?.of === record?.id ? s.before?.voices : undefined));
  useEffect(() => {
    if (record && useEditing.getState().before?.of !== record.id)
      useEditing.setState({ before: { of: record.id, voices: record.voices } });
  }, [record]);
  const [page] = usePage();
  const [after, setAfter] = useState<NonNullable<typeof record>["voices"] | null>(null);
  const trial = useEditing((s) => s.trial);
  const next = (effectsByNumber(show).at(-1)?.number ?? 0) + 1;
  const selection = hands.selection;
  const swap = () => {
    const to = after ?? before;
    if (!record || !to) return;
    setAfter(after ? null : record.voices);
    target.putAll(to.filter((v) => record.voices.some((r) => r.key === v.key)));
  };
  const changed =
    record !== undefined && before !== undefined && JSON.stringify(before) !== JSON.stringify(record.voices);
  const latest = useRef(swap);
  useEffect(() => {
    latest.current = swap;
  });
  useEffect(() => {
    const onKey = () => latest.current();
    addEventListener("bold-comet-before", onKey);
    return () => removeEventListener("bold-comet-before", onKey);
  }, []);
  const tryIt = () => {
    if (!record) return;
    if (trial) return endTrial(session);
    const values = castEntries(show, record, selection);
    const keys = Object.keys(values);
    if (
      keys.length === 0 ||
      session.act(
        [hold.of({ values, says: `tries effect ${record.number}` }), keepOut.of({ keys, out: true })],
        `tries effect ${record.number}, kept out of recording`,
      )
    )
      return;
    const during = session.store.getState().world.hands;
    useEditing.setState({ trial: { of: record.id, before: hands, during } });
  };
  // Another place leaves it running; another effect, or the editor closed, ends it.
  useEffect(() => {
    const end = () => {
      const { open, trial: now } = useEditing.getState();
      if (now && open !== now.of) endTrial(session);
    };
    end();
    return end;
  }, [session, record?.id]);
  /** A lane of its own, in the first free place of the page that is shown. */
  const onLane = (effect: string) => {
    const number = freeList();
    if (session.act([playEffect.of({ list: number, effect })])) return;
    const made = listsByNumber(session.store.getState().world.show).find((l) => l.number === number);
    if (!made) return;
    const to = page?.number ?? 1;
    const place = Array.from({ length: MOST_PLACES }, (_, k) => k + 1).find((n) => !page?.places[n]);
    if (place === undefined) return session.tell(`${made.name} is list ${number}; page ${to} is full`);
    session.act([putOnPage.of({ page: to, place, put: { what: "list", id: made.id, pad: false } })], undefined, true);
    session.tell(`${made.name} is list ${number}: its lane is on page ${to}, place ${place}`);
  };
  const freeList = () => {
    const taken = new Set(listsByNumber(show).map((l) => l.number));
    for (let n = 1; ; n++) if (!taken.has(n)) return n;
  };
  if (!record)
    return (
      <header className={classes.title}>
        <h2>What is held</h2>
        <span className="muted">{plural(target.voices.length, "voice")} in the programmer</span>
        <span className={classes.spacer} />
        {effectsByNumber(show).length > 0 && target.voices.length > 0 && (
          <Menu position="bottom-end" shadow="md" withinPortal>
            <Menu.Target>
              <Button size="compact-sm" variant="default">
                Update …
              </Button>
            </Menu.Target>
            <Menu.Dropdown mah={300} style={{ overflow: "auto" }}>
              {effectsByNumber(show).map((e) => (
                <Menu.Item key={e.id} onClick={() => session.act([updateEffect.of({ effect: e.id })])}>
                  {e.number} {e.name}
                </Menu.Item>
              ))}
            </Menu.Dropdown>
          </Menu>
        )}
        <Tooltip label="Restarts all held effects together">
          <Button
            size="compact-sm"
            variant="default"
            leftSection={<IconRefresh size={13} />}
            onClick={() => void session.event({ kind: "resync", list: null })}
          >
            In step
          </Button>
        </Tooltip>
        {([true, false] as const).map((cast) => (
          <Tooltip
            key={String(cast)}
            label={
              cast
                ? "An effect that keeps these fixtures, and can go on a lane"
                : "An effect that takes whatever is selected"
            }
          >
            <Button
              size="compact-sm"
              variant={cast ? "light" : "default"}
              disabled={target.voices.length === 0}
              onClick={() => {
                if (session.act([recordEffect.of({ number: next, cast })])) return;
                const made = effectsByNumber(session.store.getState().world.show).find((e) => e.number === next);
                if (made) {
                  session.act([updateEffect.of({ effect: made.id })]);
                  editEffect(made.id);
                }
              }}
            >
              Record {next}, {cast ? "cast" : "open"}
            </Button>
          </Tooltip>
        ))}
        <CloseButton aria-label="Close the editor" onClick={() => editEffect(null)} />
      </header>
    );
  return (
    <header className={classes.title}>
      <span className="num">{record.number}</span>
      <EditableText
        value={record.name}
        label="Effect name"
        empty="no name"
        onSave={(name) => session.act([setEffect.of({ effect: record.id, name })])}
      />
      <Menu position="bottom-start" shadow="md" withinPortal>
        <Menu.Target>
          <button type="button" className={classes.chip}>
            {record.cast ? `keeps its ${record.cast.length} fixtures` : "open: takes the selection"}
          </button>
        </Menu.Target>
        <Menu.Dropdown>
          <Menu.Item
            disabled={selection.length === 0}
            onClick={() => session.act([setEffect.of({ effect: record.id, cast: [...selection] })])}
          >
            Cast it on the selection ({selection.length})
          </Menu.Item>
          <Menu.Item
            disabled={!record.cast}
            onClick={() => session.act([setEffect.of({ effect: record.id, cast: null })])}
          >
            Open it to any selection
          </Menu.Item>
          <Menu.Item disabled={!record.cast} onClick={() => onLane(record.id)}>
            Put it on a lane of its own
          </Menu.Item>
          <Menu.Divider />
          <Menu.Item
            color="red"
            onClick={() => (session.act([deleteEffect.of({ effect: record.id })]), editEffect(null))}
          >
            Delete{target.uses ? `: used ${target.uses}, its voices stay there` : " (can be undone)"}
          </Menu.Item>
        </Menu.Dropdown>
      </Menu>
      <span className={classes.uses}>{target.uses ? `used ${target.uses}` : "nothing uses it yet"}</span>
      <span className={classes.spacer} />
      <NumberField
        size="xs"
        w={64}
        aria-label="Speed of all voices"
        title="Speed of all voices, percent of their own"
        suffix=" %"
        min={0}
        max={1000}
        step={5}
        value={record.rate}
        onSet={(rate, first) => void session.act([setEffect.of({ effect: record.id, rate })], undefined, !first)}
      />
      <Tooltip label={`As it was when it was opened, and as it is now (${shownKey("before")})`}>
        <Button
          size="compact-sm"
          variant={after ? "light" : "default"}
          disabled={!changed && !after}
          aria-pressed={after !== null}
          onClick={swap}
        >
          {after ? "Before" : "Before / after"}
        </Button>
      </Tooltip>
      <Tooltip label="Runs it on the selection, kept out of recording, until pressed again">
        <Button
          size="compact-sm"
          variant={trial ? "light" : "default"}
          disabled={!trial && selection.length === 0}
          aria-pressed={trial !== null}
          onClick={tryIt}
        >
          Trial
        </Button>
      </Tooltip>
      <CloseButton aria-label="Close the editor" onClick={() => editEffect(null)} />
    </header>
  );
}
