/** What an MVR file (DIN SPEC 15801) holds: fixtures, their types, trusses and set pieces. */
import { modeOf } from "../../fixture/parameters";
import { LIBRARY } from "../../fixture/library/library";
import type { FixtureType } from "../../fixture/type";
import { isRefusal, refuse, type Refusal } from "../../show/refusal";
import type { Address, Scenic, Show } from "../../show/schema";
import { readGdtf } from "../gdtf/file";
import { all, content, first, readXml, text, within, xmlText, type Element } from "../gdtf/xml";
import { createNotes, type Note } from "../gdtf/notes";
import { canonical } from "../canonical";
import { unpacked, zipFiles, type ZipFile } from "../zip";
import { placedBy, together } from "./matrix";
import { pieceOf } from "./scenery";

const MB = 1024 * 1024;
const MOST_FILE = 256 * MB;
const MOST_SCENE = 64 * MB;
const MOST_TYPE = 64 * MB;
const MOST_FIXTURES = 20_000;
const MOST_PIECES = 1000;
const MOST_POINTS = 1000;
const DEEPEST = 64;

export interface MvrFixture {
  uuid: string;
  name: string;
  /** As the file has it; undefined where it is no whole number. */
  number: number | undefined;
  type: FixtureType;
  mode: string;
  addresses: Address[];
  place: { x: number; y: number; z: number };
  turn: { x: number; y: number; z: number };
  position?: string;
  /** What the file says of it that has no place of its own here. */
  note?: string;
  /** The focus point it is turned to, by its uuid. */
  focus?: string;
}

/** A layer, or a group within one: the fixtures in it, by their places in the list of the file's fixtures. */
export interface MvrSet {
  kind: "layer" | "group";
  name: string;
  fixtures: number[];
}

export interface MvrPoint {
  uuid: string;
  name: string;
  /** Metres. */
  at: { x: number; y: number; z: number };
}

export interface MvrRead {
  fixtures: MvrFixture[];
  pieces: Omit<Scenic, "id">[];
  sets: MvrSet[];
  points: MvrPoint[];
  /** What was left out, in words. */
  notes: string[];
}

/** Reads a file. Steps tell the share done, 0 to 1; whoever asks may stop. */
export function* readingMvr(bytes: Uint8Array, show: Pick<Show, "types">): Generator<number, MvrRead | Refusal> {
  if (bytes.length > MOST_FILE) return refuse(`this file is larger than ${MOST_FILE / MB} MB`);
  const files = bytes[0] === 0x50 && bytes[1] === 0x4b ? zipFiles(bytes) : undefined;
  if (!files) return refuse("this is not an MVR file, or it is damaged", "Choose a file that ends in .mvr");
  const scene = files.find((f) => f.name === "GeneralSceneDescription.xml");
  if (!scene) return refuse("this file has no GeneralSceneDescription.xml in it", "Choose a file that ends in .mvr");
  if (scene.size > MOST_SCENE) return refuse(`its description unpacks to more than ${MOST_SCENE / MB} MB`);
  const xml = unpacked(bytes, scene);
  if (!xml) return refuse("the description in this MVR file is damaged", "Export it again");
  yield 0.1;
  const source = xmlText(xml);
  const root = readXml(source, "GeneralSceneDescription", "the description in this MVR file");
  if ("refused" in root) return root as Refusal;
  yield 0.4;
  const notes = createNotes(source, 500);
  const { note } = notes;
  const scenery = first(root, "Scene");
  const named = (tag: string) =>
    new Map(within(scenery, "AUXData", tag).map((p) => [text(p, "uuid"), text(p, "name")] as const));
  const aux: Aux = { places: named("Position"), classes: named("Class") };
  const symbols = new Map(within(scenery, "AUXData", "Symdef").map((s) => [text(s, "uuid"), s] as const));
  const found: Found[] = [];
  const sets: MvrSet[] = [];
  const setOf = (element: Element, kind: MvrSet["kind"]): MvrSet => {
    const set: MvrSet = { kind, name: text(element, "name").slice(0, 200), fixtures: [] };
    sets.push(set);
    return set;
  };
  for (const layer of within(scenery, "Layers", "Layer"))
    gather(layer, { found, setOf, sets: [setOf(layer, "layer")], depth: 0, above: "" });
  const points: MvrPoint[] = [];
  const types = new Types(bytes, files, show, note);
  const fixtures: MvrFixture[] = [];
  const pieces: Omit<Scenic, "id">[] = [];
  for (const [k, { tag, element, matrix, sets: own }] of found.entries()) {
    if (k % 200 === 199) yield 0.4 + (0.6 * k) / found.length;
    if (tag === "FocusPoint") {
      const point = pointOf(element, matrix);
      if (point && points.length < MOST_POINTS) points.push(point);
      else note(`focus point "${text(element, "name")}" is left out`, element);
      continue;
    }
    if (tag !== "Fixture") {
      const symbol = within(element, "Geometries", "Symbol")[0];
      const drawn = symbol ? first(symbols.get(text(symbol, "symdef")), "ChildList") : first(element, "Geometries");
      const body = text(all(drawn, "Geometry3D")[0], "fileName");
      const moved = content(first(symbol, "Matrix"));
      const stands = moved ? together(matrix || IDENTITY, moved) : matrix || IDENTITY;
      const piece = pieceOf(text(element, "name"), stands, body, tag === "Truss");
      if (!piece || pieces.length >= MOST_PIECES) note(`${tag} "${text(element, "name")}" is left out`, element);
      else pieces.push(piece);
      continue;
    }
    const made = fixtureOf(element, matrix, types, aux, note);
    if (made && fixtures.length < MOST_FIXTURES) {
      for (const set of own) set.fixtures.push(fixtures.length);
      fixtures.push(made);
    } else if (made) note(`more than ${MOST_FIXTURES.toLocaleString("en")} fixtures: the rest is left out`, element);
  }
  if (fixtures.length === 0 && pieces.length === 0)
    return refuse("no fixture and no scenery of this file can be used", notes.list()[0] ?? "Export it again");
  return { fixtures, pieces, sets: sets.filter((set) => set.fixtures.length > 0), points, notes: notes.list() };
}

