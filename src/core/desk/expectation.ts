/** What a show test expects, checked against a desk. */
import { framesAt } from "../play/lists/timecode/clock";
import { lineOfFrames } from "../timecode/frames";
import { attributeInfo } from "../fixture/attribute";
import { itemText, targetsOf } from "../show/model";
import { findingsIn } from "../check/check";
import { othersIn } from "../cue/signed";
import { driftsOf, type Drift } from "../cue/drift";
import { ripple } from "../cue/looks";
import { resolveEntry } from "../program/resolve";
import { standingOf } from "../cue/tracking";
import { sourceOf, stageValues } from "../play/stage/look";
import { evaluateSel, type Sel } from "../select/expression";
import { splitItem, type Item } from "../show/ids";
import type { CueList } from "../show/schema";
import { attempt, fail, isRefusal, refusalText } from "../show/refusal";
import { cuesOf, fixtureNumbered, listNumbered, paletteNumbered, sameCueNumber } from "../show/world";
import { plain } from "../units/units";
import { addressText } from "../show/address";
import { cueOf, listOf } from "../command/command";
import type { ScriptAct, ScriptArgs, ScriptKind } from "../command/scriptLines";
import { perform } from "./perform";
import { readLine } from "../command/read";
import { contextOf, type Desk } from "./desk";

export interface Printer {
  print(line: string): void;
}

/** The script lines that ask something of the desk. */
export type Asking = Exclude<
  ScriptKind,
  | "wait"
  | "refuse"
  | "open"
  | "save"
  | "bring"
  | "exportCues"
  | `import${"Csv" | "Ascii" | "Gdtf" | "Mvr"}`
  | `export${"Csv" | "Ascii" | "Gdtf" | "Mvr"}`
>;

/** Why an expectation does not hold, "expected ... got ..."; undefined where it does. */
export function checkExpectation<K extends Asking>(desk: Desk, act: ScriptAct<K>, files: Printer): string | undefined {
  const check: Check<K> = CHECKS[act.kind];
  const outcome = attempt(() => check(desk, act.args, files));
  return isRefusal(outcome) ? `expected something that is there, got: ${refusalText(outcome)}` : outcome;
}

type Check<K extends Asking> = (desk: Desk, args: ScriptArgs[K], files: Printer) => string | undefined;

const differs = (expected: string, got: string): string | undefined =>
  expected === got ? undefined : `expected ${expected} got ${got}`;
const items = (desk: Desk, { sel }: { sel: Sel }): Item[] => evaluateSel(sel, contextOf(desk));
const list = (desk: Desk, number: number) =>
  listNumbered(desk.world.show, number) ?? fail(`there is no list ${number}`);
const fixture = (desk: Desk, number: number) =>
  fixtureNumbered(desk.world.show, number) ?? fail(`there is no fixture ${number}`);

/** A drift in a few words. */
const driftText = (desk: Desk, owner: CueList, { kind, at, fixture: id }: Drift): string =>
  `${kind} cue ${cuesOf(owner)[at]!.number} ${desk.world.show.fixtures[id]?.number ?? "?"}`;

