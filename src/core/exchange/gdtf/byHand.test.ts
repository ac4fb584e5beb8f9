/** Catches a GDTF file that is read otherwise than DIN SPEC 15800 says: types written by hand, as other hands write them. */
import fc from "fast-check";
import { strToU8, zipSync } from "fflate";
import { demoWorld } from "@tests/setup/demo";
import { LIBRARY } from "../../fixture/library/library";
import { footprint, layoutOf, typeProblem, type FixtureType } from "../../fixture/type";
import { placeOf } from "../../select/place";
import { isRefusal } from "../../show/refusal";
import { parametersOf } from "../../fixture/parameters";
import { colourIn } from "../../palette/colour";
import { colourSeen } from "../../palette/seen";
import { newShow } from "../../show/world";
import { readShowFile, writeShowFile } from "../showFile";
import { readGdtf, writeGdtf } from "./file";
import { dmxValue } from "./values";
import { newDesk, performOn, runLine } from "../../desk/desk";
import { hold } from "../../program/intents";
import { putType } from "../../rig/typeIntent";
import { diffOf, readDiff, writeDiff } from "../../show/change/diff";
import { newWorld } from "../../show/world";
import { BASE, channel, description, fn, mode, zipped } from "@tests/setup/gdtf";
import { runs } from "@tests/setup/runs";

function read(xml: string, more?: Record<string, Uint8Array>) {
  const made = readGdtf(zipped(xml, more), { types: {} });
  if (isRefusal(made)) throw new Error(made.what);
  return made;
}
const heads = (type: FixtureType) => type.modes[0]!.channels.map((c) => `${c.cell}.${c.functions[0]!.attribute}`);

test("a dimmer of one channel: percent of a share of one, what its beam is like", () => {
  const { type, notes } = read(description(BASE + mode(channel("1", "Base", "Dimmer"))));
  expect(notes).toEqual([]);
  expect(type).toMatchObject({
    maker: "Brine & Sons",
    model: "Hand Lamp",
    kind: "conventional",
    physical: { beamAngle: 19, lumens: 4200, watts: 750 },
  });
  expect(type.modes[0]!.channels).toEqual([
    {
      cell: 0,
      bytes: 1,
      highlight: 100,
      functions: [{ attribute: "Dimmer", dmxFrom: 0, dmxTo: 255, from: 0, to: 100 }],
    },
  ]);
});

test("DMX values in other numbers of bytes are repeated, or shifted where they say so", () => {
  expect([
    dmxValue("255/1", 2),
    dmxValue("255/1s", 2),
    dmxValue("32768/2", 1),
    dmxValue("1/1", 3),
    dmxValue("128", 1),
  ]).toEqual([65535, 65280, 128, 0x010101, 128]);
  expect([dmxValue("256/1", 1), dmxValue("x/1", 1), dmxValue("-1/1", 1)]).toEqual([undefined, undefined, undefined]);
});

test("a bar whose cells are one geometry referred to: breaks shift their channels", () => {
  const cells = [1, 4, 7]
    .map(
      (at, k) =>
        `<GeometryReference Name="Px${k + 1}" Geometry="Pixel"><Break DMXBreak="1" DMXOffset="${at}"/></GeometryReference>`,
    )
    .join("");
  const tree = `<Geometries><Geometry Name="Base">${cells}</Geometry><Beam Name="Pixel"/></Geometries>`;
  const rgb = ["R", "G", "B"].map((c, k) => channel(String(k + 1), "Pixel", `ColorAdd_${c}`)).join("");
  const { type } = read(description(tree + mode(rgb + channel("10", "Base", "Dimmer"))));
  expect(heads(type)).toEqual([
    "1.ColorAdd_R",
    "1.ColorAdd_G",
    "1.ColorAdd_B",
    "2.ColorAdd_R",
    "2.ColorAdd_G",
    "2.ColorAdd_B",
    "3.ColorAdd_R",
    "3.ColorAdd_G",
    "3.ColorAdd_B",
    "0.Dimmer",
  ]);
  expect(footprint(type.modes[0]!)).toBe(10);
  expect(type.modes[0]!.cells).toBe(3);
});

