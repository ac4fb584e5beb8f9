"use client";

import { SegmentedControl } from "@mantine/core";
import { useEffect, useRef, useState } from "react";
import { openMidiOut, openOscOut, type MidiOut, type OscOut } from "@/session/standInMidi";
import classes from "./Outside.module.css";

const EIGHT = [1, 2, 3, 4, 5, 6, 7, 8] as const;
const FIRST_ENCODER = 16;
const FIRST_KEY = 36;
/** One step of an encoder, of 127. */
const STEP = 4;

/** A surface of eight encoders, faders and pairs of keys, as far from the app as one on a cable: it only sends. */
export function SurfaceBoard() {
  const [speaks, setSpeaks] = useState("MIDI");
  const [about, setAbout] = useState("");
  const [stands, setStands] = useState<Record<string, number>>({});
  const midi = useRef<MidiOut>(undefined);
  const osc = useRef<OscOut>(undefined);
  useEffect(() => {
    const out = openMidiOut();
    midi.current = out;
    return () => out.close();
  }, []);
  useEffect(() => {
    if (speaks !== "OSC") return setAbout("on the stand-in MIDI port, channel 1");
    let over = false;
    void openOscOut((text) => !over && setAbout(text)).then((out) => (over ? out.close() : (osc.current = out)));
    return () => {
      over = true;
      osc.current?.close();
      osc.current = undefined;
    };
  }, [speaks]);

  const move = (kind: "fader" | "encoder", n: number, value: number) => {
    const to = Math.max(0, Math.min(127, value));
    setStands((all) => ({ ...all, [`${kind} ${n}`]: to }));
    if (speaks === "OSC") osc.current?.send(`/surface/${kind}/${n}`, to / 127);
    else midi.current?.send([0xb0, kind === "fader" ? n : FIRST_ENCODER + n, to]);
  };
  const press = (n: number, down: boolean) => {
    if (speaks === "OSC") osc.current?.send(`/surface/key/${n}`, down ? 1 : 0);
    else midi.current?.send([down ? 0x90 : 0x80, FIRST_KEY + n, down ? 127 : 0]);
  };
  const key = (n: number) => (
    <button
      type="button"
      className={classes.key}
      aria-label={`Key ${n}`}
      onPointerDown={() => press(n, true)}
      onPointerUp={() => press(n, false)}
      onPointerCancel={() => press(n, false)}
      onKeyDown={(e) => e.key === "Enter" && !e.repeat && press(n, true)}
      onKeyUp={(e) => e.key === "Enter" && press(n, false)}
    >
      {n}
    </button>
  );
  return (
    <main className={classes.board}>
      <h1>Simulated control surface</h1>
      <div className={classes.row}>
        <SegmentedControl size="xs" aria-label="Speaks" data={["MIDI", "OSC"]} value={speaks} onChange={setSpeaks} />
        <p className="muted" data-testid="surface-about">
          {about}
        </p>
      </div>
      <div className={classes.strips}>
        {EIGHT.map((n) => {
          const turned = stands[`encoder ${n}`] ?? 64;
          return (
            <div key={n} className={classes.strip}>
              <div
                className={classes.row}
                role="slider"
                tabIndex={0}
                aria-label={`Encoder ${n}`}
                aria-valuenow={turned}
                aria-valuemin={0}
                aria-valuemax={127}
                onKeyDown={(e) => {
                  const by = e.key === "ArrowUp" ? STEP : e.key === "ArrowDown" ? -STEP : 0;
                  if (by !== 0) move("encoder", n, turned + by);
                }}
                onWheel={(e) => move("encoder", n, turned + (e.deltaY < 0 ? STEP : -STEP))}
              >
                <Dial turned={turned} />
              </div>
              <input
                type="range"
                min={0}
                max={127}
                aria-label={`Fader ${n}`}
                value={stands[`fader ${n}`] ?? 0}
                onChange={(e) => move("fader", n, Number(e.currentTarget.value))}
              />
              {key(n)}
              {key(n + 8)}
            </div>
          );
        })}
      </div>
      <p className="muted">Turn an encoder with the wheel or with up and down. Learn what each does in the app.</p>
    </main>
  );
}

/** Where an encoder stands, as a mark on its rim. */
function Dial({ turned }: { turned: number }) {
  const angle = ((turned / 127) * 270 - 135) * (Math.PI / 180);
  return (
    <svg width={40} height={40} viewBox="-20 -20 40 40" aria-hidden>
      <circle r={15} fill="var(--raised)" stroke="var(--line)" strokeWidth={1.5} />
      <line
        x1={Math.sin(angle) * 6}
        y1={-Math.cos(angle) * 6}
        x2={Math.sin(angle) * 14}
        y2={-Math.cos(angle) * 14}
        stroke="var(--selection)"
        strokeWidth={3}
        strokeLinecap="round"
      />
    </svg>
  );
}
