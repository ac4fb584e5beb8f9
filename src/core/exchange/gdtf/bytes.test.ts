/** Catches a lamp that is told to reset, stays dark or turns the wrong way: types written by hand, with the bytes worked out by hand. */
import { zipSync } from "fflate";
import { contextOf, newDesk, performOn, runLine, type Desk } from "@/core/desk/desk";
import { foresee } from "@/core/desk/foresee";
import { putType } from "@/core/rig/typeIntent";
import { isRefusal } from "@/core/show/refusal";
import { BASE, channel, description, fn, mode, zipped } from "@tests/setup/gdtf";
import { readGdtf, writeGdtf } from "./file";

const f = (attribute: string, name: string, from: number, more = "") =>
  `<ChannelFunction Name="${name}" Attribute="${attribute}" DMXFrom="${from}/1" ${more}/>`;
const physical = (from: number, to: number) => `PhysicalFrom="${from}" PhysicalTo="${to}"`;
/** A function of a wheel with slots from these values on, of which the last ends at 254. */
const slots = (name: string, more: string, from: readonly number[]) =>
  `<ChannelFunction Name="${name}" Attribute="Color1" DMXFrom="0/1" ${more}>${from
    .map((dmx, k) => `<ChannelSet Name="${name} ${k + 1}" DMXFrom="${dmx}/1" WheelSlotIndex="${k + 1}"/>`)
    .join("")}<ChannelSet Name="" DMXFrom="255/1"/></ChannelFunction>`;
const rests = (value: number) => `Default="${value}/1"`;
const hangs = (from: number, to: number) => `ModeMaster="Base_Control1" ModeFrom="${from}/1" ModeTo="${to}/1"`;
const initial = (link: string) => `InitialFunction="${link}"`;
/** A channel at an offset of the base, with what its InitialFunction names. */
const at = (offset: string, attribute: string, functions: string, more = "") =>
  channel(offset, "Base", attribute, functions, more);

function patched(xml: string): { desk: Desk; notes: readonly string[] } {
  const read = readGdtf(zipped(xml), { types: {} });
  if (isRefusal(read)) throw new Error(read.what);
  const desk = newDesk();
  expect(performOn(desk, { intents: [putType.of({ type: read.type })], events: [] })).toBeUndefined();
  expect(runLine(desk, `patch 1 "${read.type.model}" as 1 at 1:1`)).toBeUndefined();
  return { desk, notes: read.notes };
}
const bytes = ({ player }: Desk, count: number) => [...player.frame.slice(0, count)];

const CONTROL =
  f("NoFeature", "Idle", 0, rests(0)) +
  f("LampControl", "Lamp on", 10, rests(10)) +
  f("LampControl", "Lamp off (3 s)", 40, rests(40)) +
  f("FixtureGlobalReset", "Reset", 80, rests(80));
const SHUTTER =
  f("Shutter1", "Closed", 0, `${rests(0)} ${physical(0, 0)}`) +
  f("Shutter1", "Open", 20, `${rests(20)} ${physical(1, 1)}`) +
  f("Shutter1Strobe", "Strobe", 60, `${rests(60)} ${physical(1, 10)}`) +
  f("Shutter1", "Open again", 130, `${rests(130)} ${physical(1, 1)}`) +
  f("Shutter1StrobePulse", "Pulse", 160, `${rests(160)} ${physical(1, 5)}`);
const SPIN =
  f("Gobo1PosRotate", "Clockwise", 0, `${rests(128)} ${physical(-360, -6)}`) +
  f("Gobo1PosRotate", "Stop", 120, `${rests(128)} ${physical(0, 0)}`) +
  f("Gobo1PosRotate", "Counter-clockwise", 136, `${rests(136)} ${physical(6, 360)}`);

