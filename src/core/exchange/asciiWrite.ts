/** A show as USITT ASCII: patch, groups, and the intensities of its cues with their simple times. */
import { lengthsOf } from "../cue/lateMoves";
import { inForceAt, trackingOf } from "../cue/tracking";
import { layoutOf } from "../fixture/type";
import { spanOf } from "../show/address";
import { modelOf } from "../show/model";
import { resolveEntry } from "../program/resolve";
import { paramKey, splitItem, type Id } from "../show/ids";
import type { CueList, Fixture, Show } from "../show/schema";
import { cuesOf, fixturesByNumber, groupsByNumber, listsByNumber } from "../show/world";
import { plain } from "../units/units";

/** Lines stay shorter than this. */
const WIDE = 76;

/** A level as it is written: whole percent, else of 255. */
const levelText = (percent: number): string =>
  Math.abs(percent - Math.round(percent)) < 0.005
    ? String(Math.round(percent))
    : `H${Math.round((percent / 100) * 255)
        .toString(16)
        .toUpperCase()
        .padStart(2, "0")}`;

/** Fields after a keyword, as many to a line as fit. */
function wrapped(keyword: string, fields: readonly string[]): string[] {
  const lines: string[] = [];
  let line = keyword;
  for (const field of fields) {
    if (line !== keyword && line.length + field.length + 1 > WIDE) {
      lines.push(line);
      line = keyword;
    }
    line += ` ${field}`;
  }
  return line === keyword ? lines : [...lines, line];
}

const oneLine = (text: string): string => text.replace(/[\r\n]+/g, " ").trim();
const seconds = (time: number): string => plain(time, 2);

/** The fixtures that have an intensity of their own, by number: the channels there are. */
function channelsOf(show: Show): Fixture[] {
  return fixturesByNumber(show).filter((f) => modelOf(show, f).specs.some((s) => s.cell === 0 && s.head === "Dimmer"));
}

/** Where a channel's intensity is on the wire, counted from 1 through all universes; none for a virtual one. */
function dimmersOf(show: Show, fixture: Fixture): number[] {
  const { mode } = modelOf(show, fixture);
  const place = mode.channels.findIndex((c) => c.cell === 0 && c.functions.some((f) => f.attribute === "Dimmer"));
  const offset = layoutOf(mode)[place]?.[0];
  return offset === undefined
    ? []
    : fixture.addresses.flatMap((address) => {
        const { from, size } = spanOf(mode, fixture.addresses, address);
        if (offset < from || offset >= from + size) return [];
        return [(address.universe - 1) * 512 + address.slot + offset - from];
      });
}

export interface AsciiWritten {
  text: string;
  /** What of the show the text does not carry, in words. */
  left: string[];
}

/** Writes what the text carries, and names the rest. */
export function writeAscii(show: Show): AsciiWritten {
  const channels = channelsOf(show);
  const number = new Map(channels.map((f): [Id, number] => [f.id, f.number]));
  const left: string[] = [];
  const lines = ["IDENT 3:0", "MANUFACTURER Bold_Comet", "CONSOLE Bold_Comet", `! ${oneLine(show.name)}`];
  const patched = channels.flatMap((f) =>
    dimmersOf(show, f).map((d) => `${f.number}<${d}@${levelText(Math.min(100, f.scale))}`),
  );
  lines.push(...wrapped("PATCH 1", patched));
  const others = Object.keys(show.fixtures).length - channels.length;
  if (others > 0) left.push(`${others} fixtures without an intensity of their own`);
  for (const group of groupsByNumber(show)) {
    const members = [...new Set(group.members.map((i) => splitItem(i).fixture))].flatMap((id) => number.get(id) ?? []);
    if (members.length === 0) continue;
    lines.push(
      `GROUP ${group.number}`,
      `TEXT ${oneLine(group.name)}`,
      ...wrapped(
        "CHAN",
        members.map((n) => `${n}@FL`),
      ),
    );
  }
  const lists = listsByNumber(show).filter((l) => cuesOf(l).length > 0);
  for (const list of lists) {
    if (list.kind === "list") lines.push(...listLines(show, list, channels));
    else left.push(`list ${list.number}, a ${list.kind}`);
  }
  if (Object.keys(show.palettes).length + Object.keys(show.effects).length > 0)
    left.push("palettes and effects; colour, position and all else but intensity");
  return { text: `${[...lines, "ENDDATA"].join("\n")}\n`, left };
}

function listLines(show: Show, list: CueList, channels: readonly Fixture[]): string[] {
  const tracking = trackingOf(list, show);
  const cues = cuesOf(list);
  const takes = lengthsOf(show, list);
  const lines: string[] = [];
  cues.forEach((cue, at) => {
    const { up, down, delayUp, delayDown } = cue.times;
    lines.push(`CUE ${plain(cue.number, 3)}${list.number === 1 ? "" : ` ${list.number}`}`);
    if (cue.name) lines.push(`TEXT ${oneLine(cue.name)}`);
    lines.push(`UP ${seconds(up)}${delayUp > 0 ? ` ${seconds(delayUp)}` : ""}`);
    lines.push(`DOWN ${seconds(down)}${delayDown > 0 ? ` ${seconds(delayDown)}` : ""}`);
    const next = cues[at + 1]?.trigger;
    if (next && next.kind === "auto") lines.push(`FOLLOWON ${seconds(next.after)}`);
    if (next && next.kind === "autoDone") lines.push(`FOLLOWON ${seconds(next.after + takes[at]!)}`);
    const leads = cue.then === undefined ? undefined : list.cues[cue.then];
    if (leads) lines.push(`LINK ${plain(leads.number, 3)}`);
    const levels = channels.flatMap((f) => {
      const key = paramKey(f.id, 0, "Dimmer");
      const found = inForceAt(tracking, key, at);
      const spec = modelOf(show, f).specs.find((s) => s.cell === 0 && s.head === "Dimmer")!;
      const value = found && resolveEntry(show, key, spec, found.entry)?.value;
      return value === undefined ? [] : [`${f.number}@${levelText(value)}`];
    });
    lines.push(...wrapped("CHAN", levels));
  });
  return lines;
}