const CHECKS: { [K in Asking]: Check<K> } = {
  expectTimecode(desk, { wanted }) {
    const { show } = desk.world;
    const got = framesAt(desk.player.timecode, show.timecode, desk.player.now);
    // Within half a frame it is the same.
    if (Math.abs(got - wanted) <= 0.5) return undefined;
    const text = (frames: number) => `timecode ${lineOfFrames(frames, show.timecode.rate)}`;
    return `expected ${text(wanted)} got ${text(got)}`;
  },
  expectSelection(desk, args) {
    const got = desk.world.hands.selection.map((i) => itemText(desk.world.show, i)).join(" ");
    return differs(`selection ${args.chosen?.join(" ") ?? "none"}`, `selection ${got || "none"}`);
  },
  expectListCue(desk, args) {
    const found = list(desk, args.list);
    const run = desk.player.runs.get(found.id);
    const now = run?.cue ? found.cues[run.cue]?.number : undefined;
    return now !== undefined && sameCueNumber(now, args.cueNumber)
      ? undefined
      : `expected list ${found.number} in cue ${args.cueNumber} got ${now === undefined ? "released" : `cue ${now}`}`;
  },
  expectReleased(desk, args) {
    const found = list(desk, args.list);
    const cue = desk.player.runs.get(found.id)?.cue;
    return cue ? `expected list ${found.number} released got cue ${found.cues[cue]?.number ?? "?"}` : undefined;
  },
  expectDmx(desk, args) {
    const { universe, slot } = args.address;
    const bytes = args.bytes;
    const place = desk.player.rig.universes.indexOf(universe);
    const got = bytes.map((_, i) => (place < 0 ? 0 : (desk.player.frame[place * 512 + slot - 1 + i] ?? 0)));
    return differs(
      `dmx ${addressText({ universe, slot })} ${bytes.join(" ")}`,
      `dmx ${addressText({ universe, slot })} ${got.join(" ")}`,
    );
  },
  expectFixtureAt(desk, args) {
    const found = fixture(desk, args.number);
    return differs(addressText(args.address), found.addresses.map(addressText).join(" ") || "unpatched");
  },
  expectUnpatched: (desk, args) =>
    differs("unpatched", fixture(desk, args.number).addresses.map(addressText).join(" ") || "unpatched"),
  expectCount: (desk, args) =>
    differs(`${args.number} fixtures`, `${Object.keys(desk.world.show.fixtures).length} fixtures`),
  expectLook(desk, args) {
    const owner = listOf(args, contextOf(desk));
    const cue = cueOf(owner, args.cueNumber);
    const wanted = args.signed ? "signed" : "changed";
    if (!cue.signed) return `expected look of cue ${cue.number} ${wanted} got not signed off`;
    const at = cuesOf(owner).findIndex((c) => c.id === cue.id);
    const others = othersIn(desk.world.show, owner, at, cue.signed);
    return differs(`look ${wanted}`, `look ${others.length > 0 ? "changed" : "signed"}`);
  },
  expectCheck: (desk, args) => differs(`check ${args.number}`, `check ${findingsIn(desk.world).length}`),
  check(desk, _, files) {
    const found = findingsIn(desk.world);
    for (const { what, why } of found) files.print(`${what}. ${why}`);
    return found.length > 0 ? `expected nothing suspicious got ${found.length}: ${found[0]!.what}` : undefined;
  },
  expectNoDrift(desk, args) {
    const owner = listOf(args, contextOf(desk));
    const found = driftsOf(desk.world.show, owner).map((d) => driftText(desk, owner, d));
    return differs("drift none", `drift ${found.join(", ") || "none"}`);
  },
  expectDrift(desk, args) {
    const owner = listOf(args, contextOf(desk));
    const cue = cueOf(owner, args.cueNumber);
    const kind = args.lit ? "lit" : "dark";
    const there = driftsOf(desk.world.show, owner);
    const missing = items(desk, args)
      .map((i) => splitItem(i).fixture)
      .find((id) => !there.some((d) => d.cue === cue.id && d.kind === kind && d.fixture === id));
    if (missing === undefined) return undefined;
    const number = desk.world.show.fixtures[missing]?.number ?? "?";
    return `expected drift ${kind} cue ${cue.number} ${number} got ${there.map((d) => driftText(desk, owner, d)).join(", ") || "none"}`;
  },
  expectEntry(desk, args) {
    const found = listOf(args, contextOf(desk));
    const cue = cueOf(found, args.cueNumber);
    const index = cuesOf(found).indexOf(cue);
    const attribute = args.attr;
    const wanted =
      args.stored !== undefined
        ? `stored ${plain(args.stored)}`
        : args.tracked !== undefined
          ? `tracked ${plain(args.tracked)}`
          : args.released
            ? "released"
            : "unset";
    for (const item of items(desk, args)) {
      for (const { key, spec } of targetsOf(desk.world.show, item, attribute)) {
        const standing = standingOf(found, index, key, desk.world.show);
        const means = "entry" in standing && resolveEntry(desk.world.show, key, spec, standing.entry);
        const got =
          "entry" in standing
            ? means && standing.entry.attribute === attribute
              ? `${standing.state} ${plain(means.value)}`
              : "unset"
            : standing.state;
        if (got !== wanted)
          return `expected cue ${cue.number} ${itemText(desk.world.show, item)} ${attribute} ${wanted} got ${got}`;
      }
    }
    return undefined;
  },
  expectPalette(desk, args) {
    const { show } = desk.world;
    const palette = paletteNumbered(show, args.number) ?? fail(`there is no palette ${args.number}`);
    for (const item of items(desk, args))
      for (const { key, spec, attribute } of targetsOf(show, item, args.attr)) {
        const means = resolveEntry(show, key, spec, { attribute, value: { palette: palette.id } });
        const got = means && spec.functions[means.fn]!.attribute === attribute ? means.value : undefined;
        if (got === undefined || Math.abs(got - args.wanted) > 0.01)
          return `expected palette ${palette.number} ${itemText(show, item)} ${attribute} ${args.wanted} got ${got === undefined ? "nothing" : plain(got)}`;
      }
    return undefined;
  },
  expectFrom(desk, args) {
    const wanted = args.default
      ? "default"
      : args.programmer
        ? "programmer"
        : `list ${args.list}${args.cueNumber === undefined ? "" : ` cue ${plain(args.cueNumber, 3)}`}`;
    for (const item of items(desk, args)) {
      for (const { key } of targetsOf(desk.world.show, item, args.attr)) {
        const source = sourceOf(desk.player, desk.player.rig.index.get(key)!);
        const owner = source.kind === "list" ? desk.world.show.lists[source.list] : undefined;
        const cueNumber = source.kind === "list" ? owner?.cues[source.cue]?.number : undefined;
        const got =
          source.kind === "list"
            ? `list ${owner?.number ?? "?"}${args.cueNumber === undefined ? "" : ` cue ${cueNumber ?? "?"}`}`
            : source.kind;
        if (got !== wanted) return `expected ${itemText(desk.world.show, item)} ${args.attr} from ${wanted} got ${got}`;
      }
    }
    return undefined;
  },
  expectValue(desk, args) {
    const chosen = items(desk, args);
    const wanted = args.numbers;
    const attribute = args.attr;
    const within = args.tolerance ?? 0.5;
    if (wanted.length !== 1 && wanted.length !== chosen.length)
      return `expected one value, or ${chosen.length} got ${wanted.length}`;
    const got = chosen.map((item) => stageValues(desk.player, item, attribute));
    if (got.some((values) => values.length === 0))
      return `expected ${attributeInfo(attribute).label.toLowerCase()} of all got some that have none`;
    const right = got.every((values, k) =>
      values.every((v) => Math.abs(v - wanted[wanted.length === 1 ? 0 : k]!) <= within + 1e-9),
    );
    return right
      ? undefined
      : `expected ${attribute} ${wanted.join(" ")} got ${got.map((v) => v.map((x) => plain(x)).join("/")).join(" ")}`;
  },
  expectRipple(desk, args) {
    const [line, wanted] = args.line.split("=>").map((part) => part.trim());
    const read = readLine(line!, contextOf(desk));
    if (read === undefined || isRefusal(read))
      return `expected a line that can be read got: ${read ? refusalText(read) : "nothing"}`;
    const done = perform(desk, read);
    if (isRefusal(done)) return `expected a line that can be done got: ${refusalText(done)}`;
    const { show } = done.world;
    const got = ripple(desk.world.show, show)
      .map((r) => show.lists[r.list]!.cues[r.cue]!.number)
      .sort((a, b) => a - b);
    return differs(`ripple ${wanted}`, `ripple ${got.map((n) => plain(n, 3)).join(" ") || "none"}`);
  },
  print(desk, args, files) {
    const rows = items(desk, args).flatMap((item) =>
      args.attrs.flatMap((attribute) =>
        targetsOf(desk.world.show, item, attribute).map(({ key }, k) => {
          const source = sourceOf(desk.player, desk.player.rig.index.get(key)!);
          const owner = source.kind === "list" ? desk.world.show.lists[source.list] : undefined;
          const text = itemText(desk.world.show, item);
          return {
            fixture: text.includes(".") ? text : Number(text),
            attribute,
            value: stageValues(desk.player, item, attribute)[k],
            unit: attributeInfo(attribute).unit,
            from:
              source.kind === "list"
                ? `list ${owner?.number ?? "?"} cue ${owner?.cues[source.cue]?.number ?? "?"}`
                : source.kind,
          };
        }),
      ),
    );
    files.print(JSON.stringify({ t: desk.time, rows }));
    return undefined;
  },
};
