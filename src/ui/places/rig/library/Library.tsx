"use client";

import { Button, Group, NumberInput, TextInput } from "@mantine/core";
import { IconFileExport, IconPencil, IconPlus, IconSearch, IconTrash } from "@tabler/icons-react";
import { useEffect, useMemo, useRef, useState, type KeyboardEvent } from "react";
import { attributeInfo, withUnit } from "@/core/fixture/attribute";
import { parametersOf } from "@/core/fixture/parameters";
import { footprint, layoutOf, type FixtureType, type Mode } from "@/core/fixture/type";
import { writeGdtf } from "@/core/exchange/gdtf/file";
import { removeType } from "@/core/rig/typeIntent";
import { saveFile } from "@/ui/base/files/saveFile";
import { useSession, useShow } from "@/ui/show/useSession";
import { TypeBuilder } from "@/ui/places/rig/builder/TypeBuilder";
import { isOwn, jumpTo, modesLeft, shelves } from "./choices";
import { useRecentTypes } from "./recent";
import { slotsText } from "./slotsText";
import classes from "./Library.module.css";
import { plural } from "@/core/units/plural";

const TYPE_AHEAD_MS = 700;

/** Makers, models, modes side by side, and the whole channel list of a mode, to be laid beside the paper. */
export function Library({ onPatch }: { onPatch(type: string, mode: string): void }) {
  const show = useShow((s) => s.world.show);
  const [recent] = useRecentTypes();
  const [search, setSearch] = useState("");
  const [building, setBuilding] = useState<FixtureType | "new" | null>(null);
  const session = useSession();
  const [slots, setSlots] = useState<number | string>("");
  const [at, setAt] = useState({ shelf: "", type: "", mode: "" });
  const size = slots === "" ? null : Number(slots);
  const found = useMemo(() => shelves(show, recent, search, size), [show.types, recent, search, size]); // oxlint-disable-line react-hooks/exhaustive-deps
  const shelf = found.find((s) => s.title === at.shelf) ?? found[0];
  const type = shelf?.types.find((t) => t.id === at.type) ?? shelf?.types[0];
  const modes = type ? modesLeft(type, size) : [];
  const mode = modes.find((m) => m.name === at.mode) ?? modes[0];
  return (
    <div className={classes.library}>
      <div className={classes.tools}>
        <TextInput
          size="xs"
          w={280}
          leftSection={<IconSearch size={14} />}
          placeholder="Search makers, models, modes"
          aria-label="Search the library"
          value={search}
          onChange={(e) => setSearch(e.currentTarget.value)}
        />
        <label className={classes.slots}>
          Channel count{" "}
          <NumberInput
            size="xs"
            w={76}
            min={1}
            max={512}
            hideControls
            value={slots}
            onChange={setSlots}
            aria-label="Channels of the unit"
            placeholder="any"
          />
        </label>
        <span className="muted">
          {found.length === 0 ? "" : `${new Set(found.flatMap((s) => s.types.map((t) => t.id))).size} types`}
        </span>
        <Group gap={8} ml="auto" wrap="nowrap">
          {type && (
            <>
              {show.types[type.id] && (
                <Button
                  size="compact-sm"
                  variant="default"
                  leftSection={<IconTrash size={14} />}
                  disabled={Object.values(show.fixtures).some((f) => f.type === type.id)}
                  title="Only types that no fixture is of can be taken out"
                  onClick={() => session.act([removeType.of({ type: type.id })])}
                >
                  Remove
                </Button>
              )}
              <Button
                size="compact-sm"
                variant="default"
                leftSection={<IconFileExport size={14} />}
                onClick={() => saveFile(`${type.maker} ${type.model}.gdtf`, writeGdtf(type), "application/zip")}
              >
                As GDTF
              </Button>
              <Button
                size="compact-sm"
                variant="default"
                leftSection={<IconPencil size={14} />}
                onClick={() => setBuilding(type)}
              >
                Change
              </Button>
            </>
          )}
          <Button
            size="compact-sm"
            variant="default"
            leftSection={<IconPlus size={14} />}
            onClick={() => setBuilding("new")}
          >
            New type
          </Button>
          {type && mode && (
            <Button size="compact-sm" leftSection={<IconPlus size={14} />} onClick={() => onPatch(type.id, mode.name)}>
              Patch {type.model}
            </Button>
          )}
        </Group>
      </div>
      {!shelf || !type || !mode ? (
        <p className={classes.empty}>No match. Try fewer words, or clear the channel count.</p>
      ) : (
        <div className={classes.columns}>
          <Choice
            title="Makers"
            names={found.map((s) => s.title)}
            chosen={found.indexOf(shelf)}
            onChoose={(i) => setAt({ shelf: found[i]!.title, type: "", mode: "" })}
            marks={found.map((s) => String(s.types.length))}
          />
          <Choice
            title="Models"
            names={shelf.types.map((t) => t.model)}
            chosen={shelf.types.indexOf(type)}
            onChoose={(i) => setAt({ shelf: shelf.title, type: shelf.types[i]!.id, mode: "" })}
            marks={shelf.types.map((t) => (isOwn(t) ? "imported" : show.types[t.id] ? "in use" : ""))}
          />
          <Choice
            title="Modes"
            names={modes.map((m) => m.name)}
            chosen={modes.indexOf(mode)}
            onChoose={(i) => setAt({ shelf: shelf.title, type: type.id, mode: modes[i]!.name })}
            marks={modes.map((m) => `${footprint(m)} ch`)}
          />
          <Channels type={type} mode={mode} />
        </div>
      )}
      <TypeBuilder start={building} onClose={() => setBuilding(null)} />
    </div>
  );
}

