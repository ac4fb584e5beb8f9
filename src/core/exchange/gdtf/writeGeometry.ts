/** The geometry tree of a type of ours, as GDTF has it. */
import { layoutOf, mastersIn, type FixtureType, type Mode } from "../../fixture/type";

/** The body all channels hang on, and its parts. */
export const BODY = "Body";
const HEAD = "Head";
const UNTURNED = "{1,0,0,0}{0,1,0,0}{0,0,1,0}{0,0,0,1}";
/** The model of what turns. */
export const HEAD_BODY = "Head body";

/** Cells that are all alike are one geometry that is referred to. */
export function alike(mode: Mode): boolean {
  const layout = layoutOf(mode);
  const shapes = Array.from({ length: mode.cells }, (_, c) => {
    const own = mode.channels
      .map((channel, k) => ({ channel, slots: layout[k]! }))
      .filter((x) => x.channel.cell === c + 1);
    const start = Math.min(...own.flatMap((x) => x.slots));
    return JSON.stringify(
      own.map(({ channel: { cell: _, slots: _s, ...channel }, slots }) => [channel, slots.map((s) => s - start)]),
    );
  });
  const masters = mastersIn(mode).size > 0;
  return mode.cells > 1 && !mode.breaks && !masters && shapes.every((s) => s === shapes[0] && s !== "[]");
}

/** Names are those of the whole file: the same part of another mode has another. */
const ofMode = (name: string, k: number): string => (k === 0 ? name : `${name} of mode ${k + 1}`);
export const bodyName = (k: number): string => ofMode(BODY, k);
export const cellName = (k: number): string => ofMode("Cell", k);
/** One cell among those of a mode. */
export const cellOf = (cell: number, k: number): string => ofMode(`Cell ${cell}`, k);

const AXES = { Pan: "Yoke", Tilt: "Joint" } as const;
type Axis = keyof typeof AXES;
/** What turns the whole fixture, the outer first. */
export const axesOf = (mode: Mode): Axis[] =>
  (["Pan", "Tilt"] as const).filter((axis) =>
    mode.channels.some((c) => c.cell === 0 && c.functions[0]!.attribute === axis),
  );
export const axisName = (axis: Axis, k: number): string => ofMode(AXES[axis], k);

export function geometriesOf(type: FixtureType, mode: Mode, k: number): object[] {
  const beam = {
    "@Name": ofMode(HEAD, k),
    "@Position": UNTURNED,
    ...(type.physical?.beamAngle === undefined ? {} : { "@BeamAngle": type.physical.beamAngle }),
    ...(type.physical?.lumens === undefined ? {} : { "@LuminousFlux": type.physical.lumens }),
    ...(type.physical?.watts === undefined ? {} : { "@PowerConsumption": type.physical.watts }),
  };
  const layout = layoutOf(mode);
  const start = (cell: number) => Math.min(...mode.channels.flatMap((c, i) => (c.cell === cell ? layout[i]! : [])));
  const shared = alike(mode);
  const cells = Array.from({ length: mode.cells }, (_, c) => c + 1);
  const place = (cell: number): string => {
    const at = mode.places?.length === mode.cells ? mode.places[cell - 1] : undefined;
    return at ? `{1,0,0,${at[0]}}{0,1,0,${at[1]}}{0,0,1,${at[2]}}{0,0,0,1}` : UNTURNED;
  };
  const inner = {
    ...(mode.cells === 0 ? { Beam: [beam] } : {}),
    ...(shared
      ? {
          GeometryReference: cells.map((c) => ({
            "@Name": cellOf(c, k),
            "@Geometry": cellName(k),
            "@Position": place(c),
            Break: [{ "@DMXBreak": 1, "@DMXOffset": start(c) + 1 }],
          })),
        }
      : mode.cells > 0
        ? { Beam: cells.map((c) => ({ ...beam, "@Name": cellOf(c, k), "@Position": place(c) })) }
        : {}),
  };
  const axes = axesOf(mode);
  const turned = axes.reduceRight<object>(
    (hangs, axis, i) => ({
      Axis: [
        {
          "@Name": axisName(axis, k),
          // The model of the head is of what turns last.
          ...(type.physical?.head && i === axes.length - 1 ? { "@Model": HEAD_BODY } : {}),
          "@Position": UNTURNED,
          ...hangs,
        },
      ],
    }),
    inner,
  );
  return [
    { "@Name": bodyName(k), "@Model": BODY, "@Position": UNTURNED, ...turned },
    ...(shared
      ? [{ "@Name": cellName(k), "@Position": UNTURNED, Beam: [{ ...beam, "@Name": `${cellName(k)} light` }] }]
      : []),
  ];
}
