"use client";

import { Button, Select, TextInput } from "@mantine/core";
import { useEffect, useRef, useState } from "react";
import { FRAME_RATES, framesOfText, textOfFrames, type FrameRate } from "@/core/timecode/frames";
import { dueMessages, locateSource, newSource, sourceAt } from "@/core/timecode/source";
import { openMidiOut, type MidiOut } from "@/session/standInMidi";
import classes from "./Outside.module.css";

const EVERY_MS = 4;
const seconds = () => performance.now() / 1000;

/** A machine that sends MIDI timecode, as one on a cable would: run, stop, locate, four rates, and drop-outs. */
export function TimecodeMachine() {
  const source = useRef(newSource("25"));
  const midi = useRef<MidiOut>(undefined);
  const mutedUntil = useRef(0);
  const shown = useRef<HTMLParagraphElement>(null);
  const [runs, setRuns] = useState(false);
  const [rate, setRate] = useState<FrameRate>("25");
  const [to, setTo] = useState("");
  const [wrong, setWrong] = useState<string | null>(null);
  const [silent, setSilent] = useState(false);

  const send = (bytes: number[]) => seconds() >= mutedUntil.current && midi.current?.send(bytes);
  useEffect(() => {
    const out = openMidiOut();
    midi.current = out;
    const timer = setInterval(() => {
      const now = seconds();
      for (const bytes of dueMessages(source.current, now)) send(bytes);
      if (shown.current)
        shown.current.textContent = textOfFrames(Math.floor(sourceAt(source.current, now)), source.current.rate);
      setSilent(now < mutedUntil.current);
    }, EVERY_MS);
    return () => {
      clearInterval(timer);
      out.close();
    };
  }, []);

  const put = (frames: number, going: boolean) => {
    send(locateSource(source.current, frames, seconds(), going));
    setRuns(going);
  };
  const locate = (text: string) => {
    const frames = framesOfText(text.trim(), rate);
    if (frames === undefined) return setWrong("A time such as 1:30, 0:01:30 or 00:01:30:12");
    setWrong(null);
    put(frames, source.current.runs);
  };
  return (
    <main className={classes.board}>
      <h1>Simulated timecode source</h1>
      <p ref={shown} className={`num ${classes.large}`} data-running={runs} data-testid="source">
        {textOfFrames(0, rate)}
      </p>
      <div className={classes.row}>
        <Button onClick={() => put(sourceAt(source.current, seconds()), !source.current.runs)}>
          {runs ? "Stop" : "Run"}
        </Button>
        <Button variant="default" onClick={() => put(0, source.current.runs)}>
          To the start
        </Button>
        <Select
          aria-label="Frames a second"
          w={110}
          data={[...FRAME_RATES]}
          value={rate}
          allowDeselect={false}
          onChange={(value) => {
            const next = FRAME_RATES.find((r) => r === value);
            if (!next) return;
            source.current = newSource(next);
            setRate(next);
            put(0, false);
          }}
        />
      </div>
      <form
        className={classes.row}
        onSubmit={(e) => {
          e.preventDefault();
          locate(to);
        }}
      >
        <TextInput
          aria-label="Locate"
          placeholder="0:01:30"
          w={140}
          value={to}
          error={wrong}
          onChange={(e) => setTo(e.currentTarget.value)}
        />
        <Button type="submit" variant="default">
          Locate
        </Button>
      </form>
      <div className={classes.row}>
        {[0.5, 5].map((gap) => (
          <Button key={gap} variant="default" onClick={() => (mutedUntil.current = seconds() + gap)}>
            Drop out for {gap} s
          </Button>
        ))}
        <p className="muted" role="status">
          {silent ? "nothing is sent now" : runs ? "quarter frames are sent" : "standing"}
        </p>
      </div>
      <p className="muted">
        Sends MIDI timecode on the stand-in port. Keep this window in sight: browsers slow down the ones that are not.
      </p>
    </main>
  );
}