function pointOf(element: Element, matrix: string): MvrPoint | undefined {
  const placed = placedBy(matrix || IDENTITY);
  if (!placed) return undefined;
  return {
    uuid: text(element, "uuid").toUpperCase(),
    name: text(element, "name").trim().slice(0, 200) || "Focus point",
    at: placed.place,
  };
}

const IDENTITY = "{1,0,0}{0,1,0}{0,0,1}{0,0,0}";

/** The same in one go. */
export function readMvr(bytes: Uint8Array, show: Pick<Show, "types">): MvrRead | Refusal {
  const work = readingMvr(bytes, show);
  for (;;) {
    const { done, value } = work.next();
    if (done) return value;
  }
}

interface Found {
  tag: string;
  element: Element;
  matrix: string;
  /** The layer and the groups it lies in. */
  sets: readonly MvrSet[];
}

interface Gathering {
  found: Found[];
  setOf(element: Element, kind: MvrSet["kind"]): MvrSet;
  sets: readonly MvrSet[];
  depth: number;
  above: string;
}

/** Everything in layers and groups, where it stands in the room. */
function gather(element: Element, { found, setOf, sets, depth, above }: Gathering): void {
  if (depth > DEEPEST) return;
  const own = content(first(element, "Matrix"));
  const matrix = above && own ? together(above, own) : own || above;
  const deeper = { found, setOf, sets, depth: depth + 1, above: matrix };
  for (const list of all(element, "ChildList")) {
    for (const tag of ["Fixture", "Truss", "SceneObject", "Support", "VideoScreen", "FocusPoint"] as const)
      for (const child of all(list, tag)) {
        const inner = content(first(child, "Matrix"));
        found.push({ tag, element: child, matrix: matrix && inner ? together(matrix, inner) : inner || matrix, sets });
        gather(child, deeper);
      }
    for (const group of all(list, "GroupObject")) gather(group, { ...deeper, sets: [...sets, setOf(group, "group")] });
  }
}

const typeText = ({ modes, maker, model }: FixtureType): string => canonical({ modes, maker, model });

/** The types a file brings or names, each read once. */
class Types {
  private readonly known = new Map<string, FixtureType | undefined>();
  private types: Show["types"];

  constructor(
    private readonly bytes: Uint8Array,
    private readonly files: readonly ZipFile[],
    show: Pick<Show, "types">,
    private readonly note: Note,
  ) {
    this.types = show.types;
  }

  named(spec: string): FixtureType | undefined {
    if (this.known.has(spec)) return this.known.get(spec);
    const made = this.read(spec);
    this.known.set(spec, made);
    if (made) this.types = { ...this.types, [made.id]: made };
    return made;
  }

  private read(spec: string): FixtureType | undefined {
    const bare = spec.replace(/\.gdtf$/i, "");
    const file = this.files.find((f) => f.name.replace(/\.gdtf$/i, "") === bare);
    const data = file && file.size <= MOST_TYPE ? unpacked(this.bytes, file) : undefined;
    const read = data && readGdtf(data, { types: this.types });
    if (read && !isRefusal(read)) {
      for (const what of read.notes) this.note(`${bare}: ${what}`);
      const mine = this.types[read.type.id];
      if (mine && typeText(mine) !== typeText(read.type))
        this.note(`${bare}: the show has another version of it, which is kept`);
      return mine ?? read.type;
    }
    const [maker, model] = bare.split("@");
    const plain = (t: string | undefined) => (t ?? "").toLowerCase().trim();
    const own = [...Object.values(this.types), ...LIBRARY].find(
      (t) => plain(t.maker) === plain(maker) && plain(t.model) === plain(model),
    );
    if (!own)
      this.note(
        `the type ${bare || "without a name"} ${read ? `cannot be used: ${read.what}` : "did not come with the file"}`,
      );
    return own;
  }
}

