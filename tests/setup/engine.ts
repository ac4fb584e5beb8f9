/** The engine's worker under test, with its ticks and its clock in our hands. */
import { openFrame, wholeHalf } from "@/engine/frame";
import { indexOf } from "@/engine/layout";
import { FromEngineSchema, type FromEngine, type Running, type ToEngine } from "@/engine/messages";
import type { World } from "@/core/show/world";

/** A worker of its own, with its ticks in our hands. */
export async function startWorker(began = 1000) {
  const said: FromEngine[] = [];
  let hear: (event: { data: unknown }) => void = () => undefined;
  let tick = () => {};
  let clock = began;
  const globals = globalThis as unknown as Record<string, unknown>;
  globals.postMessage = (message: unknown) => said.push(FromEngineSchema.parse(message));
  globals.addEventListener = (_: string, listener: typeof hear) => (hear = listener);
  globals.BroadcastChannel = class {
    postMessage() {}
  };
  jest.spyOn(globalThis, "setInterval").mockImplementation(((made: () => void) => ((tick = made), 0)) as never);
  jest.spyOn(performance, "now").mockImplementation(() => clock);
  await jest.isolateModulesAsync(async () => void (await import("@/engine/worker")));
  const last = <K extends FromEngine["kind"]>(kind: K) =>
    said.findLast((m) => m.kind === kind) as Extract<FromEngine, { kind: K }> | undefined;
  return {
    said,
    last,
    tell: (message: ToEngine) => hear({ data: message }),
    noise: (data: unknown) => hear({ data }),
    open: (world: World, running: Running | null = null) =>
      hear({ data: { kind: "open", world, running, frames: "frames", standby: false } }),
    /** Lets time pass, with or without ticks. */
    pass(ms: number, every = 1000 / 60) {
      for (const end = clock + ms; clock < end; clock = Math.min(end, clock + every)) tick();
      tick();
    },
    stall: (ms: number) => void (clock += ms),
    event: (event: object, late = 0) =>
      hear({ data: { kind: "event", event, at: performance.timeOrigin + clock - late, id: 7 } }),
    value(key: string): number {
      const layout = last("layout")!.layout;
      const memory = said.findLast(
        (m) => (m.kind === "frame" && m.generation === layout.generation) || m.kind === "layout",
      ) as { memory: ArrayBuffer };
      return wholeHalf(openFrame(layout, memory.memory)).value[indexOf(layout).get(key)!]!;
    },
    bytes() {
      const layout = last("layout")!.layout;
      const memory = said.findLast(
        (m) => (m.kind === "frame" && m.generation === layout.generation) || m.kind === "layout",
      ) as { memory: ArrayBuffer };
      return wholeHalf(openFrame(layout, memory.memory)).bytes;
    },
  };
}
