/** The rig as an MVR file (DIN SPEC 15801): fixtures with their types, places and addresses; trusses and set pieces. */
import { strToU8, zipSync, type Zippable } from "fflate";
import type { Fixture, Show } from "../../show/schema";
import { splitItem } from "../../show/ids";
import { isAim } from "../../show/value";
import { fixturesByNumber, groupsByNumber, palettesByNumber } from "../../show/world";
import { guidOf } from "../gdtf/guid";
import { writeGdtf } from "../gdtf/file";
import { writeXml } from "../gdtf/xml";
import { hungText } from "./matrix";
import { BODIES, boxFile, pieceText } from "./scenery";
import { plural } from "../../units/plural";

const EPOCH = "1980-01-01T00:00:00";

/** Who a fixture is in files. */
export const uuidOf = (show: Pick<Show, "seed" | "name">, fixture: Pick<Fixture, "id" | "uuid">): string =>
  fixture.uuid ?? guidOf(`fixture ${show.name} ${show.seed} ${fixture.id}`);

const fileName = (maker: string, model: string): string => `${maker}@${model}.gdtf`.replace(/[\\/:*?"<>|]/g, "_");

export interface MvrWritten {
  bytes: Uint8Array;
  /** What of the rig the file does not carry. */
  left: string[];
}

/** Writes the rig. */
export function writeMvr(show: Show): MvrWritten {
  const fixtures = fixturesByNumber(show);
  const types = [...new Set(fixtures.map((f) => f.type))].map((id) => show.types[id]!);
  const names = new Map<string, string>();
  for (const type of types) {
    let name = fileName(type.maker, type.model);
    for (let k = 2; [...names.values()].includes(name); k++) name = fileName(type.maker, `${type.model} ${k}`);
    names.set(type.id, name);
  }
  const classes = [...new Set(fixtures.flatMap((f) => fromNote(f).kind ?? []))];
  const classId = (name: string) => guidOf(`class ${name}`);
  const points = pointsOf(show);
  const positions = [...new Set(fixtures.flatMap((f) => f.position || []))];
  const placeId = (name: string) => guidOf(`position ${name}`);
  const pieces = Object.values(show.scenery);
  const object = (piece: (typeof pieces)[number]) => ({
    "@uuid": guidOf(`piece ${show.seed} ${piece.id}`),
    "@name": piece.name,
    Matrix: [pieceText(piece)],
    Geometries: [{ Geometry3D: [{ "@fileName": BODIES[piece.shape] }] }],
  });
  const element = (f: Fixture) => fixtureElement(show, f, names.get(f.type)!, { placeId, classId });
  const { grouped, alone, twice } = inGroups(show, fixtures);
  const xml = writeXml("GeneralSceneDescription", {
    "@verMajor": 1,
    "@verMinor": 6,
    "@provider": "Bold Comet",
    "@providerVersion": "1",
    UserData: [{}],
    Scene: [
      {
        AUXData: [
          {
            Class: classes.map((name) => ({ "@uuid": classId(name), "@name": name })),
            Position: positions.map((name) => ({ "@uuid": placeId(name), "@name": name })),
          },
        ],
        Layers: [
          {
            Layer: [
              {
                "@uuid": guidOf(`layer ${show.seed}`),
                "@name": "Rig",
                ChildList: [
                  {
                    GroupObject: grouped.map(({ group, members }) => ({
                      "@uuid": guidOf(`group ${show.seed} ${group.id}`),
                      "@name": group.name,
                      ChildList: [{ Fixture: members.map(element) }],
                    })),
                    Fixture: alone.map(element),
                    FocusPoint: points.map(({ id, name, aim: [x, y, height] }) => ({
                      "@uuid": guidOf(`point ${show.seed} ${id}`),
                      "@name": name,
                      Matrix: [hungText({ x, y, z: height }, { x: 0, y: 0, z: 0 })],
                      Geometries: [{}],
                    })),
                    Truss: pieces.filter((p) => p.shape === "truss").map(object),
                    SceneObject: pieces.filter((p) => p.shape !== "truss").map(object),
                  },
                ],
              },
            ],
          },
        ],
      },
    ],
  });
  const files: Zippable = { "GeneralSceneDescription.xml": [strToU8(xml), { mtime: EPOCH, level: 6 }] };
  for (const type of types) files[names.get(type.id)!] = [writeGdtf(type), { mtime: EPOCH, level: 0 }];
  for (const body of new Set(pieces.map((p) => BODIES[p.shape]))) files[body] = [boxFile(), { mtime: EPOCH }];
  return { bytes: zipSync(files), left: leftOut(fixtures, twice) };
}

/** Fixtures by the first group that has them, by its number: in a file a fixture lies in one place. */
function inGroups(show: Show, fixtures: readonly Fixture[]) {
  const taken = new Set<string>();
  let twice = 0;
  const grouped = groupsByNumber(show).flatMap((group) => {
    const ids = [...new Set(group.members.map((m) => splitItem(m).fixture))].filter((id) => show.fixtures[id]);
    const own = ids.filter((id) => !taken.has(id));
    twice += ids.length - own.length;
    for (const id of own) taken.add(id);
    return own.length > 0 ? [{ group, members: own.map((id) => show.fixtures[id]!) }] : [];
  });
  return { grouped, alone: fixtures.filter((f) => !taken.has(f.id)), twice };
}

/** Palettes that aim everything they hold at one point. */
function pointsOf(show: Show): { id: string; name: string; aim: readonly [number, number, number] }[] {
  return palettesByNumber(show).flatMap(({ id, name, own, types, any }) => {
    const values = [
      ...Object.values(own).map((e) => e.value),
      ...Object.values(types).flatMap((t) => Object.values(t.values).map((e) => e.value)),
      ...Object.values(any.values),
    ];
    const aims = values.flatMap((v) => (isAim(v) ? [v.aim] : []));
    const same = aims.every((aim) => aim.join() === aims[0]!.join());
    return aims.length > 0 && aims.length === values.length && same && !any.colour ? [{ id, name, aim: aims[0]! }] : [];
  });
}

/** What came with the fixture from a file and stands in its note. */
function fromNote({ note }: Pick<Fixture, "note">): { unit?: string; custom?: string; kind?: string } {
  const found = (what: string) => new RegExp(`(?:^|; )${what} ([^;]{1,200})`).exec(note)?.[1]?.trim();
  const [unit, custom, kind] = [found("unit"), found("custom id"), found("class")];
  return {
    ...(unit && /^\d{1,9}$/.test(unit) ? { unit } : {}),
    ...(custom && /^\d{1,9}$/.test(custom) ? { custom } : {}),
    ...(kind ? { kind } : {}),
  };
}

function fixtureElement(
  show: Show,
  f: Fixture,
  gdtf: string,
  { placeId, classId }: Record<"placeId" | "classId", (name: string) => string>,
): object {
  const { unit, custom, kind } = fromNote(f);
  return {
    "@uuid": uuidOf(show, f),
    "@name": f.name,
    Matrix: [hungText(f.place, f.turn)],
    GDTFSpec: [gdtf],
    GDTFMode: [f.mode],
    ...(kind ? { Classing: [classId(kind)] } : {}),
    ...(f.position ? { Position: [placeId(f.position)] } : {}),
    FixtureID: [String(f.number)],
    FixtureIDNumeric: [String(f.number)],
    UnitNumber: [unit ?? "0"],
    ...(custom ? { CustomId: [custom] } : {}),
    ...(f.addresses.length > 0
      ? {
          Addresses: [
            {
              Address: f.addresses.map((a) => ({
                "@break": (a.part ?? 1) - 1,
                "#text": String((a.universe - 1) * 512 + a.slot),
              })),
            },
          ],
        }
      : {}),
  };
}

function leftOut(fixtures: readonly Fixture[], twice: number): string[] {
  const some = (what: string, has: (f: Fixture) => boolean) => {
    const own = fixtures.filter(has);
    return own.length > 0 ? [`${what} of ${plural(own.length, "fixture")}`] : [];
  };
  return [
    ...some("inverted or exchanged pan and tilt", (f) => f.invertPan || f.invertTilt || f.swap),
    ...some(
      "scale, curve or preheat",
      (f) => f.scale !== 100 || (f.curve ?? "linear") !== "linear" || (f.preheat ?? 0) > 0,
    ),
    ...some("the hang correction", (f) => f.correct.pan !== 0 || f.correct.tilt !== 0),
    ...(twice > 0 ? [`${twice} places in a second group: a fixture lies in the first of its groups`] : []),
    ...some("notes", (f) => f.note !== "" && Object.keys(fromNote(f)).length === 0),
    ...some("out of service", (f) => f.outOfService === true),
  ];
}