/** What is typed, and the bytes from slot 1 on after it, one line after another. */
const TYPES: [what: string, channels: string, steps: [line: string, ...bytes: number[]][]][] = [
  [
    "a control channel whose idle range does nothing and comes first",
    at("1", "LampControl", CONTROL, initial("Base_LampControl.LampControl.Idle")) + at("2", "Dimmer", fn("Dimmer")),
    [
      ["1 at full", 0, 255],
      ["1 LampControl at 1", 40, 255],
    ],
  ],
  [
    "the same without an InitialFunction: the first function of the file",
    at("1", "LampControl", CONTROL) + at("2", "Dimmer", fn("Dimmer")),
    [["1 at full", 0, 255]],
  ],
  [
    "an idle range in the middle, at a value of its own",
    at(
      "1",
      "Control1",
      f("Control1", "Fan high", 0, physical(0, 0)) +
        f("NoFeature", "Safe", 100, rests(137)) +
        f("Control1", "Fan low", 200, physical(1, 1)),
      initial("Base_Control1.Control1.Safe"),
    ) + at("2", "Dimmer", fn("Dimmer")),
    [
      ["1 at 50", 137, 128],
      ["1 control1 at 1", 227, 128],
    ],
  ],
  [
    "a shutter with closed, open, strobe, open, pulse, at rest open",
    at("1", "Shutter1", SHUTTER, initial("Base_Shutter1.Shutter1.Open")) + at("2", "Dimmer", fn("Dimmer")),
    [
      ["1 at full", 20, 255],
      ["1 shutter at 0", 0, 255],
      ["1 strobe at 10", 129, 255],
      ["1 strobe at 1", 60, 255],
      ["1 Shutter1StrobePulse at 5", 255, 255],
      ["1 shutter at 2", 130, 255],
      ["1 shutter at 1", 20, 255],
    ],
  ],
  [
    "the same at rest closed: who asks for light gets it, unless he holds it closed",
    at("1", "Shutter1", SHUTTER, initial("Base_Shutter1.Shutter1.Closed")) + at("2", "Dimmer", fn("Dimmer")),
    [
      ["1 at out", 0, 0],
      ["1 at 50", 20, 128],
      ["clear", 0, 0],
      ["1 at full", 20, 255],
      ["1 shutter at 0", 0, 255],
      ["1 at 50", 0, 128],
      ["1 shutter at full", 20, 128],
      ["1 strobe at 10", 129, 128],
      ["1 at 20", 129, 51],
      ["1 locate", 20, 255],
    ],
  ],
  [
    "a shutter whose ranges say by name alone what they are",
    at(
      "1",
      "Shutter1",
      f("Shutter1", "Shutter closed", 0) + f("Shutter1", "Shutter open", 128, rests(200)),
      initial("Base_Shutter1.Shutter1.Shutter open"),
    ) + at("2", "Dimmer", fn("Dimmer")),
    [
      ["1 at full", 200, 255],
      ["1 shutter at 0", 63, 255],
    ],
  ],
  [
    "a spin clockwise, stopped and counter-clockwise",
    at("1", "Gobo1PosRotate", SPIN, initial("Base_Gobo1PosRotate.Gobo1PosRotate.Stop")),
    [
      ["1 gobo spin at -60", 0],
      ["1 gobo spin at 60", 255],
      ["1 gobo spin at 0", 128],
      ["1 gobo spin at -1", 119],
      ["1 gobo spin at 1", 136],
      ["1 gobo spin at 30.5", 196],
    ],
  ],
  [
    "index and spin on one channel",
    at(
      "1",
      "Gobo1Pos",
      f("Gobo1Pos", "Index", 0, `${rests(64)} ${physical(0, 360)}`) +
        f("Gobo1PosRotate", "Spin", 128, `${rests(128)} ${physical(-180, 180)}`),
      initial("Base_Gobo1Pos.Gobo1Pos.Index"),
    ),
    [
      ["1 Dimmer release", 64],
      ["1 gobo angle at 360", 127],
      ["1 gobo spin at 30", 255],
      ["1 gobo spin at -30", 128],
    ],
  ],
  [
    "GDTF 1.0: the default stands on the channel",
    channel(
      "1",
      "Base",
      "Control1",
      f("Control1", "Off", 0, physical(0, 0)) + f("Control1", "On", 50, physical(1, 1)),
      'Default="77/1"',
    ) +
      channel(
        "2,3",
        "Base",
        "Tilt",
        `<ChannelFunction Name="Tilt 1" Attribute="Tilt" DMXFrom="0/2" PhysicalFrom="-135" PhysicalTo="135"/>`,
        'Default="16384/2"',
      ),
    [
      ["1 shutter release", 77, 64, 0],
      ["1 tilt at 135", 77, 255, 255],
      ["1 control1 at 0", 24, 255, 255],
    ],
  ],
  [
    "a default of another number of bytes than the channel",
    at(
      "1,2",
      "Pan",
      `<ChannelFunction Name="Pan 1" Attribute="Pan" DMXFrom="0/1" Default="128/1" PhysicalFrom="-270" PhysicalTo="270"/>`,
    ),
    [["1 Dimmer release", 128, 128]],
  ],
  [
    "functions without names have those of the standard",
    at(
      "1",
      "Control1",
      `<ChannelFunction Attribute="Control1" DMXFrom="0/1" Default="0/1" PhysicalFrom="0" PhysicalTo="0"/><ChannelFunction Attribute="NoFeature" DMXFrom="90/1" Default="99/1"/>`,
      initial("Base_Control1.Control1.NoFeature 2"),
    ),
    [["1 Dimmer release", 99]],
  ],
  [
    "a fixture of emitters that rest at nothing, and one of its maker's own attribute",
    at("1", "ColorAdd_R", fn("ColorAdd_R")) +
      at("2", "ColorAdd_B", fn("ColorAdd_B")) +
      at("3", "Brine_Pump", f("Brine_Pump", "Pump", 0, `${rests(9)} ${physical(0, 100)}`)),
    [
      ["1 Brine_Pump at 100", 0, 0, 255],
      ["1 red at 50", 0, 0, 255],
    ],
  ],
  [
    "random and pulsed strobes, a gap between two ranges",
    at(
      "1",
      "Shutter1",
      f("Shutter1", "Open", 0, `${rests(4)} ${physical(1, 1)}`) +
        f("Shutter1StrobeRandom", "Random slow", 50, physical(1, 2)) +
        f("Shutter1StrobeRandom", "Random fast", 100, physical(8, 10)),
      initial("Base_Shutter1.Shutter1.Open"),
    ),
    [
      ["1 Dimmer release", 4],
      ["1 Shutter1StrobeRandom at 2", 99],
      ["1 Shutter1StrobeRandom at 4", 99],
      ["1 Shutter1StrobeRandom at 9", 178],
    ],
  ],
  [
    "a colour wheel whose slots are others where another channel stands higher, and end before the last value",
    at(
      "1",
      "Color1",
      slots("Whole", hangs(0, 127), [0, 20, 60]) + slots("Split", hangs(128, 255), [10, 70]),
      initial("Base_Color1.Color1.Whole"),
    ) + at("2", "Control1", f("Control1", "Wheel", 0, `${rests(7)} ${physical(0, 255)}`)),
    [
      ["1 Dimmer release", 9, 7],
      ["1 Color1 at 2", 39, 7],
      ["1 Color1 at 3", 157, 7],
      ["1 Color1 at 4", 39, 128],
      ["1 Color1 at 5", 162, 128],
      ["1 Color1 at 4.5", 101, 128],
      // Between slots that are never there together lies none: the nearer.
      ["1 Color1 at 3.4", 157, 7],
      ["1 Color1 at 3.6", 39, 128],
      ["1 Control1 at 200", 39, 200],
      ["1 Color1 at 2", 39, 127],
    ],
  ],
  [
    "a spin in two speeds over the same DMX, by where another channel stands",
    at(
      "1",
      "Gobo1PosRotate",
      f("Gobo1PosRotate", "Slow", 0, `${rests(128)} ${physical(-60, 60)} ${hangs(0, 99)}`) +
        f("Gobo1PosRotate", "Fast", 0, `${rests(0)} ${physical(60, 360)} ${hangs(100, 199)}`) +
        f("Gobo1PosRotate", "Fast back", 0, `${rests(0)} ${physical(-60, -360)} ${hangs(200, 255)}`),
      initial("Base_Gobo1PosRotate.Gobo1PosRotate.Slow"),
    ) + at("2", "Control1", f("Control1", "Speed", 0, `${rests(7)} ${physical(0, 255)}`)),
    [
      ["1 Dimmer release", 128, 7],
      ["1 gobo spin at 5", 191, 7],
      ["1 gobo spin at 35", 128, 100],
      ["1 gobo spin at 60", 255, 100],
      ["1 gobo spin at -35", 128, 200],
      ["1 gobo spin at -5", 64, 7],
      ["1 Control1 at 255", 64, 255],
      ["1 gobo spin at 35", 128, 199],
    ],
  ],
];

