/** Catches tables read into the wrong columns, rows half taken, and formulas let out. */
import fc from "fast-check";
import Papa from "papaparse";
import { contextOf, newDesk, performOn, runLine } from "../desk/desk";
import { LIBRARY } from "../fixture/library/library";
import { isRefusal, refusalText } from "../show/refusal";
import { fixturesByNumber } from "../show/world";
import { importFixtures } from "./importIntent";
import { guessMapping } from "./patchColumns";
import { patchReader, readAddresses, readPatch, typeChoices, writePatch } from "./patchTable";
import { readNumber, readTable, unharmed, writeTable, type Table } from "./tableText";
import { runs } from "@tests/setup/runs";

const table = (text: string): Table => {
  const read = readTable(text);
  if (isRefusal(read)) throw new Error(refusalText(read));
  return read;
};

/** A table read into an empty show, or onto a desk. */
function bringIn(text: string, how: "add" | "update" = "add", desk = newDesk()) {
  const read = table(text);
  const mapping = guessMapping(read);
  const reading = readPatch(desk.world.show, read, mapping, typeChoices(desk.world.show, read, mapping), how);
  const refusal = performOn(desk, {
    intents: [importFixtures.of({ rows: reading.rows.map(({ updates, fixture }) => ({ updates, fixture })) })],
    events: [],
  });
  return { desk, reading, refusal, mapping };
}

const metres = fc.integer({ min: -9999, max: 9999 }).map((v) => v / 100);
const words = fc.string({
  maxLength: 20,
  unit: fc.constantFrom("a", "ä", "Z", " ", ",", ";", '"', "'", "=", "-", "\t", "1", "|", "\n"),
});

test("a patch written as a table and read again is the same patch", () => {
  const fixture = fc.record({
    type: fc.constantFrom(...LIBRARY),
    mode: fc.nat(5),
    name: words,
    note: words,
    x: metres,
    y: metres,
    z: metres,
    turn: metres,
    scale: fc.integer({ min: 0, max: 200 }),
    pan: metres,
    flags: fc.nat(15),
    patched: fc.boolean(),
    twice: fc.boolean(),
  });
  fc.assert(
    fc.property(fc.array(fixture, { minLength: 1, maxLength: 12 }), (wanted) => {
      const desk = newDesk();
      wanted.forEach((w, i) => {
        const mode = w.type.modes[w.mode % w.type.modes.length]!;
        expect(
          runLine(
            desk,
            `patch 1 ${w.type.id} mode "${mode.name}" as ${i * 3 + 1} ${w.patched ? "at auto" : "unpatched"}`,
          ),
        ).toBeUndefined();
        if (w.patched && w.twice) expect(runLine(desk, `${i * 3 + 1} also at ${50 + i}:1`)).toBeUndefined();
      });
      const change = (f: (typeof wanted)[number]) => ({
        name: f.name.trim() === "" ? "x" : f.name,
        note: f.note,
        place: { x: f.x, y: f.y, z: f.z },
        turn: { x: 0, y: 0, z: f.turn },
        scale: f.scale,
        correct: { pan: f.pan, tilt: -f.pan },
        invertPan: (f.flags & 1) > 0,
        invertTilt: (f.flags & 2) > 0,
        swap: (f.flags & 4) > 0,
        virtualDimmer: (f.flags & 8) > 0,
      });
      const changes = Object.fromEntries(fixturesByNumber(desk.world.show).map((f, i) => [f.id, change(wanted[i]!)]));
      expect(performOn(desk, { intents: [{ kind: "setFixtures", changes, says: "" }], events: [] })).toBeUndefined();
      const { desk: again, reading, refusal } = bringIn(writePatch(desk.world.show));
      expect(refusal).toBeUndefined();
      expect(reading.leftOut).toEqual([]);
      const bare = (d: typeof desk) =>
        fixturesByNumber(d.world.show).map(({ id: _, ...f }) => ({
          ...f,
          correct: { pan: f.correct.pan + 0, tilt: f.correct.tilt + 0 },
        }));
      expect(bare(again)).toEqual(bare(desk));
    }),
    { numRuns: runs(80) },
  );
});

