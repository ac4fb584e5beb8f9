/** A WebSocket server for this machine's own app alone: loopback, the app's origin, a token of this start, limits on size and rate. */
import { timingSafeEqual } from "node:crypto";
import { createServer } from "node:http";
import { WebSocketServer, type WebSocket } from "ws";
import { createAllowance } from "./rates";

export interface Guard {
  /** Origins of the app, such as the one of 127.0.0.1 and of localhost. */
  origins: readonly string[];
  token: string;
  host: string;
  /** Where to listen; 0 for any free port. */
  port?: number;
  mostBytes: number;
  /** Messages a second before the sender is cut off. */
  mostMessages: number;
}

const POLICY = 1008;

function sameToken(given: string, wanted: string): boolean {
  const [a, b] = [Buffer.from(given), Buffer.from(wanted)];
  return a.length === b.length && timingSafeEqual(a, b);
}

/** The token of an address; one that is no address has none. */
const tokenOf = (url = ""): string => new URLSearchParams(url.slice(url.indexOf("?") + 1)).get("token") ?? "";

/** So long a client has to answer a close before it is ended without. */
const PATIENCE_MS = 1000;

/** Ends a connection that broke the rules, saying which; nothing more is heard from it, and one that ignores the close is ended all the same. */
export function cutOff(socket: WebSocket, why: string): void {
  socket.removeAllListeners("message");
  socket.close(POLICY, why.slice(0, 120));
  const late = setTimeout(() => socket.terminate(), PATIENCE_MS);
  late.unref();
  socket.once("close", () => clearTimeout(late));
}

/** Whether a Host header names this machine itself: its loopback address or localhost, at any port. */
const isOurs = (host = ""): boolean => /^(127(\.\d{1,3}){3}|localhost)(:\d{1,5})?$/i.test(host);

/** Starts listening on a free port; resolves to it. */
export function guardedServer(
  guard: Guard,
  connected: (socket: WebSocket) => void,
): Promise<{ port: number; close(): void }> {
  const http = createServer((_, answer) => answer.writeHead(426).end());
  const server = new WebSocketServer({
    server: http,
    maxPayload: guard.mostBytes,
    perMessageDeflate: false,
    verifyClient(
      { origin, req }: { origin: string; req: { url?: string; headers: { host?: string } } },
      done: (ok: boolean, code?: number, why?: string) => void,
    ) {
      // A name that somebody made lead here is none of ours.
      if (!isOurs(req.headers.host)) return done(false, 403, "only this machine's own addresses are answered");
      if (!guard.origins.includes(origin)) return done(false, 403, "only the app itself may connect");
      if (!sameToken(tokenOf(req.url), guard.token))
        return done(false, 403, "the token of this start is missing or wrong");
      done(true);
    },
  });
  server.on("connection", (socket) => {
    const fits = createAllowance(guard.mostMessages);
    socket.on("message", () => {
      if (!fits(performance.now())) cutOff(socket, `more than ${guard.mostMessages} messages a second`);
    });
    // A socket that breaks the protocol closes; that is all there is to do.
    socket.on("error", () => undefined);
    connected(socket);
  });
  return new Promise((resolve, reject) => {
    http.once("error", reject);
    http.listen(guard.port ?? 0, guard.host, () => {
      http.off("error", reject);
      http.on("error", () => undefined);
      resolve({
        port: (http.address() as { port: number }).port,
        close() {
          for (const client of server.clients) client.terminate();
          server.close();
          http.close();
        },
      });
    });
  });
}