test.each(TYPES)("%s", (_, channels, steps) => {
  const { desk } = patched(description(BASE + mode(channels)));
  for (const [line, ...meant] of steps) {
    void runLine(desk, line);
    expect([line, ...bytes(desk, meant.length)]).toEqual([line, ...meant]);
  }
  // Out again and in, it sends the same.
  const [type] = Object.values(desk.world.show.types);
  const again = readGdtf(writeGdtf({ ...type!, file: undefined }), { types: {} });
  if (isRefusal(again)) throw new Error(again.what);
  const other = newDesk();
  performOn(other, { intents: [putType.of({ type: again.type })], events: [] });
  expect(runLine(other, `patch 1 "${again.type.model}" as 1 at 1:1`)).toBeUndefined();
  for (const [line, ...meant] of steps) {
    void runLine(other, line);
    expect([line, ...bytes(other, meant.length)]).toEqual([line, ...meant]);
  }
});

test("lamp and reset are found in the states of a channel, with the time their names give or a safe one", () => {
  const { desk } = patched(
    description(
      BASE +
        mode(
          at("1", "LampControl", CONTROL, initial("Base_LampControl.LampControl.Idle")) +
            at("2", "Dimmer", fn("Dimmer")),
        ),
    ),
  );
  const [type] = Object.values(desk.world.show.types);
  expect(type!.modes[0]!.actions!.map(({ does, seconds }) => [does, seconds])).toEqual([
    ["lamp on", 5],
    ["lamp off", 3],
    ["reset", 5],
  ]);
  // A function alone whose name says it, too.
  const alone = patched(
    description(
      BASE +
        mode(
          at("1", "Control1", f("NoFeature", "Idle", 0, rests(5)) + f("Control1", "Reset", 10)) +
            at("2", "Dimmer", fn("Dimmer")),
        ),
    ),
  ).desk;
  expect(bytes(alone, 1)).toEqual([5]);
  expect(runLine(alone, "1 reset")).toBeUndefined();
  expect(bytes(alone, 1)[0]).toBe(132);
  expect(runLine(desk, "1 reset")).toBeUndefined();
  expect(bytes(desk, 1)[0]).toBeGreaterThanOrEqual(80);
});

