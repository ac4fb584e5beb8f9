/**
 * Our packets read by an independent protocol analyser (tshark, of Debian's packages): every field it
 * finds is compared with what was meant. Run by `npm run packets`; nothing is sent.
 */
import { spawnSync } from "node:child_process";
import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { artDmx, ARTNET_PORT, artPoll, artPollReply } from "@/core/dmx/artnet";
import { SACN_PORT, sacnData } from "@/core/dmx/sacn";

interface Case {
  name: string;
  port: number;
  packet: Uint8Array;
  fields: Record<string, string>;
}

const data = Uint8Array.from({ length: 512 }, (_, i) => (i * 7) & 255);
const cid = Uint8Array.from({ length: 16 }, (_, i) => i + 1);
const sacn = (universe: number, sequence: number, priority: number, terminated: boolean): Case => ({
  name: `sACN universe ${universe}${terminated ? ", terminated" : ""}`,
  port: SACN_PORT,
  packet: sacnData({ universe, sequence, priority, source: "Bold Comet", cid, terminated, data }),
  fields: {
    "acn.preamble_size": "16",
    "acn.postamble_size": "0",
    "acn.packet_identifier": "ASC-E1.17",
    "acn.cid": "01020304-0506-0708-090a-0b0c0d0e0f10",
    "acn.dmx.source_name": "Bold Comet",
    "acn.dmx.priority": String(priority),
    "acn.dmx.seq_number": String(sequence),
    "acn.dmx.universe": String(universe),
    "acn.dmx.option_s": terminated ? "1" : "0",
    "acn.dmx.option_p": "0",
    "acn.dmp_adt_a": "1",
    "acn.dmx.start_code2": "0",
    "acn.dmx.first_property_address": "0",
    "acn.dmx.increment": "1",
    "acn.dmx.count": "513",
    "acn.pdu.length": "622,600,523",
  },
});
const cases: Case[] = [
  {
    name: "ArtDmx",
    port: ARTNET_PORT,
    packet: artDmx(0x1234, 7, data),
    fields: {
      "artnet.header.id": "Art-Net",
      "artnet.header.opcode": "0x5000",
      "artnet.header.protver": "14",
      "artnet.output.sequence": "7",
      "artnet.output.physical": "0",
      "artnet.output.universe": "4660",
      "artnet.output.length": "512",
    },
  },
  {
    name: "ArtDmx of an odd count",
    port: ARTNET_PORT,
    packet: artDmx(0, 255, data.subarray(0, 3)),
    fields: { "artnet.output.length": "4", "artnet.output.sequence": "255", "artnet.output.universe": "0" },
  },
  {
    name: "ArtPoll",
    port: ARTNET_PORT,
    packet: artPoll(),
    fields: { "artnet.header.opcode": "0x2000", "artnet.header.protver": "14" },
  },
  {
    name: "ArtPollReply",
    port: ARTNET_PORT,
    packet: artPollReply({
      ip: "127.0.0.1",
      short: "Stand-in",
      long: "Bold Comet stand-in node",
      ports: [0x123, 0x124],
    }),
    fields: {
      "artnet.header.opcode": "0x2100",
      "artnet.poll_reply.ip_address": "127.0.0.1",
      "artnet.poll_reply.port_nr": "6454",
      "artnet.poll_reply.netswitch": "0x01",
      "artnet.poll_reply.subswitch": "0x02",
      "artnet.poll_reply.short_name": "Stand-in",
      "artnet.poll_reply.long_name": "Bold Comet stand-in node",
      "artnet.poll_reply.num_ports": "2",
      "artnet.poll_reply.swout_1": "0x03",
      "artnet.poll_reply.swout_2": "0x04",
    },
  },
  sacn(1, 0, 100, false),
  sacn(63_999, 255, 200, false),
  sacn(7, 12, 100, true),
];

/** A capture file of UDP packets over loopback (libpcap, link type 101: raw IP). */
function capture(packets: readonly Case[]): Buffer {
  const head = Buffer.alloc(24);
  head.writeUInt32LE(0xa1b2c3d4, 0);
  head.writeUInt16LE(2, 4);
  head.writeUInt16LE(4, 6);
  head.writeUInt32LE(65_535, 16);
  head.writeUInt32LE(101, 20);
  return Buffer.concat([
    head,
    ...packets.flatMap(({ port, packet }, i) => {
      const ip = Buffer.alloc(28);
      ip.writeUInt8(0x45, 0);
      ip.writeUInt16BE(28 + packet.length, 2);
      ip.writeUInt8(64, 8);
      ip.writeUInt8(17, 9);
      ip.set([127, 0, 0, 1, 127, 0, 0, 1], 12);
      ip.writeUInt16BE(port, 20);
      ip.writeUInt16BE(port, 22);
      ip.writeUInt16BE(8 + packet.length, 24);
      const record = Buffer.alloc(16);
      record.writeUInt32LE(i, 0);
      record.writeUInt32LE(28 + packet.length, 8);
      record.writeUInt32LE(28 + packet.length, 12);
      return [record, ip, Buffer.from(packet)];
    }),
  ]);
}

const file = join(mkdtempSync(join(tmpdir(), "bold-comet-packets-")), "packets.pcap");
writeFileSync(file, capture(cases));
const names = [...new Set(cases.flatMap((c) => Object.keys(c.fields))), "_ws.malformed", "_ws.expert.message"];
const ran = spawnSync(
  "tshark",
  [
    "-r",
    file,
    "--enable-heuristic",
    "acn",
    "-o",
    "acn.dmx_enable:TRUE",
    "-T",
    "fields",
    "-E",
    "separator=|",
    "-E",
    "aggregator=,",
    ...names.flatMap((n) => ["-e", n]),
  ],
  { encoding: "utf8" },
);
if (ran.error) {
  console.error("tshark is missing. Install it from Debian's packages: apt-get install tshark");
  process.exit(2);
}
let failed = 0;
let passed = 0;
ran.stdout
  .trimEnd()
  .split("\n")
  .forEach((line, i) => {
    const { name, fields } = cases[i]!;
    const found = Object.fromEntries(line.split("|").map((value, k) => [names[k]!, value]));
    for (const [field, wanted] of Object.entries({ ...fields, "_ws.malformed": "" })) {
      if (found[field] === wanted) passed += 1;
      else {
        failed += 1;
        console.log(`${name}: ${field} is ${found[field]}, meant ${wanted}`);
      }
    }
  });
if (passed === 0) console.log(`the analyser read nothing: ${ran.stderr.slice(0, 400)}`);
console.log(`${passed} fields as meant, ${failed} not (${cases.length} packets)`);
process.exit(failed === 0 && passed > 0 ? 0 : 1);
