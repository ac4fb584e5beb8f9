"use client";

import { Button, NumberInput, SegmentedControl, Select, TextInput } from "@mantine/core";
import { useMemo, useState, type MouseEvent } from "react";
import { destinationsOf, numberRange, numberText, usualNumber } from "@/core/dmx/wire";
import type { Output, Wire } from "@/core/show/schema";
import { EditableText } from "../../parts/EditableText";
import type { FromBridge } from "@/bridge/messages";
import { capital, plural } from "../../parts/words";
import { quote } from "../../parts/quote";
import { useSession, useShow } from "../../useSession";
import { universeCards } from "../universes/owners";
import classes from "./Wire.module.css";

/** How each universe leaves the machine; several are set at once. */
export function Outputs() {
  const session = useSession();
  const show = useShow((s) => s.world.show);
  const bridge = useShow((s) => s.wire.bridge);
  const cards = useMemo(() => universeCards(show), [show.fixtures, show.types, show.outputs]); // eslint-disable-line react-hooks/exhaustive-deps
  const universes = cards.map((c) => c.universe);
  const [range, setRange] = useState<[number, number]>([universes[0] ?? 1, universes.at(-1) ?? 1]);
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
          <p className={classes.hint}>Nothing is patched yet. An output can be set all the same.</p>
        )}
        <p className={classes.hint}>Press a universe to set it below; Shift takes a range.</p>
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
        onLine={(line) => void session.run(line)}
      />
    </div>
  );
}

