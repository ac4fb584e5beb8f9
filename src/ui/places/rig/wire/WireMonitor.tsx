"use client";

import { Button, Select } from "@mantine/core";
import { useEffect, useMemo, useRef, useState } from "react";
import { numberText } from "@/core/dmx/wire";
import { setHighlight } from "@/core/program/intents";
import { select } from "@/core/select/intents";
import { halfOf } from "@/engine/view";
import { openNode, type NodeLink } from "@/session/nodeLink";
import type { Received } from "@/standin/messages";
import { runsText } from "@/core/units/runs";
import { useSession, useShow } from "@/ui/show/useSession";
import { ownersOf } from "@/ui/places/rig/universes/owners";
import slots from "@/ui/places/rig/universes/Universes.module.css";
import { compare, newCompared } from "./compare";
import classes from "./Wire.module.css";
import { plural } from "@/core/units/plural";

const POLL_MS = 3000;
const FULL = 255;

/** What really arrives: nodes found, each stream with its losses and age, and the bytes beside what we meant to send. */
export function WireMonitor() {
  const session = useSession();
  const nodes = useShow((s) => s.wire.bridge?.nodes) ?? [];
  const [received, setReceived] = useState<Received | null>(null);
  const [link, setLink] = useState<NodeLink | null>(null);
  useEffect(() => {
    const made = openNode(setReceived);
    setLink(made);
    return () => made.close();
  }, []);
  useEffect(() => {
    session.askWire("poll");
    const timer = setInterval(() => session.askWire("poll"), POLL_MS);
    return () => {
      clearInterval(timer);
      // A slot held for a test must not be forgotten: it ends where it can no longer be seen.
      session.askWire("endTests");
    };
  }, [session]);
  return (
    <div className={classes.monitor}>
      <section className={classes.streams}>
        <h3>Nodes found</h3>
        <ul className={classes.nodes} data-testid="nodes">
          {nodes.map((n) => (
            <li key={n.ip}>
              <b>{n.short}</b> <span className="num">{n.ip}</span>
              <br />
              <span className="muted">
                {n.long}, ports {n.ports.join(", ")}
              </span>
            </li>
          ))}
          {nodes.length === 0 && (
            <li className="muted">None has answered yet. Nodes are asked every {POLL_MS / 1000} seconds.</li>
          )}
        </ul>
        <h3>Arriving at the stand-in node</h3>
        {received === null && (
          <p className={classes.hint}>The stand-in node is not reached. It is started by ./bold-comet demo.</p>
        )}
        {received?.trouble && (
          <p role="alert" data-bad>
            {received.trouble}
          </p>
        )}
        <table className={classes.table} aria-label="Streams" data-testid="streams">
          <thead>
            <tr>
              <th>Stream</th>
              <th>From</th>
              <th title="Packets a second">/s</th>
              <th>lost</th>
              <th>age</th>
            </tr>
          </thead>
          <tbody>
            {received?.streams.map((s) => (
              <tr key={`${s.protocol} ${s.number} ${s.from}`} data-old={s.age > 3000}>
                <td>
                  {s.protocol === "artnet" ? "Art-Net" : "sACN"} <span className="num">{s.number}</span>
                  {s.ended ? " · ended" : ""}
                </td>
                <td>
                  <span className="num">{s.from}</span>
                  {s.source && (
                    <>
                      <br />
                      <span className="muted" title={`Sender ${s.source}, priority ${s.priority}`}>
                        {s.source}, {s.priority}
                      </span>
                    </>
                  )}
                </td>
                <td className="num">{s.perSecond.toFixed(0)}</td>
                <td className="num" data-bad={s.lost > 0}>
                  {s.lost}
                </td>
                <td className="num">{s.age < 1000 ? `${s.age} ms` : `${(s.age / 1000).toFixed(1)} s`}</td>
              </tr>
            ))}
          </tbody>
        </table>
        {received && received.streams.length === 0 && (
          <p className={classes.hint}>Nothing has arrived. Set an output to {received.host}, as Art-Net or sACN.</p>
        )}
        {received?.announced.map((a) => (
          <p key={`${a.from} ${a.source}`} className={classes.hint} data-testid="announced">
            <b>{a.source}</b> at <span className="num">{a.from}</span> says it sends sACN {runsText(a.universes)}.
          </p>
        ))}
        {received && received.malformed > 0 && (
          <p className={classes.hint}>{plural(received.malformed, "packet")} were invalid and left out.</p>
        )}
      </section>
      {link && <Comparison link={link} />}
    </div>
  );
}

