/** Catches packets that other implementations would not read. */
import fc from "fast-check";
import { artDmx, artPoll, artPollReply, readArtNet } from "./artnet";
import { readSacn, sacnData, sacnGroup } from "./sacn";
import { DISCOVERY_GROUP, readSacnDiscovery, sacnDiscovery } from "./sacnDiscovery";
import { artnetParts, destinationsOf, numberText, usualNumber } from "./wire";

const hex = (bytes: Uint8Array) => Buffer.from(bytes).toString("hex");
const cid = Uint8Array.from({ length: 16 }, (_, i) => i + 1);

test("ArtDmx by its field table", () => {
  const packet = artDmx(0x1234, 7, Uint8Array.of(255, 0, 128));
  expect(hex(packet.subarray(0, 8))).toBe("4172742d4e657400"); // ID "Art-Net\0"
  expect(hex(packet.subarray(8, 10))).toBe("0050"); // OpDmx, low byte first
  expect(hex(packet.subarray(10, 12))).toBe("000e"); // protocol version 14, high byte first
  expect([packet[12], packet[13]]).toEqual([7, 0]); // sequence, physical
  expect([packet[14], packet[15]]).toEqual([0x34, 0x12]); // SubUni, Net
  expect(hex(packet.subarray(16, 18))).toBe("0004"); // length: even, high byte first
  expect([...packet.subarray(18)]).toEqual([255, 0, 128, 0]);
  expect(artDmx(0, 1, new Uint8Array(512))).toHaveLength(530);
  expect(hex(artPoll())).toBe("4172742d4e6574000020000e0000");
});

test("ArtPollReply by its field table", () => {
  const packet = artPollReply({
    ip: "127.0.0.1",
    short: "Stand-in",
    long: "Bold Comet stand-in node",
    ports: [0x123, 0x124],
  });
  expect(packet).toHaveLength(239);
  expect(hex(packet.subarray(8, 16))).toBe("00217f0000013619"); // opcode, IP address, port 0x1936 low byte first
  expect([packet[18], packet[19]]).toEqual([1, 2]); // NetSwitch, SubSwitch
  expect(Buffer.from(packet.subarray(26, 34)).toString()).toBe("Stand-in");
  expect(packet[43]).toBe(0);
  expect([packet[173], packet[174], packet[190], packet[191]]).toEqual([2, 0x80, 3, 4]); // ports, output, SwOut
  expect(readArtNet(packet)).toEqual({
    kind: "reply",
    node: { ip: "127.0.0.1", short: "Stand-in", long: "Bold Comet stand-in node", ports: [0x123, 0x124] },
  });
});

test("an E1.31 data packet by its tables", () => {
  const packet = sacnData({
    universe: 0x0102,
    sequence: 9,
    priority: 100,
    source: "Bold Comet",
    cid,
    terminated: false,
    data: new Uint8Array(512).fill(3),
  });
  expect(packet).toHaveLength(638);
  expect(hex(packet.subarray(0, 4))).toBe("00100000"); // preamble and post-amble size
  expect(hex(packet.subarray(4, 16))).toBe("4153432d45312e3137000000"); // "ASC-E1.17"
  expect(hex(packet.subarray(16, 18))).toBe("726e"); // flags 7, length 638 - 16
  expect(hex(packet.subarray(18, 22))).toBe("00000004"); // VECTOR_ROOT_E131_DATA
  expect([...packet.subarray(22, 38)]).toEqual([...cid]);
  expect(hex(packet.subarray(38, 40))).toBe("7258"); // framing layer, 638 - 38
  expect(hex(packet.subarray(40, 44))).toBe("00000002"); // VECTOR_E131_DATA_PACKET
  expect(Buffer.from(packet.subarray(44, 54)).toString()).toBe("Bold Comet");
  expect(packet.subarray(54, 108).every((b) => b === 0)).toBe(true);
  expect([packet[108], packet[109], packet[110], packet[111], packet[112]]).toEqual([100, 0, 0, 9, 0]); // priority, sync address, sequence, options
  expect(hex(packet.subarray(113, 115))).toBe("0102");
  expect(hex(packet.subarray(115, 126))).toBe("720b02a1000000010201" + "00"); // DMP layer: length, vector, type, first, increment, count, start code
  expect(
    sacnData({
      universe: 1,
      sequence: 0,
      priority: 100,
      source: "x",
      cid,
      terminated: true,
      data: new Uint8Array(512),
    })[112],
  ).toBe(0x40);
  expect(sacnGroup(0x0102)).toBe("239.255.1.2");
});

const bytes = fc.uint8Array({ minLength: 1, maxLength: 512 });

