"use client";

import { Button } from "@mantine/core";
import { useMemo, useState, type MouseEvent } from "react";
import { setWire } from "@/core/dmx/outputIntents";
import { destinationsOf, numberText } from "@/core/dmx/wire";
import type { Output } from "@/core/show/schema";
import type { FromBridge } from "@/bridge/messages";
import { capital } from "@/ui/base/typed/capital";
import { useSession, useShow } from "@/ui/show/useSession";
import { universeCards } from "@/ui/places/rig/universes/owners";
import { OutputForm } from "./OutputForm";
import { OutputsTable } from "./OutputsTable";
import { WireSettings } from "./WireSettings";
import classes from "./Wire.module.css";
import { plural } from "@/core/units/plural";

/** How each universe leaves the machine; several are set at once. */
export function Outputs() {
  const session = useSession();
  const show = useShow((s) => s.world.show);
  const bridge = useShow((s) => s.wire.bridge);
  const cards = useMemo(() => universeCards(show), [show.fixtures, show.types, show.outputs]); // oxlint-disable-line react-hooks/exhaustive-deps
  const universes = cards.map((c) => c.universe);
  const [range, setRange] = useState<[number, number]>([universes[0] ?? 1, universes.at(-1) ?? 1]);
  const [typing, setTyping] = useState(false);
  const press = (universe: number, event: MouseEvent) =>
    setRange(event.shiftKey ? [Math.min(range[0], universe), Math.max(range[0], universe)] : [universe, universe]);
  return (
    <div className={classes.outputs}>
      <div className={classes.list}>
        <table className={classes.table} aria-label="Outputs">
          <thead>
            <tr>
              <th>Universe</th>
              <th>Protocol</th>
              <th>Goes to</th>
              <th>On the wire</th>
              <th>Priority</th>
              <th>Frames a second</th>
            </tr>
          </thead>
          <tbody>
            {universes.map((universe) => {
              const output = show.outputs[universe];
              const rate = bridge?.sending.find((s) => s.universe === universe)?.perSecond;
              return (
                <tr
                  key={universe}
                  data-chosen={universe >= range[0] && universe <= range[1]}
                  onClick={(e) => press(universe, e)}
                  data-testid={`output-${universe}`}
                >
                  <td className="num">{universe}</td>
                  <td>
                    {output ? (
                      output.protocol === "artnet" ? (
                        "Art-Net 4"
                      ) : (
                        "sACN"
                      )
                    ) : (
                      <span className="muted">not sent</span>
                    )}
                  </td>
                  <td className="num">{output ? whereText(output) : ""}</td>
                  <td>{output ? numberText(output) : ""}</td>
                  <td className="num">{output?.protocol === "sacn" ? output.priority : ""}</td>
                  <td className="num">{output ? (bridge ? (rate ?? 0).toFixed(0) : "–") : ""}</td>
                </tr>
              );
            })}
          </tbody>
        </table>
        {universes.length === 0 && (
          <p className={classes.hint}>Nothing is patched yet. You can set an output before that.</p>
        )}
        <p className={classes.hint}>
          Press a universe to set it below; Shift takes a range.{" "}
          <Button size="compact-sm" variant="default" onClick={() => setTyping(true)}>
            As a table …
          </Button>
        </p>
        {typing && <OutputsTable universes={universes} onClose={() => setTyping(false)} />}
        <OutputForm
          key={`${range[0]} ${range[1]} ${JSON.stringify(show.outputs[range[0]] ?? null)}`}
          first={range[0]}
          last={range[1]}
          output={show.outputs[range[0]]}
          onRange={setRange}
        />
      </div>
      <WireSettings
        wire={show.wire}
        interfaces={bridge?.interfaces ?? []}
        state={bridgeText(bridge)}
        bad={!bridge || bridge.trouble !== null || bridge.behind > 0 || (!bridge.mine && bridge.holder !== null)}
        onTake={bridge && !bridge.mine && bridge.holder !== null ? () => session.askWire("take") : undefined}
        onSet={(wire) => session.act([setWire.of({ wire })])}
      />
    </div>
  );
}

/** How the bridge does: what it sends, at which rate, and what it cannot. */
function bridgeText(bridge: FromBridge | null): string {
  if (!bridge)
    return "The bridge is not reached, so nothing of this show leaves the machine. ./bold-comet demo starts it, and restarts it if it ends.";
  if (bridge.trouble) return capital(bridge.trouble);
  if (!bridge.mine)
    return bridge.holder === null
      ? "The bridge is there; this show sends nothing."
      : `"${bridge.holder}" holds the output, so nothing of this show leaves the machine.`;
  const fastest = Math.max(0, ...bridge.sending.map((s) => s.perSecond));
  const behind =
    bridge.behind > 0
      ? ` ${plural(bridge.behind, "universe changes", "universes change")} faster than this machine can send: they get fewer frames, always the newest.`
      : "";
  return `The bridge sends ${plural(bridge.sending.length, "universe")}, the busiest at ${plural(Math.round(fastest), "frame")} a second.${behind}`;
}

const whereText = (output: Output): string =>
  typeof output.to === "string"
    ? `${output.to} (${destinationsOf(output)
        .map((d) => d.host)
        .join(", ")})`
    : output.to.unicast.join(", ");
