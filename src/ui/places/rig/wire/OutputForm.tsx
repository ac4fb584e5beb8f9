"use client";

import { Button, Checkbox, NumberInput, SegmentedControl, Select, TextInput } from "@mantine/core";
import { useForm } from "@mantine/form";
import { z } from "@/core/units/zod";
import { linesOf } from "@/core/desk/lines";
import { setOutputs } from "@/core/dmx/outputIntents";
import { addressOn } from "@/core/dmx/outputTable";
import { destinationNames } from "@/core/dmx/consent";
import { numberRange, numberText, usualNumber } from "@/core/dmx/wire";
import type { Output } from "@/core/show/schema";
import { useSession, useShow } from "@/ui/show/useSession";
import classes from "./Wire.module.css";

interface OutputValues {
  protocol: Output["protocol"] | "off";
  to: "unicast" | "broadcast" | "multicast";
  hosts: string;
  /** Each universe of the range goes to the next address. */
  counts: boolean;
  number: number | string;
  priority: number | string;
}

const hostsOf = (text: string): string[] => text.split(/[\s,;]+/).filter((word) => word !== "" && word !== "and");
const HostsSchema = z.array(z.ipv4()).min(1).max(8);

/** An output so many universes on: its number, and its addresses too; undefined where there is no such address. */
function countedOn(output: Output, by: number): Output | undefined {
  if (typeof output.to === "string") return { ...output, number: output.number + by };
  const hosts = output.to.unicast.map((host) => addressOn(host, by));
  return hosts.every((host) => host !== undefined)
    ? { ...output, number: output.number + by, to: { unicast: hosts } }
    : undefined;
}

const hostsText = (output: Output | null | undefined): string =>
  output && typeof output.to !== "string" ? output.to.unicast.join(", ") : "";

/** The output the form describes. @param first the universe its number counts on from. */
function outputOf({ protocol, to, hosts, number, priority }: OutputValues, first: number): Output | null {
  if (protocol === "off") return null;
  return {
    protocol,
    to: to === "unicast" ? { unicast: hostsOf(hosts) } : to,
    number: number === "" ? usualNumber(protocol, first) : Number(number),
    priority: protocol === "sacn" ? Number(priority) : 100,
  };
}

/** What a range of universes is to be: shown as the line it is. */
export function OutputForm({
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
  const world = useShow((s) => s.world);
  const form = useForm<OutputValues>({
    initialValues: {
      protocol: output?.protocol ?? "artnet",
      to: output && typeof output.to === "string" ? output.to : "unicast",
      hosts: output && typeof output.to !== "string" ? output.to.unicast.join(", ") : "127.0.0.1",
      counts: false,
      number: output?.number ?? "",
      priority: output?.priority ?? 100,
    },
    validateInputOnChange: true,
    validate: {
      hosts: (hosts, { to, protocol }) =>
        protocol !== "off" && to === "unicast" && !HostsSchema.safeParse(hostsOf(hosts)).success
          ? "Up to 8 addresses such as 127.0.0.1"
          : null,
    },
  });
  const { protocol, to } = form.values;
  const [low, high] = protocol === "off" ? [0, 0] : numberRange(protocol);
  const made = outputOf(form.values, first);
  const universes = Array.from({ length: last - first + 1 }, (_, i) => first + i);
  const counts = form.values.counts && to === "unicast" && last > first;
  const each = universes.map((_, k) => (made && counts ? countedOn(made, k) : made));
  const fits = each.every((output) => output !== undefined);
  const intents =
    counts && made && fits
      ? universes.map((universe, k) => setOutputs.of({ universes: [universe], output: each[k]! }))
      : [setOutputs.of({ universes, output: made })];
  const set = form.onSubmit(() => {
    // Setting a destination by hand is agreeing to it.
    if (fits && !session.act(intents, counts ? `sets the outputs of ${universes.length} universes` : undefined))
      session.agree(each.flatMap((output) => (output ? destinationNames(output) : [])));
  });
  return (
    <form className={classes.form} onSubmit={set} aria-label="Set outputs">
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
          onChange={(v) => form.setValues({ protocol: v, number: "" })}
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
            {...form.getInputProps("to")}
            allowDeselect={false}
            data={[
              { value: "unicast", label: "unicast" },
              { value: "broadcast", label: "broadcast" },
              ...(protocol === "sacn" ? [{ value: "multicast", label: "multicast" }] : []),
            ]}
          />
          {to === "unicast" && last > first && (
            <Checkbox
              size="xs"
              mb={6}
              label="counting on"
              title="Each universe goes to the next address"
              {...form.getInputProps("counts", { type: "checkbox" })}
            />
          )}
          {to === "unicast" && (
            <TextInput
              size="xs"
              w={190}
              label="Addresses"
              {...form.getInputProps("hosts")}
              classNames={{ input: "num" }}
            />
          )}
          <NumberInput
            size="xs"
            w={110}
            label="First number"
            placeholder={String(usualNumber(protocol, first))}
            {...form.getInputProps("number")}
            min={low}
            max={high}
            hideControls
          />
          {protocol === "sacn" && (
            <NumberInput
              size="xs"
              w={76}
              label="Priority"
              {...form.getInputProps("priority")}
              min={0}
              max={200}
              hideControls
            />
          )}
        </>
      )}
      <Button size="xs" type="submit">
        Set
      </Button>
      <p className={classes.line}>
        <code>
          {fits ? linesOf(world, intents.slice(0, 1))[0] : "the last of these addresses is past 255.255.255.255"}
        </code>
        {counts && fits && <span className="muted"> to {hostsText(each.at(-1))}</span>}
        {made && (
          <span className="muted">
            {" "}
            {numberText(made)}
            {last > first ? ` to ${numberText({ ...made, number: made.number + last - first })}` : ""}
          </span>
        )}
      </p>
    </form>
  );
}