test("a spot with three wheels, pan of 24 bits at slots apart, and a mode master", () => {
  const wheels = `<Wheels>${["Colours", "Gobos", "Breakups"].map((w) => `<Wheel Name="${w}"><Slot Name="Open" Color="0.3127,0.3290,100"/><Slot Name="Brick" Color="0.64,0.33,21" MediaFileName="brick"/></Wheel>`).join("")}</Wheels>`;
  const sets = `<ChannelSet Name="Open" DMXFrom="0/1" WheelSlotIndex="1"/><ChannelSet Name="Brick" DMXFrom="10/1" WheelSlotIndex="2"/>`;
  const wheel = (slot: string, attribute: string, name: string) =>
    channel(
      slot,
      "Base",
      attribute,
      `<ChannelFunction Name="${attribute} 1" Attribute="${attribute}" DMXFrom="0/1" Default="0/1" PhysicalFrom="0" PhysicalTo="1" Wheel="${name}">${sets}</ChannelFunction><ChannelFunction Name="spin" Attribute="${attribute}WheelSpin" DMXFrom="20/1" PhysicalFrom="-180" PhysicalTo="180"/>`,
    );
  const turned = channel(
    "8",
    "Base",
    "Gobo1Pos",
    `<ChannelFunction Name="index" Attribute="Gobo1Pos" DMXFrom="0/1" Default="0/1" PhysicalFrom="0" PhysicalTo="360" ModeMaster="Base_Control1" ModeFrom="0/1" ModeTo="127/1"/><ChannelFunction Name="spin" Attribute="Gobo1PosRotate" DMXFrom="0/1" PhysicalFrom="-360" PhysicalTo="360" ModeMaster="Base_Control1" ModeFrom="128/1" ModeTo="255/1"/>`,
  );
  const pan = channel(
    "1,2,12",
    "Base",
    "Pan",
    `<ChannelFunction Name="Pan 1" Attribute="Pan" DMXFrom="0/3" Default="8388608/3" PhysicalFrom="-270" PhysicalTo="270"/>`,
  );
  const xml = description(
    wheels +
      BASE +
      mode(
        pan +
          wheel("5", "Color1", "Colours") +
          wheel("6", "Gobo1", "Gobos") +
          wheel("7", "Gobo2", "Breakups") +
          turned +
          channel("9", "Base", "Control1"),
      ),
  );
  const { type, notes } = read(xml, { "wheels/brick.png": Uint8Array.of(0x89, 0x50, 0x4e, 0x47, 1, 2, 3) });
  expect(notes).toEqual([]);
  const [first, colour, gobo, , angle] = type.modes[0]!.channels;
  expect(first).toMatchObject({ bytes: 3, functions: [{ dmxTo: 2 ** 24 - 1, from: -270, to: 270 }] });
  expect(layoutOf(type.modes[0]!)[0]).toEqual([0, 1, 11]);
  expect(colour!.functions.map((f) => [f.attribute, f.dmxFrom, f.dmxTo, f.from, f.to])).toEqual([
    ["Color1", 0, 19, 1, 2],
    ["Color1WheelSpin", 20, 255, -30, 30],
  ]);
  expect(colour!.functions[0]!.steps!.map((s) => [s.name, s.dmxFrom, s.dmxTo])).toEqual([
    ["Open", 0, 9],
    ["Brick", 10, 19],
  ]);
  expect(gobo!.functions[0]!.steps![1]).toMatchObject({ picture: "brick" });
  expect(Object.keys(type.pictures!)).toEqual(["brick"]);
  // The master is the sixth channel by its slot.
  expect(angle!.functions.map((f) => [f.attribute, f.dmxTo, f.master])).toEqual([
    ["Gobo1Pos", 255, { channel: 5, from: 0, to: 127 }],
    ["Gobo1PosRotate", 255, { channel: 5, from: 128, to: 255 }],
  ]);
});

