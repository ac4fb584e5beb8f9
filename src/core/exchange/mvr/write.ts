/** The rig as an MVR file (DIN SPEC 15801): fixtures with their types, places and addresses; trusses and set pieces. */
import { strToU8, zipSync, type Zippable } from "fflate";
import type { Fixture, Show } from "../../show/schema";
import { fixturesByNumber } from "../../show/world";
import { guidOf } from "../gdtf/guid";
import { writeGdtf } from "../gdtf/file";
import { writeXml } from "../gdtf/xml";
import { hungText } from "./matrix";
import { BODIES, boxFile, pieceText } from "./scenery";

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
  const positions = [...new Set(fixtures.flatMap((f) => f.position || []))];
  const placeId = (name: string) => guidOf(`position ${name}`);
  const pieces = Object.values(show.scenery);
  const object = (piece: (typeof pieces)[number]) => ({
    "@uuid": guidOf(`piece ${show.seed} ${piece.id}`),
    "@name": piece.name,
    Matrix: [pieceText(piece)],
    Geometries: [{ Geometry3D: [{ "@fileName": BODIES[piece.shape] }] }],
  });
  const xml = writeXml("GeneralSceneDescription", {
    "@verMajor": 1,
    "@verMinor": 6,
    "@provider": "Bold Comet",
    "@providerVersion": "1",
    UserData: [{}],
    Scene: [
      {
        AUXData: [{ Position: positions.map((name) => ({ "@uuid": placeId(name), "@name": name })) }],
        Layers: [
          {
            Layer: [
              {
                "@uuid": guidOf(`layer ${show.seed}`),
                "@name": "Rig",
                ChildList: [
                  {
                    Fixture: fixtures.map((f) => fixtureElement(show, f, names.get(f.type)!, placeId)),
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
  return { bytes: zipSync(files), left: leftOut(fixtures) };
}

function fixtureElement(show: Show, f: Fixture, gdtf: string, placeId: (name: string) => string): object {
  return {
    "@uuid": uuidOf(show, f),
    "@name": f.name,
    Matrix: [hungText(f.place, f.turn)],
    GDTFSpec: [gdtf],
    GDTFMode: [f.mode],
    ...(f.position ? { Position: [placeId(f.position)] } : {}),
    FixtureID: [String(f.number)],
    FixtureIDNumeric: [String(f.number)],
    UnitNumber: ["0"],
    ...(f.addresses.length > 0
      ? {
          Addresses: [
            { Address: f.addresses.map((a) => ({ "@break": 0, "#text": String((a.universe - 1) * 512 + a.slot) })) },
          ],
        }
      : {}),
  };
}

function leftOut(fixtures: readonly Fixture[]): string[] {
  const some = (what: string, has: (f: Fixture) => boolean) => {
    const own = fixtures.filter(has);
    return own.length > 0 ? [`${what} of ${own.length} ${own.length === 1 ? "fixture" : "fixtures"}`] : [];
  };
  return [
    ...some("inverted or exchanged pan and tilt", (f) => f.invertPan || f.invertTilt || f.swap),
    ...some(
      "scale, curve or preheat",
      (f) => f.scale !== 100 || (f.curve ?? "linear") !== "linear" || (f.preheat ?? 0) > 0,
    ),
    ...some("the hang correction", (f) => f.correct.pan !== 0 || f.correct.tilt !== 0),
    ...some("notes", (f) => f.note !== ""),
    ...some("out of service", (f) => f.outOfService === true),
  ];
}