function fixtureOf(
  element: Element,
  matrix: string,
  types: Types,
  { places, classes }: Aux,
  note: Note,
): MvrFixture | undefined {
  const name = text(element, "name").slice(0, 200);
  const id = content(first(element, "FixtureID"));
  const label = `fixture ${id || name || "?"}`;
  const spec = content(first(element, "GDTFSpec"));
  const type = types.named(spec);
  if (!type) {
    note(`${label} is left out: its type ${spec || "is not said"}${spec ? " is not there" : ""}`, element);
    return undefined;
  }
  const wanted = content(first(element, "GDTFMode"));
  const mode = modeOf(type, wanted);
  if (!mode) note(`${label}: ${type.model} has no mode "${wanted}", ${type.modes[0]!.name} is taken`, element);
  const numeric = Number(content(first(element, "FixtureIDNumeric"))) || Number(id);
  if (id !== "" && !/^\d+$/.test(id)) note(`${label}: its FixtureID is no number and is kept in its note`, element);
  const said = noteOf(element, id, classes);
  const placed = placedBy(matrix || IDENTITY);
  if (!placed) note(`${label}: its matrix makes no sense, it hangs at the middle of the stage`, element);
  const position = places.get(content(first(element, "Position")));
  const uuid = text(element, "uuid");
  const focus = content(first(element, "Focus")).toUpperCase();
  return {
    uuid: /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i.test(uuid) ? uuid.toUpperCase() : "",
    name: name || type.model,
    number: Number.isInteger(numeric) && numeric >= 1 && numeric <= 999_999 ? numeric : undefined,
    type,
    mode: (mode ?? type.modes[0]!).name,
    addresses: addressesOf(element, label, note),
    place: placed?.place ?? { x: 0, y: 0, z: 0 },
    turn: placed?.turn ?? { x: 0, y: 0, z: 0 },
    ...(position ? { position: position.slice(0, 200) } : {}),
    ...(said ? { note: said } : {}),
    ...(focus ? { focus } : {}),
  };
}

/** Names of what fixtures refer to, by their uuid. */
interface Aux {
  places: ReadonlyMap<string, string>;
  classes: ReadonlyMap<string, string>;
}

/** "FixtureID A12; unit 5; custom id 7; class Front": what other programs count and sort it by. */
function noteOf(element: Element, id: string, classes: ReadonlyMap<string, string>): string {
  const says = (tag: string, none = "") => {
    const value = content(first(element, tag));
    return value === none || value === "0" ? "" : value;
  };
  const [unit, custom, kind] = [says("UnitNumber"), says("CustomId"), classes.get(says("Classing"))];
  return [
    id !== "" && !/^\d+$/.test(id) && `FixtureID ${id}`,
    unit && `unit ${unit}`,
    custom && `custom id ${custom}`,
    kind && `class ${kind}`,
  ]
    .filter(Boolean)
    .join("; ")
    .slice(0, 500);
}

/** Its addresses, each of its DMX break: breaks count in their order, from whatever number the file begins with. */
function addressesOf(element: Element, label: string, note: Note): Address[] {
  const listed = within(element, "Addresses", "Address").map((a) => ({
    part: Number(text(a, "break") || "0"),
    at: content(a),
  }));
  const order = [...new Set(listed.map((a) => a.part))].sort((a, b) => a - b);
  if (listed.length > 16) note(`${label} has ${listed.length} addresses; 16 is the most`, element);
  return listed.slice(0, 16).flatMap(({ part, at }): Address[] => {
    const of = order.indexOf(part) + 1;
    const split = /^(\d{1,5})\.(\d{1,3})$/.exec(at);
    const absolute = /^\d{1,8}$/.test(at) ? Number(at) : 0;
    const made = split
      ? { universe: Number(split[1]), slot: Number(split[2]) }
      : { universe: Math.floor((absolute - 1) / 512) + 1, slot: ((absolute - 1) % 512) + 1 };
    if (made.universe >= 1 && made.universe <= 63_999 && made.slot >= 1 && made.slot <= 512)
      return [of === 1 ? made : { ...made, part: of }];
    if (at !== "" && at !== "0") note(`${label}: "${at}" is no address`, element);
    return [];
  });
}