test("tables of other programs: delimiters, quotes, decimal commas, titles in any words", () => {
  const semicolons = bringIn(
    'Kanal;Fixture Type;Mode;DMX Addr;Pos X;Pos Y\n1;Kelp Wash;12ch;1.001;-4,5;2,25\n2;"Kelp Wash";standard;1.013;4,5;2,25\n',
  );
  expect(semicolons.mapping.comma).toBe(true);
  expect(
    fixturesByNumber(semicolons.desk.world.show).map((f) => [f.number, f.mode, f.addresses[0], f.place.x, f.place.y]),
  ).toEqual([
    [1, "standard", { universe: 1, slot: 1 }, -4.5, 2.25],
    [2, "standard", { universe: 1, slot: 13 }, 4.5, 2.25],
  ]);
  const tabs = bringIn('Unit\tInstrument\tDMX\tPurpose\n12\tDimmer\t515\tSpecial "left"\n13\tDimmer\t\tSpare\n');
  expect(
    fixturesByNumber(tabs.desk.world.show).map((f) => [
      f.number,
      f.addresses.map((a) => `${a.universe}:${a.slot}`).join(),
      f.name,
    ]),
  ).toEqual([
    [12, "2:3", 'Special "left"'],
    [13, "", "Spare"],
  ]);
  const untitled = guessMapping(table("101,1/1,Jetty,Kelp Wash\n102,1/13,Jetty,Kelp Wash\n"));
  expect(untitled).toEqual({ titleRow: 0, comma: false, columns: ["number", "address", "name", "model"] });
});

test("addresses in one column or two", () => {
  for (const [universe, address, wanted] of [
    ["", "4.013", "4:13"],
    ["", "4/13", "4:13"],
    ["", "4:13", "4:13"],
    ["4", "13", "4:13"],
    ["", "1", "1:1"],
    ["", "512", "1:512"],
    ["", "513", "2:1"],
    ["4", "13; 5:1", "4:13 5:1"],
    ["", "", ""],
  ] as const)
    expect(
      readAddresses(universe, address)
        ?.map((a) => `${a.universe}:${a.slot}`)
        .join(" "),
    ).toBe(wanted);
  for (const [universe, address] of [
    ["a", "1"],
    ["", "x"],
    ["", "0:1"],
    ["0", "1"],
    ["", "1:2:3"],
    ["", "-4"],
    ["x", ""],
  ] as const)
    expect(readAddresses(universe, address)).toBeUndefined();
});

test("numbers as people write them", () => {
  expect(["1,234.5", "12.5", "-3", ".5", "4 m", "90°"].map((t) => readNumber(t, false))).toEqual([
    1234.5, 12.5, -3, 0.5, 4, 90,
  ]);
  expect(["1.234,5", "12,5", "-3", "0,5"].map((t) => readNumber(t, true))).toEqual([1234.5, 12.5, -3, 0.5]);
  for (const bad of ["", "a", "1e9", "NaN", "Infinity", "--1", "1.2.3"]) expect(readNumber(bad, false)).toBeUndefined();
});

test("each row left out is named with its line and its reason; the others come in", () => {
  const text =
    "Number,Model,Mode,Address,Scale\n1,Dimmer,standard,1:1,100\n1,Dimmer,standard,1:2,100\n2,Dimmer,standard,1:1,100\n3,Nothing,standard,1:5,100\nx,Dimmer,standard,1:6,100\n4,Dimmer,standard,1:513,100\n5,Dimmer,standard,1:7,900\n6,,standard,1:8,100\n7,Dimmer,standard,1:9,\n";
  const { reading, desk } = bringIn(text);
  expect(reading.leftOut.map((l) => [l.line, l.why])).toEqual([
    [3, "number 1 is in the table twice"],
    [4, "1:1 is in use by fixture 1"],
    [5, '"Nothing, standard" is not in the library'],
    [6, 'number "x" is not a whole number from 1'],
    [7, "1:513: slots go from 1 to 512"],
    [8, 'scale (%) "900" is not from 0 to 200'],
    [9, '"standard" is not in the library'],
  ]);
  expect(fixturesByNumber(desk.world.show).map((f) => f.number)).toEqual([1, 7]);
  // Adding again takes nothing; updating changes by number, swaps of places among themselves included.
  expect(bringIn(text, "add", desk).refusal?.what).toMatch(/no row/);
  const swapped = bringIn(
    "Number,Model,Address,Name\n1,Dimmer,1:9,A\n7,Dimmer,1:1,B\n8,Dimmer,1:20,C\n",
    "update",
    desk,
  );
  expect(swapped.reading.leftOut).toEqual([]);
  expect(fixturesByNumber(desk.world.show).map((f) => [f.number, f.name, f.addresses[0]!.slot])).toEqual([
    [1, "A", 9],
    [7, "B", 1],
    [8, "C", 20],
  ]);
});