test("what is written is read the same", () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 0, max: 32_767 }),
      fc.integer({ min: 0, max: 255 }),
      bytes,
      (number, sequence, data) => {
        const read = readArtNet(artDmx(number, sequence, data));
        expect(read).toMatchObject({ kind: "dmx", number, sequence });
        expect([...(read as { data: Uint8Array }).data.subarray(0, data.length)]).toEqual([...data]);
      },
    ),
  );
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 63_999 }),
      fc.integer({ min: 0, max: 200 }),
      fc.boolean(),
      fc.string({ maxLength: 20 }).filter((s) => !s.includes("\0")),
      bytes,
      (universe, priority, terminated, source, data) => {
        const frame = { universe, sequence: 3, priority, source, cid, terminated, data };
        expect(readSacn(sacnData(frame))).toEqual(frame);
      },
    ),
  );
});

test("malformed packets are no packets, whatever they hold", () => {
  const whole = [
    artDmx(1, 1, new Uint8Array(512)),
    artPollReply({ ip: "1.2.3.4", short: "a", long: "b", ports: [1] }),
    sacnData({
      universe: 1,
      sequence: 1,
      priority: 100,
      source: "a",
      cid,
      terminated: false,
      data: new Uint8Array(512),
    }),
  ];
  fc.assert(
    fc.property(fc.uint8Array({ maxLength: 700 }), (noise) => {
      expect(readArtNet(noise)).toBeUndefined();
      expect(readSacn(noise)).toBeUndefined();
    }),
  );
  fc.assert(
    fc.property(fc.constantFrom(...whole), fc.nat(700), fc.nat(255), fc.nat(700), (packet, at, value, cut) => {
      const broken = packet.slice(0, Math.max(1, packet.length - cut));
      if (at < broken.length) broken[at] = value;
      expect(() => (readArtNet(broken), readSacn(broken))).not.toThrow();
    }),
  );
  for (const packet of [whole[0]!, whole[2]!]) {
    expect(readArtNet(packet.slice(0, packet.length - 1))).toBeUndefined();
    expect(readSacn(packet.slice(0, packet.length - 1))).toBeUndefined();
  }
});

test("where packets go, and both ways of counting", () => {
  expect(artnetParts(0x1234)).toEqual({ net: 0x12, sub: 3, universe: 4 });
  expect(numberText({ protocol: "artnet", number: 17 })).toBe("Art-Net 17 (net 0, sub-net 1, universe 1)");
  expect([usualNumber("artnet", 1), usualNumber("sacn", 1)]).toEqual([0, 1]);
  const out = { number: 258, priority: 100 } as const;
  expect(destinationsOf({ ...out, protocol: "sacn", to: "multicast" })).toEqual([
    { host: "239.255.1.2", port: 5568, broadcast: false },
  ]);
  expect(destinationsOf({ ...out, protocol: "artnet", to: "broadcast" }, "10.0.0.255")).toEqual([
    { host: "10.0.0.255", port: 6454, broadcast: true },
  ]);
  expect(
    destinationsOf({ ...out, protocol: "artnet", to: { unicast: ["10.0.0.5", "10.0.0.6"] } }).map((d) => d.host),
  ).toEqual(["10.0.0.5", "10.0.0.6"]);
});

test("sACN universe discovery by its tables, in pages of 512", () => {
  const [packet] = sacnDiscovery("Bold Comet", cid, [7, 0x0102, 1]) as [Uint8Array];
  expect(packet).toHaveLength(126);
  expect(hex(packet.subarray(0, 16))).toBe("001000004153432d45312e3137000000");
  expect(hex(packet.subarray(16, 22))).toBe("706e00000008"); // flags and length, VECTOR_ROOT_E131_EXTENDED
  expect([...packet.subarray(22, 38)]).toEqual([...cid]);
  expect(hex(packet.subarray(38, 44))).toBe("705800000002"); // VECTOR_E131_EXTENDED_DISCOVERY
  expect(Buffer.from(packet.subarray(44, 54)).toString()).toBe("Bold Comet");
  expect(hex(packet.subarray(108, 112))).toBe("00000000"); // reserved
  expect(hex(packet.subarray(112, 120))).toBe("700e000000010000"); // VECTOR_UNIVERSE_DISCOVERY_UNIVERSE_LIST, page 0 of 0
  expect(hex(packet.subarray(120))).toBe("000100070102");
  expect(DISCOVERY_GROUP).toBe("239.255.250.214");
  const many = Array.from({ length: 1300 }, (_, i) => i + 1);
  const pages = sacnDiscovery("x", cid, many).map((page) => readSacnDiscovery(page)!);
  expect(pages.map((p) => [p.page, p.lastPage, p.universes.length])).toEqual([
    [0, 2, 512],
    [1, 2, 512],
    [2, 2, 276],
  ]);
  expect(pages.flatMap((p) => p.universes)).toEqual(many);
  expect(readSacn(packet)).toBeUndefined();
  expect(readSacnDiscovery(packet.subarray(0, 125))).toBeUndefined();
  expect(
    readSacnDiscovery(
      sacnData({
        universe: 1,
        sequence: 0,
        priority: 100,
        source: "x",
        cid,
        terminated: false,
        data: new Uint8Array(512),
      }),
    ),
  ).toBeUndefined();
});