/** How the bridge does: what it sends, at which rate, and what it cannot. */
function bridgeText(bridge: FromBridge | null): string {
  if (!bridge)
    return "The bridge is not reached, so nothing of this show leaves the machine. ./bold-comet demo starts it, and starts it again where it ends.";
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

/** What a range of universes is to be: shown as the line it is. */
function OutputForm({
  first,
  last,
  output,
  onRange,
}: {
  first: number;
  last: number;
  output: Output | undefined;
  onRange(range: [number, number]): void;
}) {
  const session = useSession();
  const [protocol, setProtocol] = useState<Output["protocol"] | "off">(output?.protocol ?? "artnet");
  const [to, setTo] = useState(output && typeof output.to === "string" ? output.to : "unicast");
  const [hosts, setHosts] = useState(
    output && typeof output.to !== "string" ? output.to.unicast.join(", ") : "127.0.0.1",
  );
  const [number, setNumber] = useState<number | string>(output?.number ?? "");
  const [priority, setPriority] = useState<number | string>(output?.priority ?? 100);
  const [low, high] = protocol === "off" ? [0, 0] : numberRange(protocol);
  const usual = protocol === "off" ? 0 : usualNumber(protocol, first);
  const where =
    to === "unicast"
      ? hosts
          .split(/[\s,;]+/)
          .filter(Boolean)
          .join(" and ")
      : to;
  const who = `output ${first}${last > first ? ` thru ${last}` : ""}`;
  const line =
    protocol === "off"
      ? `${who} off`
      : `${who} ${protocol} to ${where} as ${number === "" ? usual : number}${protocol === "sacn" && Number(priority) !== 100 ? ` priority ${priority}` : ""}`;
  const change = (next: Output["protocol"] | "off") => {
    setProtocol(next);
    setNumber("");
  };
  return (
    <form
      className={classes.form}
      onSubmit={(e) => (e.preventDefault(), void session.run(line))}
      aria-label="Set outputs"
    >
      <NumberInput
        size="xs"
        w={84}
        label="Universe"
        value={first}
        min={1}
        max={63_999}
        hideControls
        onChange={(v) => Number(v) >= 1 && onRange([Number(v), Math.max(Number(v), last)])}
      />
      <NumberInput
        size="xs"
        w={84}
        label="thru"
        value={last}
        min={first}
        max={63_999}
        hideControls
        onChange={(v) => Number(v) >= first && onRange([first, Number(v)])}
      />
      <div>
        <span className={classes.label}>Protocol</span>
        <SegmentedControl
          size="xs"
          value={protocol}
          onChange={(v) => change(v)}
          data={[
            { value: "artnet", label: "Art-Net" },
            { value: "sacn", label: "sACN" },
            { value: "off", label: "Off" },
          ]}
        />
      </div>
      {protocol !== "off" && (
        <>
          <Select
            size="xs"
            w={130}
            label="Sent as"
            value={to}
            onChange={(v) => v && setTo(v)}
            allowDeselect={false}
            data={[
              { value: "unicast", label: "unicast" },
              { value: "broadcast", label: "broadcast" },
              ...(protocol === "sacn" ? [{ value: "multicast", label: "multicast" }] : []),
            ]}
          />
          {to === "unicast" && (
            <TextInput
              size="xs"
              w={190}
              label="Addresses"
              value={hosts}
              onChange={(e) => setHosts(e.currentTarget.value)}
              classNames={{ input: "num" }}
            />
          )}
          <NumberInput
            size="xs"
            w={110}
            label="First number"
            placeholder={String(usual)}
            value={number}
            min={low}
            max={high}
            hideControls
            onChange={setNumber}
          />
          {protocol === "sacn" && (
            <NumberInput
              size="xs"
              w={76}
              label="Priority"
              value={priority}
              min={0}
              max={200}
              hideControls
              onChange={setPriority}
            />
          )}
        </>
      )}
      <Button size="xs" type="submit">
        Set
      </Button>
      <p className={classes.line}>
        <code>{line}</code>
        {protocol !== "off" && (
          <span className="muted">
            {" "}
            {numberText({ protocol, number: Number(number === "" ? usual : number) })}
            {last > first
              ? ` to ${numberText({ protocol, number: Number(number === "" ? usual : number) + last - first })}`
              : ""}
          </span>
        )}
      </p>
    </form>
  );
}

interface Settings {
  wire: Wire;
  interfaces: readonly { name: string; address: string }[];
  /** How the bridge does, in words, and whether that is bad. */
  state: string;
  bad: boolean;
  onTake: (() => void) | undefined;
  onLine(line: string): void;
}

function WireSettings({ wire, interfaces, state, bad, onTake, onLine }: Settings) {
  const fade = wire.lost === "hold" ? { after: 30, over: 5 } : wire.lost;
  const known = interfaces.map((i) => ({ value: i.address, label: `${i.name} · ${i.address}` }));
  const data = [
    { value: "any", label: "the machine's choice" },
    ...known,
    ...(wire.from !== "" && !known.some((k) => k.value === wire.from)
      ? [{ value: wire.from, label: `${wire.from} (not on this machine)` }]
      : []),
  ];
  return (
    <aside className={classes.settings} aria-label="All outputs">
      <h3>Bridge</h3>
      <p role="status" data-bad={bad}>
        {state}
      </p>
      {onTake && (
        <Button size="compact-sm" variant="default" onClick={onTake}>
          Take the output
        </Button>
      )}
      <h3>All outputs</h3>
      <div className={classes.setting}>
        <span>Sender&apos;s name</span>
        <EditableText
          label="Sender's name"
          value={wire.source}
          onSave={(text) => onLine(`wire source ${quote(text)}`)}
        />
      </div>
      <Select
        size="xs"
        label="Network interface"
        value={wire.from || "any"}
        data={data}
        allowDeselect={false}
        onChange={(v) => v && onLine(`wire from ${v}`)}
      />
      <div>
        <span className={classes.label}>When the browser is gone</span>
        <SegmentedControl
          size="xs"
          fullWidth
          value={wire.lost === "hold" ? "hold" : "fade"}
          onChange={(v) =>
            onLine(v === "hold" ? "wire lost hold" : `wire lost fade after ${fade.after} over ${fade.over}`)
          }
          data={[
            { value: "hold", label: "Hold the look" },
            { value: "fade", label: "Fade out" },
          ]}
        />
        {wire.lost !== "hold" && (
          <p className={classes.fade}>
            after{" "}
            <EditableText
              mono
              label="Seconds before the fade"
              value={String(fade.after)}
              onSave={(t) => onLine(`wire lost fade after ${t} over ${fade.over}`)}
            />{" "}
            s, over{" "}
            <EditableText
              mono
              label="Seconds of the fade"
              value={String(fade.over)}
              onSave={(t) => onLine(`wire lost fade after ${fade.after} over ${t}`)}
            />{" "}
            s; intensity only
          </p>
        )}
      </div>
      <p className={classes.hint}>
        Art-Net counts from 0 in net, sub-net and universe; sACN counts from 1. What leaves is at most 44 frames a
        second, on change, and kept alive.
      </p>
    </aside>
  );
}