test("lines are those of the file: empty ones and those within quotes count", () => {
  const { reading } = bringIn(
    'Number,Name,Model,Address\n\n1,"two\nlines",Dimmer,1:1\r\n   \n,,,\n2,b,Nothing,1:2\n3,c,Dimmer,1:3\n',
  );
  expect(reading.leftOut.map((l) => l.line)).toEqual([7]);
  expect(reading.rows.map((r) => r.line)).toEqual([3, 8]);
});

test("a fixture whose row is left out keeps its address, and whoever wanted it is left out too", () => {
  const { desk } = bringIn("Number,Model,Address\n1,Dimmer,1:1\n2,Dimmer,1:2\n3,Dimmer,1:3\n4,Dimmer,1:4\n");
  const { reading, refusal } = bringIn(
    "Number,Model,Address,Scale\n1,Dimmer,1:2,100\n2,Dimmer,1:3,100\n3,Dimmer,1:9,900\n4,Dimmer,1:8,100\n5,Dimmer,1:4,100\n",
    "update",
    desk,
  );
  expect(refusal).toBeUndefined();
  expect(reading.leftOut.map((l) => [l.line, l.why])).toEqual([
    [2, "its address stays with fixture 2, whose own row is left out"],
    [3, "its address stays with fixture 3, whose own row is left out"],
    [4, 'scale (%) "900" is not from 0 to 200'],
  ]);
  expect(fixturesByNumber(desk.world.show).map((f) => `${f.number}@${f.addresses[0]!.slot}`)).toEqual([
    "1@1",
    "2@2",
    "3@3",
    "4@8",
    "5@4",
  ]);
});

test("whatever a table says, what is read of it can be brought in", () => {
  const row = fc.record({
    number: fc.integer({ min: 1, max: 6 }),
    slot: fc.integer({ min: 1, max: 20 }),
    model: fc.constantFrom("Dimmer", "Twin Blinder", "Nothing"),
    scale: fc.constantFrom("100", "900"),
  });
  const text = (rows: { number: number; slot: number; model: string; scale: string }[]) =>
    `Number,Model,Address,Scale\n${rows.map((r) => `${r.number},${r.model},1:${r.slot},${r.scale}`).join("\n")}\n`;
  fc.assert(
    fc.property(
      fc.array(row, { minLength: 1, maxLength: 8 }),
      fc.array(row, { minLength: 1, maxLength: 8 }),
      (first, second) => {
        const { desk, reading, refusal } = bringIn(text(first));
        expect(refusal === undefined).toBe(reading.rows.length > 0);
        const again = bringIn(text(second), "update", desk);
        expect(again.refusal === undefined).toBe(again.reading.rows.length > 0);
        expect(again.reading.rows.length + again.reading.leftOut.length).toBe(second.length);
      },
    ),
    { numRuns: runs(300) },
  );
});

test("hostile tables are refused in words", () => {
  const what = (text: string) => {
    const read = readTable(text);
    return isRefusal(read) ? refusalText(read) : "read";
  };
  expect(what("")).toMatch(/empty/);
  expect(what("x".repeat(5_000_000))).toMatch(/one line/);
  expect(what(`a,b\n${"1,2,3,4,5,6,7,8,9,0\n".repeat(1_000_000)}`)).toMatch(/more than 2,000,000 cells/);
  expect(what("1,".repeat(400))).toMatch(/400|401/);
  expect(what("PK\u0003\u0004\0\0")).toMatch(/not a table/);
  expect(
    bringIn("Number,Model,Name,Address\n1,Dimmer,__proto__,1:1\n2,__proto__,constructor,1:2\n").reading.leftOut,
  ).toHaveLength(1);
  expect(({} as { polluted?: boolean }).polluted).toBeUndefined();
});

test("text that a spreadsheet would take for a formula leaves harmless and comes back whole", () => {
  expect(writeTable([["=1+1", "-x", "-4", "@a", "plain"]])).toBe("'=1+1,'-x,-4,'@a,plain\n");
  const desk = newDesk();
  for (const line of ["patch 1 dimmer as 1 at 1:1", '1 name "=SUM(A1)"']) runLine(desk, line);
  expect(fixturesByNumber(bringIn(writePatch(desk.world.show)).desk.world.show)[0]!.name).toBe("=SUM(A1)");
  expect(contextOf(desk).world.show.fixtures).toBeDefined();
});

