/** Catches what is left behind by a stop, and a start that takes what is half dead for running. */
import { existsSync, writeFileSync } from "node:fs";
import { becomes } from "./app";
import { answers, lives, start, state, stateFile, stopAll } from "./setup/ownApp";
import { freePort } from "./setup/places";

afterAll(stopAll);

test("killed hard, it leaves nothing behind, and the next start runs; a second start is pointed to the first", async () => {
  const port = await freePort();
  const first = await start(port);
  expect(first.code).toBeNull();
  const second = await start(port);
  expect([second.code, second.said]).toEqual([0, expect.stringContaining("already running")]);
  const { processes } = state(port);
  expect(processes.map((p) => p.name).sort()).toEqual(["app", "bridge", "serve", "standin"]);
  first.child.kill("SIGKILL");
  await becomes(
    async () =>
      processes
        .filter((p) => lives(p.pid))
        .map((p) => p.name)
        .join(),
    (left) => left === "",
  );
  const third = await start(port);
  expect(third.code).toBeNull();
  expect(await answers(state(port).bridge)).toBe(true);

  // The bridge is dead and nobody starts it again: it does not count as running.
  const half = state(port);
  const serve = half.processes.find((p) => p.name === "serve")!;
  process.kill(serve.pid, "SIGSTOP");
  process.kill(half.processes.find((p) => p.name === "bridge")!.pid, "SIGKILL");
  await becomes(
    () => answers(half.bridge),
    (yes) => !yes,
  );
  const fourth = await start(port);
  expect([fourth.code, fourth.said]).toEqual([null, expect.stringContaining("with the demo show")]);
  fourth.child.kill("SIGTERM");
  await becomes(
    async () => existsSync(stateFile(port)),
    (there) => !there,
  );
});

test("a process that only has the id of one of ours is left alone, and a port of another program is told of", async () => {
  const port = await freePort();
  writeFileSync(
    stateFile(port),
    JSON.stringify({ token: "x", bridge: 1, node: 1, processes: [{ name: "app", pid: process.pid, started: "1" }] }),
  );
  const made = await start(port);
  expect(made.code).toBeNull();
  made.child.kill("SIGTERM");
  await becomes(
    async () => existsSync(stateFile(port)),
    (there) => !there,
  );
  const other = (await import("node:http")).createServer((_, answer) => answer.end("hello"));
  await new Promise<void>((resolve) => other.listen(port, "127.0.0.1", () => resolve()));
  const refused = await start(port);
  expect([refused.code, refused.said]).toEqual([1, expect.stringContaining("in use by something else")]);
  other.close();
});