/** One universe: each slot as it arrived, marked where it is not what we mean. Pressing one holds it at full for a test. */
function Comparison({ link }: { link: NodeLink }) {
  const session = useSession();
  const show = useShow((s) => s.world.show);
  const tests = useShow((s) => s.wire.tests);
  const highlight = useShow((s) => s.world.hands.highlight);
  const selection = useShow((s) => s.world.hands.selection);
  const sent = useMemo(
    () =>
      Object.keys(show.outputs)
        .map(Number)
        .sort((a, b) => a - b),
    [show.outputs],
  );
  const [chosen, setChosen] = useState<number | null>(null);
  const universe = chosen !== null && sent.includes(chosen) ? chosen : sent[0];
  const output = universe === undefined ? undefined : show.outputs[universe];
  const owners = useMemo(
    () => (universe === undefined ? [] : ownersOf(show, universe)),
    // oxlint-disable-next-line react-hooks/exhaustive-deps
    [show.fixtures, show.types, universe],
  );
  const grid = useRef<HTMLDivElement>(null);
  const [differing, setDiffering] = useState(0);

  useEffect(() => {
    if (universe === undefined || !output) return;
    const state = newCompared();
    const shown = new Int16Array(512).fill(-2);
    const marked = new Uint8Array(512);
    let handle = 0;
    const look = () => {
      handle = requestAnimationFrame(look);
      const { view } = session.store.getState();
      const place = view?.layout.universes.indexOf(universe) ?? -1;
      const cells = grid.current?.children;
      if (!view || !cells) return;
      const meant = place < 0 ? new Uint8Array(512) : halfOf(view).bytes.subarray(place * 512, (place + 1) * 512);
      setDiffering(compare(state, meant, link.slots(output.protocol, output.number), performance.now()));
      for (let i = 0; i < 512; i++) {
        const cell = cells[i] as HTMLElement | undefined;
        if (!cell) continue;
        if (shown[i] !== state.received[i]) {
          shown[i] = state.received[i]!;
          cell.lastElementChild!.textContent = shown[i]! < 0 ? "–" : String(shown[i]);
          cell.style.setProperty("--level", String(Math.max(0, shown[i]!) / 255));
        }
        if (marked[i] !== state.differs[i]) {
          marked[i] = state.differs[i]!;
          cell.dataset.differs = String(marked[i] === 1);
        }
      }
    };
    look();
    return () => cancelAnimationFrame(handle);
  }, [session, link, universe, output, owners]);

  if (universe === undefined || !output)
    return (
      <p className={classes.hint}>
        No universe is sent yet. Set one under Outputs, such as: output 1 artnet to 127.0.0.1
      </p>
    );
  const held = Object.keys(tests).length;
  const press = (slot: number) =>
    session.askWire({ universe, slot, byte: tests[`${universe}:${slot}`] === undefined ? FULL : null });
  return (
    <section className={classes.comparison}>
      <header className={classes.head}>
        <Select
          size="xs"
          w={130}
          aria-label="Universe to compare"
          value={String(universe)}
          onChange={(v) => v && setChosen(Number(v))}
          allowDeselect={false}
          data={sent.map((u) => ({ value: String(u), label: `Universe ${u}` }))}
        />
        <span className="muted">{numberText(output)}</span>
        <b role="status" data-testid="differing" data-bad={differing > 0}>
          {differing === 0 ? "arrives as sent" : `${plural(differing, "slot")} differ`}
        </b>
        <span className={classes.tests}>
          {selection.length > 0 && (
            <Button
              size="compact-xs"
              variant="default"
              aria-pressed={highlight}
              onClick={() => session.act([setHighlight.of({ on: !highlight })], "highlight")}
            >
              {highlight ? "Stop identifying" : `Identify ${plural(selection.length, "fixture")}`}
            </Button>
          )}
          {held > 0 && (
            <Button size="compact-xs" color="orange" onClick={() => session.askWire("endTests")}>
              Stop holding {plural(held, "slot")}
            </Button>
          )}
        </span>
      </header>
      <div ref={grid} className={slots.slots} data-testid="wire" data-universe={universe}>
        {owners.map((owner, i) => (
          <div
            key={i}
            className={slots.slot}
            data-owned={owner !== null}
            data-first={owner?.start === i + 1}
            data-test={tests[`${universe}:${i + 1}`] !== undefined}
            title={`${universe}:${i + 1} ${owner ? owner.text : "free"}. Press to hold this slot at full, to test the wire`}
            onClick={(e) =>
              e.shiftKey && owner ? session.act([select.of({ items: [owner.fixture] })], "select") : press(i + 1)
            }
          >
            <i>{owner?.start === i + 1 ? owner.number : ""}</i>
            <b>–</b>
          </div>
        ))}
      </div>
      <p className={classes.hint}>
        Bytes as they arrived; a slot that differs from what is sent is marked. Press a slot to hold it at full, Shift
        and press to select its fixture.
      </p>
    </section>
  );
}
