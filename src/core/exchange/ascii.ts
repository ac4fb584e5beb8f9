/**
 * Lighting data as plain text: the USITT ASCII Text Representation for Lighting Console Data, version 3.0, as far as
 * we speak it. What lines mean: a keyword and its data, separated by blanks, commas, slashes, semicolons or any of
 * < > = @; "!" begins a comment; levels are percent, or hexadecimal after an H (HFF is full); times are seconds, or
 * minutes and seconds with a colon.
 */
import { refuse, type Refusal } from "../show/refusal";
import { plain } from "../units/units";

export interface AsciiPatch {
  channel: number;
  /** Counted through all universes from 1. */
  dimmer: number;
  /** Percent. */
  level: number;
}
export interface AsciiGroup {
  number: number;
  name: string;
  channels: number[];
}
/** Times and levels of a cue, or of a part of it; times that are not given are undefined: 0 is a snap. */
export interface AsciiPart {
  up: number | undefined;
  down: number | undefined;
  upWait: number;
  downWait: number;
  /** Percent by channel. */
  levels: [channel: number, level: number][];
}
/** A submaster with what it holds. */
export interface AsciiSub {
  number: number;
  name: string;
  levels: [channel: number, level: number][];
}
export interface AsciiCue extends AsciiPart {
  /** Of several lists: its page. */
  page: number;
  number: number;
  name: string;
  /** Seconds after which the next cue follows by itself. */
  follow?: number;
  /** The cue it leads to instead of the next. */
  link?: number;
  parts: AsciiPart[];
}
export interface AsciiData {
  patch: AsciiPatch[];
  groups: AsciiGroup[];
  cues: AsciiCue[];
  subs: AsciiSub[];
  /** Lines that could not be carried, each with why. */
  left: { line: number; why: string }[];
}

const NO_TIMES = { up: undefined, down: undefined, upWait: 0, downWait: 0 };
const MOST_LINES = 200_000;
const MOST_BYTES = 16 * 1024 * 1024;
const MOST_CHANNEL = 999_999;

/** Percent from a level as it is written; undefined where it is none. */
function levelOf(text: string): number | undefined {
  if (/^FL$/i.test(text)) return 100;
  const hex = /^H([0-9A-F]{1,2})$/i.exec(text);
  if (hex) return (parseInt(hex[1]!, 16) / 255) * 100;
  const value = /^\d{1,3}(\.\d+)?$/.test(text) ? Number(text) : NaN;
  return value <= 100 ? value : undefined;
}

/** Seconds from "3", "3.5" or "1:30". */
function timeOf(text: string): number | undefined {
  const parts = /^(?:(?:(\d{1,3}):)?(\d{1,4}):)?(\d{1,5}(?:\.\d+)?)$/.exec(text);
  if (!parts) return undefined;
  const seconds = Number(parts[1] ?? 0) * 3600 + Number(parts[2] ?? 0) * 60 + Number(parts[3]);
  return seconds <= 86_400 ? seconds : undefined;
}

const numberOf = (text: string | undefined, most = MOST_CHANNEL): number | undefined =>
  text !== undefined && /^\d{1,6}(\.\d{1,3})?$/.test(text) && Number(text) > 0 && Number(text) <= most
    ? Number(text)
    : undefined;

/** Words we understand and need not carry. */
const QUIET = new Set(["IDENT", "MANUFACTURER", "CONSOLE", "CLEAR", "SET", "ENDDATA"]);

/** Whether a text begins as such data does. */
export function isAscii(text: string): boolean {
  let after = false;
  for (const raw of text.slice(0, 20_000).split(/[\r\n]/)) {
    const line = raw.trim();
    if (line === "") continue;
    // Comments, and words of a console's maker, stand before anything; what follows them need not be a heading.
    if (/^[!$]/.test(line)) after = true;
    else
      return (
        /^(ident|clear|manufacturer|console)\b/i.test(line) || (after && /^(cue|group|sub|patch)\s+\d/i.test(line))
      );
  }
  return false;
}

