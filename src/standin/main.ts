/** The stand-in node as a process. */
import { startNode } from "./node";

const {
  BOLD_COMET_ORIGINS = "",
  BOLD_COMET_TOKEN = "",
  BOLD_COMET_NODE_HOST = "127.0.0.1",
  BOLD_COMET_NODE_PORT = "0",
} = process.env;
if (!BOLD_COMET_TOKEN) throw new Error("the stand-in node is started by ./bold-comet, which gives it a token");
const node = await startNode(
  { origins: BOLD_COMET_ORIGINS.split(","), token: BOLD_COMET_TOKEN, port: Number(BOLD_COMET_NODE_PORT) },
  BOLD_COMET_NODE_HOST,
);
console.log(JSON.stringify({ port: node.port }));
const stop = (): never => {
  node.stop();
  process.exit(0);
};
for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"] as const) process.on(signal, stop);
// Whoever started it holds the other end: with that gone, however it went, this goes too.
process.stdin.resume().on("end", stop);
