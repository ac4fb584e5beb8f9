/** Tiny shows for the handbook's pictures: the same language, cues and engine as any show, on a clock of their own. */
import { standingOf, type Standing } from "@/core/cue/tracking";
import { newDesk, runLine, wait, type Desk } from "@/core/desk/desk";
import type { Xy } from "@/core/colour/chromaticity";
import { gamutIn } from "@/core/palette/gamut";
import { stageValues } from "@/core/play/stage/look";
import { refusalText } from "@/core/show/refusal";
import { modelOf, targetsOf } from "@/core/show/model";
import { cuesOf, fixturesByNumber } from "@/core/show/world";
import type { Picture, Shown } from "./meanings";

type Of<K extends Picture["kind"]> = Extract<Picture, { kind: K }>;

/** @throws where a line is refused: a mistake of ours. */
function run(desk: Desk, line: string): void {
  const no = runLine(desk, line);
  if (no) throw new Error(`${line}: ${refusalText(no)}`);
}

export function deskOf(lines: readonly string[]): Desk {
  const desk = newDesk();
  for (const line of lines) run(desk, line);
  return desk;
}

export const fixtureOf = (desk: Desk, number: number) =>
  fixturesByNumber(desk.world.show).find((f) => f.number === number)!;

const SAMPLES = 96;

export interface Curve extends Shown {
  /** Seconds and values. */
  points: [seconds: number, value: number][];
}

/** What is shown, over the seconds of a picture. */
export function curvesOf({ lines, play, seconds, shows }: Of<"curves">): Curve[] {
  const desk = deskOf(lines);
  const waiting = [...play];
  const curves = shows.map((s): Curve => ({ ...s, points: [] }));
  let now = 0;
  const waitTill = (time: number) => {
    if (time > now) wait(desk, time - now);
    now = Math.max(now, time);
  };
  for (let k = 0; k <= SAMPLES; k++) {
    const time = (k / SAMPLES) * seconds;
    while (waiting[0] && waiting[0][0] <= time) {
      const [at, line] = waiting.shift()!;
      waitTill(at);
      run(desk, line);
    }
    waitTill(time);
    for (const { fixture, attribute, points } of curves)
      points.push([time, stageValues(desk.player, fixtureOf(desk, fixture).id, attribute)[0]!]);
  }
  return curves;
}

export interface Cell {
  state: Standing["state"];
  value: number | null;
}

/** By cue of list 1: how the intensity of each fixture stands in it. */
export function cellsOf({ lines, fixtures }: Of<"cells">): { cue: number; cells: Cell[] }[] {
  const desk = deskOf(lines);
  const { show } = desk.world;
  const list = Object.values(show.lists)[0]!;
  const keys = fixtures.map((n) => targetsOf(show, fixtureOf(desk, n).id, "Dimmer")[0]!.key);
  return cuesOf(list).map((cue, index) => ({
    cue: cue.number,
    cells: keys.map((key): Cell => {
      const standing = standingOf(list, index, key, show);
      const value = "entry" in standing ? standing.entry.value : undefined;
      return { state: standing.state, value: typeof value === "number" ? value : null };
    }),
  }));
}

export interface Beam {
  fixture: number;
  /** Upstage and up, metres. */
  from: [y: number, z: number];
  pan: number;
  tilt: number;
}

/** Where movers hang, seen from the side, and the pan and tilt their aim comes to. */
export function beamsOf({ lines, fixtures }: Of<"aim">): Beam[] {
  const desk = deskOf(lines);
  return fixtures.map((number) => {
    const { id, place } = fixtureOf(desk, number);
    const [pan, tilt] = ["Pan", "Tilt"].map((a) => stageValues(desk.player, id, a)[0]!) as [number, number];
    return { fixture: number, from: [place.y, place.z], pan, tilt };
  });
}

/** What types can show. */
export function gamutsOf({ types }: Of<"colours">): { model: string; corners: Xy[] }[] {
  const desk = deskOf(types.map((type) => `patch 1 ${type}`));
  const { show } = desk.world;
  return fixturesByNumber(show).map((fixture) => {
    const { specs, type } = modelOf(show, fixture);
    return { model: type.model, corners: gamutIn(specs) };
  });
}