/** Reads the text; what cannot be carried is named line by line and the rest comes in. */
export function readAscii(text: string): AsciiData | Refusal {
  if (text.length > MOST_BYTES) return refuse("this text is too large to be lighting data", "Choose another file");
  const lines = text.split(/\r\n|\r|\n/);
  if (lines.length > MOST_LINES) return refuse(`this text has more than ${MOST_LINES} lines`, "Choose another file");
  const data: AsciiData = { patch: [], groups: [], cues: [], subs: [], left: [] };
  let cue: AsciiCue | undefined;
  /** What levels and times belong to: the cue, or its last part. */
  let part: AsciiPart | undefined;
  let submaster: AsciiSub | undefined;
  const begin = () => void ([cue, part, group, submaster] = [undefined, undefined, undefined, undefined]);
  let group: AsciiGroup | undefined;
  let known = 0;
  /** Of the first dimmer of each channel. */
  const levels = new Map<number, number>();
  const skip = (line: number, why: string) => void data.left.push({ line, why });
  for (const [i, raw] of lines.entries()) {
    const at = i + 1;
    const line = raw.split("!", 1)[0]!.trim();
    if (line === "") continue;
    const [word = "", ...rest] = line.split(/[\s,;/<>=@]+/).filter(Boolean);
    const keyword = word.toUpperCase();
    if (QUIET.has(keyword)) {
      known += 1;
      if (keyword === "ENDDATA") break;
      continue;
    }
    if (keyword === "CUE") {
      const number = numberOf(rest[0]);
      const page = rest[1] === undefined ? 1 : (numberOf(rest[1]) ?? 0);
      begin();
      if (number === undefined || !Number.isInteger(page) || page < 1) skip(at, `"${line}" is no cue number`);
      else {
        cue = { page, number, name: "", ...NO_TIMES, levels: [], parts: [] };
        part = cue;
        data.cues.push(cue);
        known += 1;
      }
    } else if (keyword === "GROUP" || keyword === "SUB") {
      begin();
      const number = numberOf(rest[0]);
      if (number === undefined || !Number.isInteger(number))
        skip(at, `"${line}" is no ${keyword === "SUB" ? "submaster" : "group"} number`);
      else if (keyword === "SUB") {
        submaster = { number, name: "", levels: [] };
        data.subs.push(submaster);
        known += 1;
      } else {
        group = { number, name: "", channels: [] };
        data.groups.push(group);
        known += 1;
      }
    } else if (keyword === "PATCH") {
      // A page, then threes of channel, dimmer and level.
      const fields = rest.slice(1);
      for (let k = 0; k + 1 < fields.length; k += 3) {
        const [channel, dimmer] = [numberOf(fields[k]), numberOf(fields[k + 1], 32_767_488)];
        const level = fields[k + 2] === undefined ? 100 : levelOf(fields[k + 2]!);
        if (channel === undefined || dimmer === undefined || level === undefined || !Number.isInteger(channel))
          skip(at, `"${fields.slice(k, k + 3).join(" ")}" is no channel, dimmer and level`);
        else {
          const first = levels.get(channel) ?? level;
          levels.set(channel, first);
          if (first !== level)
            skip(
              at,
              `channel ${channel}: its dimmers stand at ${plain(first, 1)} % and ${plain(level, 1)} %; the first counts for all`,
            );
          data.patch.push({ channel, dimmer, level });
        }
      }
      known += 1;
    } else if (keyword === "CHAN") {
      if (!part && !group && !submaster) {
        skip(at, "levels that belong to no cue, group or submaster");
        continue;
      }
      for (let k = 0; k + 1 < rest.length; k += 2) {
        const [channel, level] = [numberOf(rest[k]), levelOf(rest[k + 1]!)];
        if (channel === undefined || level === undefined || !Number.isInteger(channel))
          skip(at, `"${rest[k]} ${rest[k + 1]}" is no channel with a level`);
        else if (group) group.channels.push(channel);
        else (part ?? submaster)!.levels.push([channel, level]);
      }
    } else if (keyword === "TEXT") {
      const words = raw
        .replace(/^\s*text\s?/i, "")
        .trim()
        .slice(0, 200);
      if (cue) cue.name = words;
      else if (group) group.name = words;
      else if (submaster) submaster.name = words;
    } else if (keyword === "PART") {
      if (!cue) skip(at, "a part that belongs to no cue");
      else {
        part = { ...NO_TIMES, levels: [] };
        cue.parts.push(part);
      }
    } else if (keyword === "UP" || keyword === "DOWN") {
      const [time, wait] = [timeOf(rest[0] ?? ""), rest[1] === undefined ? 0 : timeOf(rest[1])];
      if (submaster) skip(at, "times of submasters are not carried");
      else if (!part || time === undefined || wait === undefined) skip(at, `"${line}" is no time of a cue`);
      else if (keyword === "UP") Object.assign(part, { up: time, upWait: wait });
      else Object.assign(part, { down: time, downWait: wait });
    } else if (keyword === "FOLLOWON") {
      const time = timeOf(rest[0] ?? "");
      if (!cue || time === undefined) skip(at, `"${line}" is no follow-on of a cue`);
      else cue.follow = time;
    } else if (keyword === "LINK") {
      const to = numberOf(rest[0]);
      if (!cue || to === undefined) skip(at, `"${line}" is no link of a cue`);
      else cue.link = to;
    } else if (keyword.startsWith("$"))
      skip(at, `${keyword.slice(0, 20)} is its console's own word and is not carried`);
    else skip(at, `${keyword.slice(0, 20)} is not carried`);
  }
  return known > 0
    ? data
    : refuse("this is not lighting data in USITT ASCII: no line of it is known", "It begins with: IDENT 3:0");
}
