"use client";

import { Button, Checkbox, Group, Modal, Stack, Text, Tooltip, UnstyledButton } from "@mantine/core";
import { IconAlertTriangle } from "@tabler/icons-react";
import { useEffect, useMemo, useState } from "react";
import { createPortal } from "react-dom";
import { create } from "zustand";
import { identify, setBlind, setHighlight, unpark } from "@/core/program/intents";
import { WAITING } from "@/core/dmx/consent";
import { isRefusal, refusalText } from "@/core/show/refusal";
import { addShow } from "@/session/storage/shows";
import { saveShowFile } from "@/ui/base/files/saveFile";
import { REMEMBERED } from "@/ui/base/preferences/registry";
import { keep as remember } from "@/ui/base/preferences/remembered";
import { useBlind } from "@/ui/show/blind";
import { useShallow } from "zustand/react/shallow";
import { useSession, useShow } from "@/ui/show/useSession";
import { APP_GONE, isAppThere, useLeave, usePlaces } from "@/ui/show/addresses/places";
import { truthsOf, type Truth, type TruthAct } from "./truths";
import classes from "./Shell.module.css";
import { plural } from "@/core/units/plural";

/** So many are named in the top bar. */
const NAMED = 2;
/** A bridge that is not reached for less than this is on its way. */
const GRACE_MS = 1500;

/** The row under the top bar in which truths are told in full. */
const useBand = create<{ row: HTMLElement | null }>(() => ({ row: null }));

/** One for good: another with each drawing would take the row away and bring it back. */
const keepRow = (row: HTMLElement | null) => useBand.setState({ row });

/** Where the row is. */
export const TruthBand = () => <div className={classes.band} ref={keepRow} />;

/** Whether the bridge has not been reached for a while. */
function useUnreached(): boolean {
  const reached = useShow((s) => s.wire.bridge !== null);
  const [late, setLate] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setLate(!reached), reached ? 0 : GRACE_MS);
    return () => clearTimeout(timer);
  }, [reached]);
  return late && !reached;
}

/** So often the app is asked whether it is there, milliseconds. */
const APP_EVERY_MS = 4000;

/** Whether the app has stopped answering. */
function useAppless(): boolean {
  const [appless, setAppless] = useState(false);
  useEffect(() => {
    const timer = setInterval(() => void isAppThere().then((there) => setAppless(!there)), APP_EVERY_MS);
    return () => clearInterval(timer);
  }, []);
  return appless;
}

function useTruths(): Truth[] {
  const { readOnly } = useSession();
  const outputs = useShow((s) => s.world.show.outputs);
  const { blind, highlight, identified, parked } = useShow(
    useShallow(({ world: { hands } }) => ({
      blind: hands.blind,
      highlight: hands.highlight,
      identified: hands.identified,
      parked: hands.parked,
    })),
  );
  const name = useShow((s) => s.world.show.name);
  const wire = useShow((s) => s.wire);
  const unreached = useUnreached();
  const gone = useShow((s) => s.gone);
  const appless = useAppless();
  const unsaved = useShow((s) => s.saved === "failed");
  const { grand, blackout, shut } = useShow(
    useShallow(({ world: { show }, playing }) => ({
      grand: playing.grand,
      blackout: playing.blackout,
      shut: Object.entries(playing.runs)
        .flatMap(([id, run]) => (show.lists[id]?.kind === "limiter" && run.level === 0 ? [show.lists[id].name] : []))
        .join(", "),
    })),
  );
  return useMemo(
    () =>
      truthsOf({
        readOnly,
        world: { show: { outputs, name }, hands: { blind, highlight, identified, parked } },
        wire,
        unreached,
        gone,
        appless,
        unsaved,
        masters: { grand, blackout, shut: shut ? shut.split(", ") : [] },
      }),
    [
      readOnly,
      outputs,
      name,
      blind,
      highlight,
      identified,
      parked,
      wire,
      unreached,
      gone,
      appless,
      unsaved,
      grand,
      blackout,
      shut,
    ],
  );
}

