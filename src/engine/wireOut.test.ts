/** Catches universes that do not leave, leave unasked, or fade where they should not. */
import { newDesk, runLine } from "@/core/desk/desk";
import { OWN } from "@/core/dmx/consent";
import { compileRig } from "@/core/play/stage/rig";
import { intensityOf, openWire } from "./wireOut";

/** A bridge that only takes down what it hears. */
class QuietBridge {
  static readonly OPEN = 1;
  static last: QuietBridge;
  readyState = 1;
  bufferedAmount = 0;
  sent: (string | Uint8Array)[] = [];
  hear: (event: { data: string }) => void = () => undefined;
  constructor() {
    QuietBridge.last = this;
  }
  addEventListener(kind: string, then: (event: { data: string }) => void) {
    if (kind === "message") this.hear = then;
  }
  send(message: string | Uint8Array) {
    this.sent.push(message);
  }
  close() {}
  state(mine: boolean) {
    const said = { kind: "state", trouble: null, nodes: [], mine, lost: false, holder: null, behind: 0, sending: [] };
    const interfaces = [{ name: "lo", address: "127.0.0.1", netmask: "255.0.0.0" }];
    this.hear({ data: JSON.stringify({ ...said, interfaces }) });
  }
  kinds = () => this.sent.map((m) => (typeof m === "string" ? (JSON.parse(m) as { kind: string }).kind : "frame"));
}

test("a window that stands by is connected and says nothing; when it goes on, the first frame goes with its claim", () => {
  Object.assign(globalThis, { WebSocket: QuietBridge });
  const desk = newDesk();
  for (const line of ["patch 1 kelp-wash as 1 at 1:1", "output 1 artnet to 127.0.0.1 as 3"])
    expect(runLine(desk, line)).toBeUndefined();
  const rig = compileRig(desk.world.show);
  const bytes = new Uint8Array(512).fill(7);
  const wire = openWire(1, "t", "show", () => undefined, true);
  const bridge = QuietBridge.last;
  wire.configure(desk.world.show, rig);
  wire.agree(OWN);
  bridge.state(false);
  wire.send(bytes);
  expect(bridge.sent).toEqual([]);
  wire.speak();
  wire.send(bytes);
  expect(bridge.kinds()).toEqual(["hello", "outputs", "frame"]);
  // Once the output is known to be its own all goes out again: the first may have come too early.
  bridge.state(true);
  wire.send(bytes);
  wire.send(bytes);
  expect(bridge.kinds().slice(3)).toEqual(["frame"]);
  // Another show holds it after all.
  bridge.state(false);
  wire.send(bytes.fill(8));
  expect(bridge.kinds()).toHaveLength(4);
});

test("what a fade-out takes down is intensity: dimmers, cells, and emitters that stand for them; never where a mover points", () => {
  const desk = newDesk();
  const lines = [
    "patch 1 kelp-wash as 1 at 1:1",
    "patch 1 petrel-spot as 2 at 1:101",
    "patch 1 lantern-par as 3 at 2:1",
    "patch 1 lantern-par as 4 at 2:11",
    "4 virtual dimmer off",
    "patch 1 twin-blinder as 5 at 2:21",
    "patch 1 mist-hazer as 6 at 3:1",
    "1 also at 4:1",
  ];
  for (const line of lines) expect(runLine(desk, line)).toBeUndefined();
  expect(intensityOf(compileRig(desk.world.show))).toEqual({
    1: { single: [5], double: [105] },
    2: { single: [1, 2, 3, 4, 11, 12, 13, 14, 21, 22], double: [] },
    4: { single: [5], double: [] },
  });
});