test("one bad mode is left out and named; the rest comes in; modes of one name stand once", () => {
  const good = mode(at("1", "Dimmer", fn("Dimmer")), "Good");
  const wide = mode(at("600", "Dimmer", fn("Dimmer")), "Wide").replace(/<\/?DMXModes>/g, "");
  const xml = description(
    BASE +
      good.replace(
        "</DMXModes>",
        `${wide}${mode(at("1", "Dimmer", fn("Dimmer")), "good").replace(/<\/?DMXModes>/g, "")}</DMXModes>`,
      ),
  );
  const { desk, notes } = patched(xml);
  expect(Object.values(desk.world.show.types)[0]!.modes.map((m) => m.name)).toEqual(["Good"]);
  expect(notes.join("\n")).toMatch(/mode Wide[\s\S]*mode good: another mode has this name, so it is left out/);
});

const bytesOf = (text: string, encoding: "utf-16le" | "utf-16be" | "latin1" | "utf8bom"): Uint8Array => {
  if (encoding === "latin1") return Uint8Array.from(text, (c) => c.charCodeAt(0));
  if (encoding === "utf8bom") return new TextEncoder().encode(`\uFEFF${text}`);
  const made = new Uint8Array(2 * text.length + 2);
  const view = new DataView(made.buffer);
  [...`\uFEFF${text}`].forEach((c, i) => view.setUint16(2 * i, c.charCodeAt(0), encoding === "utf-16le"));
  return made;
};