/** A list to choose from: arrows move, letters jump. */
function Choice({
  title,
  names,
  marks,
  chosen,
  onChoose,
}: {
  title: string;
  names: readonly string[];
  marks: readonly string[];
  chosen: number;
  onChoose(i: number): void;
}) {
  const typed = useRef({ text: "", at: 0 });
  const box = useRef<HTMLDivElement>(null);
  useEffect(
    () => void box.current?.querySelector("[aria-selected=true]")?.scrollIntoView({ block: "nearest" }),
    [chosen],
  );
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const steps: Record<string, number> = { ArrowUp: -1, ArrowDown: 1, Home: -names.length, End: names.length };
    const step = steps[event.key];
    if (step !== undefined) {
      event.preventDefault();
      event.stopPropagation();
      return onChoose(Math.max(0, Math.min(names.length - 1, chosen + step)));
    }
    if (event.key.length !== 1 || event.key === " ") return;
    event.preventDefault();
    event.stopPropagation();
    const now = event.timeStamp;
    typed.current = {
      text: now - typed.current.at < TYPE_AHEAD_MS ? typed.current.text + event.key : event.key,
      at: now,
    };
    const to = jumpTo(names, typed.current.text, chosen);
    if (to >= 0) onChoose(to);
  };
  return (
    <section className={classes.choice}>
      <h2>{title}</h2>
      <div ref={box} role="listbox" aria-label={title} tabIndex={0} onKeyDown={onKeyDown} className={classes.list}>
        {names.map((name, i) => (
          <div
            key={`${i}${name}`}
            role="option"
            aria-selected={i === chosen}
            className={classes.option}
            onClick={() => onChoose(i)}
          >
            <span>{name}</span>
            <span className="muted num">{marks[i]}</span>
          </div>
        ))}
      </div>
    </section>
  );
}

function Channels({ type, mode }: { type: FixtureType; mode: Mode }) {
  const specs = parametersOf(mode, true);
  const rows = mode.channels.map((channel, index) => ({
    channel,
    slots: layoutOf(mode)[index]!.map((slot) => slot + 1),
    spec: specs.find((s) => s.channel === index)!,
  }));
  const virtual = specs.filter((s) => s.virtual).length;
  return (
    <section className={classes.channels} aria-label={`Channels of ${type.model}, ${mode.name}`}>
      <h2>
        {type.maker} {type.model} · {mode.name}, {plural(footprint(mode), "channel")}
        {virtual > 0 ? " · virtual dimmer" : ""}
      </h2>
      <table>
        <thead>
          <tr>
            <th>Ch.</th>
            <th>Attribute</th>
            <th>DMX</th>
            <th>Range</th>
            <th>Default</th>
            <th>Bits</th>
          </tr>
        </thead>
        <tbody>
          {rows.flatMap(({ channel, slots, spec }) =>
            channel.functions.map((fn, i) => (
              <tr key={`${slots[0]}.${i}`}>
                <td className="num">{i === 0 ? slotsText(slots) : ""}</td>
                <td>
                  {attributeInfo(fn.attribute).label}
                  {channel.cell > 0 && i === 0 ? <span className="muted"> cell {channel.cell}</span> : ""}
                  {fn.attribute !== attributeInfo(fn.attribute).label && <span className="muted"> {fn.attribute}</span>}
                </td>
                <td className="num">
                  {fn.dmxFrom}-{fn.dmxTo}
                </td>
                <td>
                  {fn.steps
                    ? fn.steps.map((s) => s.name).join(", ")
                    : `${withUnit(fn.from, fn.attribute)} to ${withUnit(fn.to, fn.attribute)}`}
                </td>
                <td className="num">
                  {i === 0
                    ? (fn.steps?.find((s) => s.value === spec.default)?.name ?? withUnit(spec.default, fn.attribute))
                    : ""}
                </td>
                <td className="num">{i === 0 ? channel.bytes * 8 : ""}</td>
              </tr>
            )),
          )}
        </tbody>
      </table>
    </section>
  );
}