test("measured emitters, an attribute of the maker's own, two breaks, a virtual dimmer, and what is told", () => {
  const attributes = `<AttributeDefinitions><Attributes><Attribute Name="Sparkle" Pretty="Sparkle" Feature="Beam.Beam" PhysicalUnit="Percent"/></Attributes></AttributeDefinitions>`;
  const emitters = `<PhysicalDescriptions><Emitters><Emitter Name="Deep red" Color="0.71,0.28,18"/></Emitters></PhysicalDescriptions>`;
  const red = channel("1", "Base", "ColorAdd_R", fn("ColorAdd_R", 'Emitter="Deep red"'));
  const far = `<DMXChannel DMXBreak="2" Offset="1" Geometry="Base"><LogicalChannel Attribute="Sparkle">${fn("Sparkle")}</LogicalChannel></DMXChannel>`;
  const virtual = `<DMXChannel DMXBreak="1" Offset="" Geometry="Base"><LogicalChannel Attribute="Dimmer">${fn("Dimmer")}</LogicalChannel></DMXChannel>`;
  const odd = `<DMXChannel DMXBreak="1" Offset="None" Geometry="Base"><LogicalChannel Attribute="Zoom">${fn("Zoom")}</LogicalChannel></DMXChannel>`;
  const { type, notes } = read(description(attributes + emitters + BASE + mode(red + far + virtual + odd)));
  expect(heads(type)).toEqual(["0.ColorAdd_R", "0.Sparkle"]);
  expect(type.modes[0]!.channels[0]!.functions[0]!.emitter).toEqual({ xy: [0.71, 0.28], flux: 18 });
  expect(type.modes[0]!.channels[1]!.functions[0]!).toMatchObject({
    info: { family: "Beam", unit: "%", label: "Sparkle" },
    to: 100,
  });
  expect(footprint(type.modes[0]!)).toBe(2);
  expect(notes).toEqual(["line 5: mode Basic, channel None (Zoom): it is virtual and left out"]);
});

test("cells lie where their geometry is, references within turned parts among them, and out again", () => {
  const at = (x: number, y: number, z = 0) => `Position="{1,0,0,${x}}{0,1,0,${y}}{0,0,1,${z}}{0,0,0,1}"`;
  const cell = (k: number, x: number, y: number) =>
    `<GeometryReference Name="C${k}" Geometry="Pixel" ${at(x, y)}><Break DMXBreak="1" DMXOffset="${k}"/></GeometryReference>`;
  // The panel is turned by a quarter: what is across in it lies upstage.
  const tree = `<Geometries><Geometry Name="Base"><Geometry Name="Panel" Position="{0,-1,0,0}{1,0,0,0.5}{0,0,1,-0.2}{0,0,0,1}">${cell(1, 0, 0)}${cell(2, 0.3, 0)}${cell(3, 0, 0.3)}${cell(4, 0.3, 0.3)}</Geometry></Geometry><Geometry Name="Pixel"><Beam Name="Lens"/></Geometry></Geometries>`;
  const { type } = read(description(tree + mode(channel("1", "Pixel", "Dimmer"))));
  expect(type.modes[0]!.cells).toBe(4);
  const places = [
    [0, 0.5, -0.2],
    [0, 0.8, -0.2],
    [-0.3, 0.5, -0.2],
    [-0.3, 0.8, -0.2],
  ];
  expect(type.modes[0]!.places).toEqual(places);
  const again = readGdtf(writeGdtf({ ...type, file: undefined }), { types: {} });
  expect(!isRefusal(again) && again.type.modes[0]!.places).toEqual(places);
  const fixture = {
    ...Object.values(demoWorld().show.fixtures)[0]!,
    id: "f1",
    type: type.id,
    mode: "Basic",
    place: { x: 1, y: 2, z: 5 },
    turn: { x: 0, y: 0, z: 90 },
  };
  const show = { ...newShow("x"), types: { [type.id]: type }, fixtures: { f1: fixture } };
  const there = placeOf(show, "f1.2");
  expect([there.x, there.y, there.z].map((v) => Math.round(v * 1e6) / 1e6)).toEqual([0.2, 2, 4.8]);
});

test("a base and a head of their own measures and shapes, and out again", () => {
  const models = `<Models><Model Name="Foot" Width="0.4" Length="0.3" Height="0.12" PrimitiveType="Cylinder"/><Model Name="Yoke" Width="0.4" Length="0.1" Height="0.4" PrimitiveType="Yoke"/><Model Name="Top" Width="0.28" Length="0.24" Height="0.5" PrimitiveType="Head"/></Models>`;
  const tree = `<Geometries><Geometry Name="Base" Model="Foot"><Axis Name="Arm" Model="Yoke"><Axis Name="Joint" Model="Top"><Beam Name="Lens" BeamAngle="12"/></Axis></Axis></Geometry></Geometries>`;
  const { type } = read(description(models + tree + mode(channel("1", "Arm", "Pan") + channel("2", "Joint", "Tilt"))));
  const physical = { beamAngle: 12, size: [0.4, 0.3, 0.12], round: true, head: { size: [0.28, 0.24, 0.5] } };
  expect(type.physical).toEqual(physical);
  const again = readGdtf(writeGdtf({ ...type, file: undefined }), { types: {} });
  expect(!isRefusal(again) && again.type.physical).toEqual(physical);
});

