/** Catches a stranger let in, and one connection that takes the server along. */
import { connect } from "node:net";
import { WebSocket } from "ws";
import { cutOff, guardedServer } from "./guarded";
import { createAllowance, createRates } from "./rates";

const guard = {
  origins: ["http://127.0.0.1:4610", "http://localhost:4610"],
  token: "secret",
  host: "127.0.0.1",
  mostBytes: 1000,
  mostMessages: 20,
};
let server: { port: number; close(): void };
const heard: string[] = [];
beforeAll(async () => {
  server = await guardedServer(guard, (socket) =>
    socket.on("message", (data) => {
      heard.push(String(data));
      if (String(data) === "bad") cutOff(socket, "x".repeat(500));
    }),
  );
});
afterAll(() => server.close());

const from = (origin: string, path: string) => new WebSocket(`ws://127.0.0.1:${server.port}${path}`, { origin });
const end = (socket: WebSocket) =>
  new Promise<string>((resolve) => {
    socket.once("open", () => resolve("open"));
    socket.once("error", (error) => resolve(error.message));
  });
const closing = (socket: WebSocket) =>
  new Promise<[number, string]>((resolve) => socket.once("close", (code, why) => resolve([code, String(why)])));

/** An upgrade as no browser would write it; resolves to the first line of the answer. */
const raw = (path: string, origin = guard.origins[0], host = "127.0.0.1") =>
  new Promise<string>((resolve) => {
    const socket = connect(server.port, "127.0.0.1", () =>
      socket.write(
        `GET ${path} HTTP/1.1\r\nHost: ${host}\r\nConnection: Upgrade\r\nUpgrade: websocket\r\nSec-WebSocket-Version: 13\r\nSec-WebSocket-Key: dGhlIHNhbXBsZSBub25jZQ==\r\nOrigin: ${origin}\r\n\r\n`,
      ),
    );
    socket.once("data", (data) => (resolve(String(data).split("\r\n")[0]!), socket.destroy()));
    socket.once("close", () => resolve("closed"));
  });

test("only the app, with the token of this start", async () => {
  expect(await end(from("http://127.0.0.1:4610", "/?token=secret"))).toBe("open");
  expect(await end(from("http://localhost:4610", "/?token=secret"))).toBe("open");
  for (const [origin, path] of [
    ["http://evil.example", "/?token=secret"],
    ["http://127.0.0.1:4610", "/?token=wrong!"],
    ["http://127.0.0.1:4610", "/"],
    ["", "/?token=secret"],
    ["http://127.0.0.1:4610.evil.example", "/?token=secret"],
  ] as const) {
    expect(await end(from(origin, path))).toMatch(/403/);
  }
});

test("by no name but this machine's own", async () => {
  for (const host of ["127.0.0.1:4610", "LOCALHOST", "127.0.0.7:1"])
    expect(await raw("/?token=secret", undefined, host)).toMatch(/101/);
  for (const host of ["evil.example", "127.0.0.1.evil.example", "127.0.0.1@evil.example", "", "localhost:4610x"])
    expect(await raw("/?token=secret", undefined, host)).toMatch(/403|400/);
});

test("an address that is none is refused, and the server goes on", async () => {
  for (const path of ["//", "///?token=secret&", "http://[", "*", "/%ff%fe?token=%", `/?${"a".repeat(9000)}`])
    expect(await raw(path, "http://evil.example")).toMatch(/ 40[03] |closed/);
  expect(await raw("//")).toMatch(/ 403 /);
  expect(await end(from("http://127.0.0.1:4610", "/?token=secret"))).toBe("open");
});

test("too much, too often or against the rules ends that connection alone", async () => {
  const [large, often, bad, well] = [0, 1, 2, 3].map(() => from("http://127.0.0.1:4610", "/?token=secret")) as [
    WebSocket,
    WebSocket,
    WebSocket,
    WebSocket,
  ];
  await Promise.all([large, often, bad, well].map(end));
  const ends = [closing(large), closing(often), closing(bad)];
  large.on("error", () => undefined).send("x".repeat(1001));
  for (let i = 0; i < 60; i++) often.send("again");
  bad.send("bad");
  const [a, b, c] = await Promise.all(ends);
  expect(a![0]).toBe(1009);
  expect(b).toEqual([1008, "more than 20 messages a second"]);
  expect([c![0], c![1].length]).toEqual([1008, 120]);
  well.send("still here");
  for (let i = 0; i < 100 && !heard.includes("still here"); i++)
    await new Promise((resolve) => setTimeout(resolve, 10));
  expect(heard).toContain("still here");
  well.close();
});

test("an allowance is for any second, wherever it begins", () => {
  const fits = createAllowance(20);
  const of = (n: number, at: number) => Array.from({ length: n }, () => fits(at)).filter(Boolean).length;
  expect([of(15, 990), of(15, 1010), of(15, 1110)]).toEqual([15, 5, 2]);
  expect(of(100, 9000)).toBe(20);
});

test("a rate is that of the last two seconds", () => {
  const rates = createRates(500);
  expect([22, 22, 22, 22].map((n) => rates.of("a", n))).toEqual([44, 44, 44, 44]);
  expect([0, 0, 0, 0].map((n) => rates.of("a", n))).toEqual([33, 22, 11, 0]);
  expect(rates.of("b", 1)).toBe(2);
});