test("4,000 rows are read in steps that can be stopped between", () => {
  const read = table(
    `Number,Model,Address\n${Array.from({ length: 4000 }, (_, i) => `${i + 1},Kelp Wash,${Math.floor(i / 42) + 1}.${(i % 42) * 12 + 1}`).join("\n")}`,
  );
  const { show } = newDesk().world;
  const mapping = guessMapping(read);
  const reader = patchReader(show, read, mapping, typeChoices(show, read, mapping), "add");
  expect(reader.total).toBe(4000);
  expect(reader.step(250)).toBe(true);
  expect(reader.done()).toBe(250);
  while (reader.step(250));
  expect(reader.result.rows).toHaveLength(4000);
  expect(reader.result.leftOut).toEqual([]);
});

test("a column is known by what its cells hold as well as by its title", () => {
  const columnsOf = (text: string) => guessMapping(table(text)).columns;
  expect(columnsOf("Unit,Channel,Model,Address\na,401,Dimmer,1:1\nb,402,Dimmer,1:2\nc,403,Dimmer,1:3\n")).toEqual([
    "ignore",
    "number",
    "model",
    "address",
  ]);
  expect(columnsOf("Channel,Unit,Type\n401,1,Kelp Wash\n402,2,Kelp Wash\n")).toEqual(["number", "ignore", "model"]);
  expect(columnsOf("Position,Name,Number,Model\n1,Mast,7,Dimmer\n2,Rail,8,Dimmer\n")).toEqual([
    "ignore",
    "name",
    "number",
    "model",
  ]);
  expect(columnsOf("Patch,Address,Number,Model\nyes,1:1,1,Dimmer\nno,1:2,2,Dimmer\n")).toEqual([
    "ignore",
    "address",
    "number",
    "model",
  ]);
  // Where no column is like it, the title counts, and the rows are told of.
  expect(columnsOf("Unit,Model\na,Dimmer\nb,Dimmer\n")).toEqual(["number", "model"]);
});

test("any text leaves harmless and comes back as it was", () => {
  fc.assert(
    fc.property(
      fc.string({
        unit: fc.constantFrom(
          "'",
          "=",
          "+",
          "-",
          "@",
          "\t",
          " ",
          "1",
          ".",
          ",",
          "a",
          "\uff1d",
          "\uff0d",
          "\uff0b",
          "\uff20",
          '"',
          "|",
        ),
      }),
      (cell) => {
        const written = writeTable([[cell, "x"]]);
        const back = Papa.parse<string[]>(written, { delimiter: "," }).data[0]![0]!;
        expect(unharmed(back)).toBe(cell);
        if (/^\s*[=+\-@\uff1d\uff0b\uff0d\uff20]/.test(back)) expect(back).toMatch(/^[+-]?(\d+([.,]\d*)?|[.,]\d+)$/);
      },
    ),
  );
});

test.each([
  [
    "German, with lines above",
    "Beleuchtungsplan;;;\nStand: 3. Mai;;;\n\nKreis-Nr.;Bezeichnung;Gerätetyp;Hersteller;Univ./Adr.;Höhe\n101;Steg links;Kelp Wash;Saltmarsh;1/101;5,5\n102;Steg rechts;Kelp Wash;Saltmarsh;1/113;5,5\n",
    ["number", "name", "model", "maker", "address", "z"],
    4,
  ],
  [
    "French",
    "Numéro;Désignation;Modèle;Marque;Univers;Adresse\n101;Jardin;Kelp Wash;Saltmarsh;1;101\n",
    ["number", "name", "model", "maker", "universe", "address"],
    1,
  ],
  [
    "Spanish",
    "Canal;Nombre;Tipo;Fabricante;Universo;Dirección\n101;Izquierda;Kelp Wash;Saltmarsh;1;101\n",
    ["number", "name", "model", "maker", "universe", "address"],
    1,
  ],
  [
    "Italian",
    "Canale;Nome;Modello;Produttore;Universo;Indirizzo\n101;Sinistra;Kelp Wash;Saltmarsh;1;101\n",
    ["number", "name", "model", "maker", "universe", "address"],
    1,
  ],
] as const)("titles in %s", (_, text, columns, titles) => {
  const { reading } = bringIn(text);
  const table = readTable(text);
  if ("refused" in table) throw new Error(table.what);
  const mapping = guessMapping(table);
  expect(mapping.columns).toEqual(columns);
  // Empty lines are no rows.
  expect(mapping.titleRow).toBe(titles === 4 ? 3 : titles);
  expect(reading.leftOut).toEqual([]);
  expect(reading.rows[0]!.fixture.addresses).toEqual([{ universe: 1, slot: 101 }]);
});