test("filters are as they were measured: colours through them, wheels without a colour of their own, and out again", () => {
  const physical = `<PhysicalDescriptions><Filters><Filter Name="Deep cyan" Color="0.2,0.32,30"/><Filter Name="Ochre" Color="0.5,0.42,60"/></Filters></PhysicalDescriptions>`;
  const wheels = `<Wheels><Wheel Name="Colours"><Slot Name="Open" Color="0.3127,0.329,100"/><Slot Name="Ochre" Filter="Ochre"/></Wheel></Wheels>`;
  const sub = (slot: number, name: string, more = "") =>
    channel(String(slot), "Base", `ColorSub_${name}`, fn(`ColorSub_${name}`, more));
  const wheel = channel(
    "4",
    "Base",
    "Color1",
    fn(
      "Color1",
      'Wheel="Colours"',
      `<ChannelSet Name="Open" DMXFrom="0/1" WheelSlotIndex="1"/><ChannelSet Name="Ochre" DMXFrom="128/1" WheelSlotIndex="2"/>`,
    ),
  );
  const { type, notes } = read(
    description(wheels + physical + BASE + mode(sub(1, "C", 'Filter="Deep cyan"') + sub(2, "M") + sub(3, "Y") + wheel)),
  );
  expect(notes).toEqual([]);
  const own = type.modes[0]!.channels.map((c) => c.functions[0]!);
  expect(own.slice(0, 3).map((f) => f.through)).toEqual([[0.2, 0.32], undefined, undefined]);
  expect(own[3]!.steps![1]!.colour).toMatch(/^#[0-9a-f]{6}$/);
  const again = readGdtf(writeGdtf({ ...type, file: undefined }), { types: {} });
  if (isRefusal(again)) throw new Error(again.what);
  expect(again.type.modes[0]!.channels[0]!.functions[0]!.through).toEqual([0.2, 0.32]);
  // Full cyan leaves what was measured, and that colour is made by full cyan.
  const specs = parametersOf(type.modes[0]!, false);
  const made = (head: string) => colourIn(specs, `0.${head}`, { xy: [0.2, 0.32], white: false })!;
  expect(made("ColorSub_C").off).toBe(0);
  expect(["C", "M", "Y"].map((c) => Math.round(made(`ColorSub_${c}`).value))).toEqual([100, 0, 0]);
  const seen = colourSeen(specs, (s) => ({ attribute: s.head, value: s.head === "ColorSub_C" ? 100 : 0 }));
  expect(seen && "xy" in seen && seen.xy.map((v) => Math.round(v * 1000))).toEqual([200, 320]);
});

test("a strobe whose closed and open are functions of their own; a second channel of one attribute", () => {
  const shutter = `<ChannelFunction Name="Closed" Attribute="Shutter1" DMXFrom="0/1" Default="0/1" PhysicalFrom="0" PhysicalTo="0"/><ChannelFunction Name="Open" Attribute="Shutter1" DMXFrom="20/1" PhysicalFrom="1" PhysicalTo="1"/><ChannelFunction Name="Strobe" Attribute="Shutter1Strobe" DMXFrom="60/1" PhysicalFrom="1" PhysicalTo="18"/><ChannelFunction Name="free" Attribute="NoFeature" DMXFrom="250/1" PhysicalFrom="0" PhysicalTo="0"/>`;
  const { type, notes } = read(
    description(
      BASE +
        mode(
          channel("1", "Base", "Shutter1", shutter) + channel("2", "Base", "Dimmer") + channel("3", "Base", "Dimmer"),
        ),
    ),
  );
  expect(
    type.modes[0]!.channels[0]!.functions.map((f) => [f.attribute, f.dmxFrom, f.dmxTo, f.steps?.map((s) => s.value)]),
  ).toEqual([
    ["Shutter1", 0, 59, [0, 1]],
    ["Shutter1Strobe", 60, 249, undefined],
    ["NoFeature", 250, 255, [0]],
  ]);
  expect(heads(type)).toEqual(["0.Shutter1", "0.Dimmer", "0.Dimmer_2"]);
  expect(notes).toEqual(["line 4: mode Basic: a second Dimmer is called Dimmer_2"]);
});

test("what is said of several lines stands once; a description that is not whole says where", () => {
  const odd = channel("9,8,7,6,5", "Base", "Zoom");
  const { notes } = read(description(BASE + mode(odd + channel("1", "Base", "Dimmer") + odd + odd)));
  expect(notes).toEqual(["line 2: mode Basic, channel 9,8,7,6,5 (Zoom): its offset makes no sense; 2 more like it"]);
  const cut = description(BASE + mode(channel("1", "Base", "Dimmer"))).replace("</LogicalChannel>", "");
  const refused = readGdtf(zipped(cut), { types: {} });
  expect(isRefusal(refused) && refused.what).toMatch(/:2:\d+|line 2/i);
});

test("the file a type came from goes along in the show's file, and out again as it was", () => {
  const bytes = zipped(description(BASE + mode(channel("1", "Base", "Dimmer"))), {
    "models/body.3ds": strToU8("kept"),
  });
  const made = readGdtf(bytes, { types: {} });
  if (isRefusal(made)) throw new Error(made.what);
  const show = { ...newShow("Kept"), types: { [made.type.id]: made.type } };
  const again = readShowFile(writeShowFile(show));
  if (isRefusal(again)) throw new Error(again.what);
  expect(again).toEqual(show);
  expect(writeGdtf(again.types[made.type.id]!)).toEqual(bytes);
  // Changed by hand, it is no longer that file.
  const { type } = made;
  expect(writeGdtf({ ...type, modes: [{ ...type.modes[0]!, name: "other" }] })).not.toEqual(bytes);
});

test.each([
  [
    "a DOCTYPE",
    zipped(`<!DOCTYPE x [<!ENTITY a "b">]>${description(BASE + mode(channel("1", "Base", "Dimmer")))}`),
    "defines words of its own",
  ],
  [
    "nested too deep",
    zipped(description("<Geometry Name='a'>".repeat(200) + "</Geometry>".repeat(200))),
    "nested deeper",
  ],
  [
    "references in a circle",
    zipped(
      description(
        `<Geometries><Geometry Name="Base"><GeometryReference Name="r" Geometry="Other"/></Geometry><Geometry Name="Other"><GeometryReference Name="s" Geometry="Base"/></Geometry></Geometries>` +
          mode(""),
      ),
    ),
    "no DMX mode",
  ],
  ["no description", zipSync({ "other.txt": strToU8("x") }), "no description.xml"],
  ["no zip", strToU8("hello"), "not a GDTF file"],
  ["cut off", zipped("<GDTF><FixtureType"), "is cut off"],
])("%s is refused in words", (_, bytes, words) => {
  const made = readGdtf(bytes, { types: {} });
  expect(isRefusal(made) && made.what).toContain(words);
});

test("files that were damaged neither crash nor hang, and what is read of them is sound", () => {
  const originals = LIBRARY.filter((t) => ["dimmer", "petrel-spot", "tide-bar", "gannet-profile"].includes(t.id)).map(
    writeGdtf,
  );
  const xmls = originals.map((_, k) => k);
  fc.assert(
    fc.property(
      fc.constantFrom(...xmls),
      fc.array(fc.tuple(fc.nat(), fc.nat(255)), { minLength: 1, maxLength: 6 }),
      fc.boolean(),
      (which, edits, inside) => {
        const type = LIBRARY.find((t) => t.id === ["dimmer", "petrel-spot", "tide-bar", "gannet-profile"][which])!;
        let bytes = originals[which]!.slice();
        if (inside) {
          // The text is damaged before it is packed, so that its checksum holds.
          const text = strToU8(
            new TextDecoder().decode(
              strToU8(
                description(BASE + mode(channel("1", "Base", "Dimmer") + channel("2,3", "Base", "Pan")), type.model),
              ),
            ),
          );
          for (const [at, byte] of edits) text[at % text.length] = byte;
          bytes = zipSync({ "description.xml": text });
        } else for (const [at, byte] of edits) bytes[at % bytes.length] = byte;
        const made = readGdtf(bytes, { types: {} });
        if (isRefusal(made)) expect(made.what.length).toBeGreaterThan(10);
        else expect(typeProblem(made.type)).toBeUndefined();
      },
    ),
    { numRuns: runs(150) },
  );
});

test("attributes named like what every object has are attributes: held, recorded, kept in a file and undone", () => {
  const odd = ["__proto__", "constructor", "toString", "hasOwnProperty", "valueOf"];
  const { type } = read(description(BASE + mode(odd.map((a, i) => channel(String(i + 1), "Base", a)).join(""))));
  expect(heads(type)).toEqual(odd.map((a) => `0.${a}`));
  const desk = newDesk();
  expect(performOn(desk, { intents: [putType.of({ type })], events: [] })).toBeUndefined();
  for (const line of [`patch 1 ${type.id} as 1 at 1:1`, "1 at 50"]) void runLine(desk, line);
  const [fixture] = Object.keys(desk.world.show.fixtures);
  const keys = odd.map((attribute) => `${fixture}.0.${attribute}`);
  const values = Object.fromEntries(keys.map((key, i) => [key, { attribute: odd[i]!, value: 1 }]));
  expect(performOn(desk, { intents: [hold.of({ values })], events: [] })).toBeUndefined();
  expect(Object.keys(desk.world.hands.held)).toEqual(keys);
  expect([...desk.player.frame.slice(0, odd.length)]).toEqual(odd.map(() => 255));
  for (const line of ["record cue 1", "clear"]) expect(runLine(desk, line)).toBeUndefined();
  const again = readShowFile(writeShowFile(desk.world.show));
  if (isRefusal(again)) throw new Error(again.what);
  expect(Object.keys(Object.values(Object.values(again.lists)[0]!.cues)[0]!.entries).sort()).toEqual(keys.sort());
  expect(readDiff(writeDiff(diffOf(newWorld(), desk.world)))).toBeDefined();
});

test.each([
  [
    "geometry that forks at each of 40 levels",
    () => {
      const levels = Array.from({ length: 40 }, (_, k) => {
        const ref = (side: string) => `<GeometryReference Name="${side}${k}" Geometry="L${k + 1}"/>`;
        return `<Geometry Name="L${k}">${k < 39 ? ref("a") + ref("b") : ""}</Geometry>`;
      });
      return description(
        `<Geometries>${levels.join("")}</Geometries>${mode(channel("1", "L0", "Dimmer"), "Basic", "L0")}`,
      );
    },
    /^$/,
  ],
  [
    "8,000 channels",
    () =>
      description(
        BASE + mode(Array.from({ length: 8000 }, (_, k) => channel(String((k % 512) + 1), "Base", "Dimmer")).join("")),
      ),
    /takes more than 512 slots/,
  ],
  [
    "10 channels by 4,000 references",
    () => {
      const refs = Array.from(
        { length: 4000 },
        (_, k) =>
          `<GeometryReference Name="R${k}" Geometry="Cell"><Break DMXBreak="1" DMXOffset="${(k % 50) * 10 + 1}"/></GeometryReference>`,
      );
      const tree = `<Geometries><Geometry Name="Base">${refs.join("")}</Geometry><Geometry Name="Cell"/></Geometries>`;
      return description(
        tree + mode(Array.from({ length: 10 }, (_, k) => channel(String(k + 1), "Cell", "Dimmer")).join("")),
      );
    },
    /takes more than 512 slots/,
  ],
  [
    "20,000 functions of a channel",
    () =>
      description(
        BASE + mode(channel("1", "Base", "Gobo1", Array.from({ length: 20_000 }, () => fn("Gobo1")).join(""))),
      ),
    /only 512 of its 20000 functions|^$/,
  ],
  [
    "20,000 sets of a function",
    () => {
      const sets = Array.from(
        { length: 20_000 },
        (_, k) => `<ChannelSet Name="s" DMXFrom="${k % 256}/1" WheelSlotIndex="1"/>`,
      );
      return description(BASE + mode(channel("1", "Base", "Gobo1", fn("Gobo1", "", sets.join("")))));
    },
    /^$/,
  ],
] as const)("%s are bounded before anything is built of them", (_, xml, why) => {
  const made = readGdtf(zipped(xml()), { types: {} });
  expect(isRefusal(made) ? `${made.what} ${made.cure}` : "").toMatch(why);
});