test("XML as XML: signs inside attributes, comments with tags, references by number, CDATA, namespaces, encodings", () => {
  const traits = description(BASE + mode(at("1", "Dimmer", fn("Dimmer")), "16 bit &gt; 8 &#38; m&#xEA;me"))
    .replace("<DMXModes>", '<!-- <Geometry Name="no"> <!DOCTYPE x> > --><DMXModes><![CDATA[<DMXMode Name="no"/>]]>')
    .replace('Description=""', 'Description="a > b"');
  const names = (bytes: Uint8Array) => {
    const read = readGdtf(zipSync({ "description.xml": bytes }), { types: {} });
    if (isRefusal(read)) throw new Error(read.what);
    return read.type.modes.map((m) => m.name);
  };
  const meant = ["16 bit > 8 & même"];
  expect(names(new TextEncoder().encode(traits))).toEqual(meant);
  for (const encoding of ["utf-16le", "utf-16be", "utf8bom"] as const)
    expect(names(bytesOf(traits.replace("UTF-8", encoding === "utf8bom" ? "UTF-8" : "UTF-16"), encoding))).toEqual(
      meant,
    );
  expect(names(bytesOf(traits.replace("UTF-8", "ISO-8859-1").replace("&#xEA;", "\u00ea"), "latin1"))).toEqual(meant);
  const prefixed = traits
    .replaceAll(/<(\/?)(\w)/g, "<$1g:$2")
    .replace("<g:GDTF ", '<g:GDTF xmlns:g="urn:x" ')
    .replace("![CDATA[<g:DMXMode", "![CDATA[<DMXMode");
  expect(names(new TextEncoder().encode(prefixed.replace("<?g:xml", "<?xml")))).toEqual(meant);
});

test("a value between two ranges is said to be another before Enter", () => {
  const { desk } = patched(description(BASE + mode(at("1", "Gobo1PosRotate", SPIN))));
  const says = (line: string) => {
    const found = foresee(line, contextOf(desk), { done: null, undone: null });
    return found && "says" in found ? found.says : found;
  };
  expect(says("1 gobo spin at 0.9")).toMatch(/0\.9 rpm cannot be had, 1 rpm is sent/);
  expect(says("1 gobo spin at 30")).not.toMatch(/cannot be had/);
});

test("that a closed shutter is opened is said beforehand; what a list gives it is left alone", () => {
  const closed =
    at("1", "Shutter1", SHUTTER, initial("Base_Shutter1.Shutter1.Closed")) + at("2", "Dimmer", fn("Dimmer"));
  const { desk } = patched(description(BASE + mode(closed)));
  const says = (line: string) => {
    const seen = foresee(line, contextOf(desk), { done: null, undone: null });
    return seen && "says" in seen ? seen.says : "";
  };
  expect(says("1 at full")).toMatch(/opens its shutter/);
  for (const line of ["1 strobe at 10", "record cue 1", "clear", "go"]) expect(runLine(desk, line)).toBeUndefined();
  expect(says("1 at full")).not.toMatch(/shutter/);
  expect(runLine(desk, "1 at full")).toBeUndefined();
  expect(bytes(desk, 2)).toEqual([129, 255]);
});

test("of a shutter whose ranges nothing tells apart it is said", () => {
  const odd = f("Shutter1", "One", 0) + f("Shutter1", "Two", 128);
  const { notes } = patched(description(BASE + mode(at("1", "Shutter1", odd) + at("2", "Dimmer", fn("Dimmer")))));
  expect(notes.join()).toMatch(/Shutter1: nothing tells which of its ranges is open/);
});