/** At the top: how many universes leave, or in words why they do not; and in a row below it what must not be overlooked. */
export function Truths() {
  const session = useSession();
  const { go } = usePlaces();
  const leave = useLeave();
  const truths = useTruths();
  const universes = useShow((s) => s.view?.layout.universes.length ?? 0);
  const [seen, setSeen] = useState<readonly string[]>([]);
  const [asking, setAsking] = useState(false);
  const row = useBand((s) => s.row);
  /** Quiet ones that somebody wanted to see. */
  const [asked, setAsked] = useState<readonly string[]>([]);
  const ids = truths.map((t) => t.id).join();
  // What is over is told again when it comes again.
  useEffect(() => {
    const there = (now: readonly string[]) => now.filter((id) => ids.split(",").includes(id));
    setSeen(there);
    setAsked(there);
  }, [ids]);
  // A frame around the picture says so itself.
  const framed = useBlind((s) => s.frames > 0);
  const shown = truths.filter(
    (t) => !seen.includes(t.id) && (!t.quiet || asked.includes(t.id)) && !(framed && t.id === "blind"),
  );

  const keep = async () => {
    const { world } = session.store.getState();
    const show = { ...world.show, name: `${world.show.name.slice(0, 180)} (earlier)` };
    const id = await addShow({ ...world, show }, WAITING);
    if (isRefusal(id)) return session.tell(refusalText(id), "refused");
    if (!(await leave(`/show/${id}/build`))) session.tell(APP_GONE, "refused");
  };
  const acts: Record<TruthAct, () => void> = {
    take: () => session.askWire("take"),
    consent: () => setAsking(true),
    live: () => session.act([setBlind.of({ on: false })], "blind off"),
    dim: () => session.act([setHighlight.of({ on: false })], "highlight off"),
    unidentify: () => session.act([identify.of({ items: [] })], "identify off"),
    unpark: () =>
      session.act([unpark.of({ keys: Object.keys(session.store.getState().world.hands.parked) })], "unpark all"),
    outputs: () => (remember(REMEMBERED.rigTab, "outputs"), go("rig")),
    keep: () => void keep(),
    light: () => void session.event({ kind: "blackout", on: false }),
    grand: () => void session.event({ kind: "grand", value: 100 }),
    run: () => go("run"),
    reload: () => location.reload(),
    file: () => saveShowFile(session.store.getState().world.show),
  };

  return (
    <>
      {truths.length === 0 ? (
        <Tooltip
          label={
            universes === 0
              ? "No fixture has an address yet"
              : "Universes the patch uses; those with an output leave at up to 44 frames a second"
          }
        >
          <span className={classes.chip} data-testid="wire-state">
            {plural(universes, "universe")}
          </span>
        </Tooltip>
      ) : (
        <UnstyledButton
          className={classes.chip}
          data-tone={truths[0]!.tone === "danger" ? "failed" : "caution"}
          data-testid="wire-state"
          onClick={() => (setSeen([]), setAsked(truths.map((t) => t.id)))}
          title={truths.map((t) => t.text).join(" ")}
        >
          <IconAlertTriangle size={14} aria-hidden />{" "}
          {truths
            .slice(0, NAMED)
            .map((t) => t.short)
            .join(" · ")}
          {truths.length > NAMED ? ` +${truths.length - NAMED}` : ""}
        </UnstyledButton>
      )}
      {row &&
        shown.length > 0 &&
        createPortal(
          <div className={classes.truths} role="alert" data-testid="truths">
            {shown.map(({ id, text, tone, act }) => (
              <div key={id} className={classes.truth} data-tone={tone} data-testid={`truth-${id}`}>
                <IconAlertTriangle size={18} aria-hidden />
                <span>{text}</span>
                <Button size="compact-sm" variant="default" onClick={acts[act.does]}>
                  {act.label}
                </Button>
                <Button size="compact-sm" variant="subtle" color="gray" onClick={() => setSeen((now) => [...now, id])}>
                  Collapse
                </Button>
              </div>
            ))}
          </div>,
          row,
        )}
      {asking && <ConsentSheet onClose={() => setAsking(false)} />}
    </>
  );
}

/** Where a show would send to, for a person to agree to. */
function ConsentSheet({ onClose }: { onClose(): void }) {
  const session = useSession();
  const waiting = useShow((s) => s.wire.waiting);
  const [left, setLeft] = useState<readonly string[]>([]);
  const chosen = waiting.filter((name) => !left.includes(name));
  const agree = () => {
    session.agree(chosen);
    onClose();
  };
  return (
    <Modal opened onClose={onClose} title="Where this show would send to" centered>
      <Stack gap="sm">
        <Text size="sm">
          Nothing goes to these places until you agree. It is asked once; your answer stays in this browser, not in the
          show.
        </Text>
        {waiting.map((name) => {
          const [protocol, where] = name.split(" ") as [string, string];
          return (
            <Checkbox
              key={name}
              checked={!left.includes(name)}
              onChange={(e) => setLeft(e.currentTarget.checked ? left.filter((n) => n !== name) : [...left, name])}
              label={
                <span>
                  <span className="num">
                    {where === "broadcast"
                      ? "everybody on the network (broadcast)"
                      : where === "multicast"
                        ? "whoever listens (multicast)"
                        : where}
                  </span>{" "}
                  by {protocol === "artnet" ? "Art-Net" : "sACN"}
                </span>
              }
            />
          );
        })}
        <Group justify="flex-end">
          <Button variant="default" onClick={onClose}>
            Not now
          </Button>
          <Button onClick={agree} disabled={chosen.length === 0}>
            Send to {plural(chosen.length, "place")}
          </Button>
        </Group>
      </Stack>
    </Modal>
  );
}
