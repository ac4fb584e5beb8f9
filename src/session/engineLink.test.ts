/** Catches an engine that is taken for dead while it opens a large show or works out a large change, and one that is dead and is not. */
import { newWorld } from "@/core/show/world";
import { startEngine, type EngineLink } from "./engineLink";

const workers: FakeWorker[] = [];
class FakeWorker {
  ended = false;
  private hear: ((event: { data: unknown }) => void)[] = [];
  private fail: (() => void)[] = [];
  constructor() {
    workers.push(this);
  }
  addEventListener(kind: string, hear: (event: { data: unknown }) => void) {
    if (kind === "message") this.hear.push(hear);
    else this.fail.push(hear as () => void);
  }
  readonly told: { kind: string; running?: unknown }[] = [];
  postMessage(message: { kind: string }) {
    this.told.push(message);
  }
  terminate() {
    this.ended = true;
  }
  dies() {
    for (const fail of this.fail) fail();
  }
  says(data: unknown) {
    for (const hear of this.hear) hear({ data });
  }
}
const LAYOUT = {
  kind: "layout",
  layout: { generation: 1, size: 0, makes: [], fixtures: [], made: new Uint32Array(), universes: [], slots: 0 },
  memory: new ArrayBuffer(64),
};

let engine: EngineLink;
const trouble: string[] = [];
beforeEach(() => {
  jest.useFakeTimers();
  workers.length = trouble.length = 0;
  Object.assign(globalThis, { Worker: FakeWorker });
  engine = startEngine(newWorld(), null, "frames");
  engine.listen({
    layout: () => undefined,
    playing: () => undefined,
    running: () => undefined,
    wire: () => undefined,
    trouble: (text) => trouble.push(text),
    gone: (text) => trouble.push(text),
    runs: () => undefined,
    osc: () => undefined,
    copied: () => undefined,
    world: () => newWorld(),
  });
});
afterEach(() => {
  engine.close();
  jest.useRealTimers();
});

test("an engine that opens a show is waited for; once it plays, silence is its end", () => {
  jest.advanceTimersByTime(20_000);
  expect(workers).toHaveLength(1);
  workers[0]!.says(LAYOUT);
  jest.advanceTimersByTime(1000);
  workers[0]!.says({ kind: "alive" });
  jest.advanceTimersByTime(1200);
  expect(workers).toHaveLength(1);
  jest.advanceTimersByTime(1200);
  expect(workers.map((w) => w.ended)).toEqual([true, false]);
  expect(trouble).toEqual([expect.stringMatching(/started again/)]);
});

test("one that dies again and again is told of in the end", () => {
  for (let k = 0; k < 6; k++) workers.at(-1)!.dies();
  expect(workers).toHaveLength(6);
  expect(trouble.at(-1)).toMatch(/keeps stopping; reload the page, or open an earlier moment/);
});

test("one that dies again and again is started without what was running, and says so", () => {
  workers[0]!.says({ kind: "saved", saved: "{}" });
  const opened = () => workers.at(-1)!.told.find((m) => m.kind === "open")!.running;
  workers.at(-1)!.dies();
  workers.at(-1)!.dies();
  expect(opened()).toEqual({ saved: "{}", now: 0 });
  expect(trouble.at(-1)).toMatch(/where it was last saved/);
  workers.at(-1)!.dies();
  expect(opened()).toBeNull();
  expect(trouble.at(-1)).toMatch(/without what was running/);
});

test("a large change gives it time, a small one does not", () => {
  workers[0]!.says(LAYOUT);
  engine.diff("x".repeat(3_000_000));
  jest.advanceTimersByTime(9000);
  expect(workers).toHaveLength(1);
  workers[0]!.says({ kind: "alive" });
  engine.diff("x".repeat(3000));
  jest.advanceTimersByTime(4000);
  expect(workers).toHaveLength(2);
});
