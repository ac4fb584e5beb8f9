/** The bridge as a process: origins, token and host come from its surroundings; its port goes to its standard output. */
import { startBridge } from "./bridge";

const {
  BOLD_COMET_ORIGINS = "",
  BOLD_COMET_TOKEN = "",
  BOLD_COMET_BRIDGE_HOST = "127.0.0.1",
  BOLD_COMET_BRIDGE_PORT = "0",
  BOLD_COMET_OSC_PORT,
} = process.env;
if (!BOLD_COMET_TOKEN) throw new Error("the bridge is started by ./bold-comet, which gives it a token");
const bridge = await startBridge({
  origins: BOLD_COMET_ORIGINS.split(","),
  token: BOLD_COMET_TOKEN,
  host: BOLD_COMET_BRIDGE_HOST,
  port: Number(BOLD_COMET_BRIDGE_PORT),
  ...(BOLD_COMET_OSC_PORT ? { osc: Number(BOLD_COMET_OSC_PORT) } : {}),
});
console.log(JSON.stringify({ port: bridge.port }));
let stopping = false;
const stop = (): void => {
  if (stopping) return;
  stopping = true;
  void bridge.stop().then(() => process.exit(0));
};
for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"] as const) process.on(signal, stop);
// Whoever started it holds the other end: with that gone, however it went, this goes too.
process.stdin.resume().on("end", stop);
