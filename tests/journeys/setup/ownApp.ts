/** An app of a journey's own, to be stopped and started again: one for several journeys must not be. */
import { spawn, type ChildProcess } from "node:child_process";
import { readFileSync } from "node:fs";
import { connect } from "node:net";
import { join } from "node:path";

const root = join(__dirname, "../../..");
const children: ChildProcess[] = [];

/** Starts it as its users do. @returns what it said until it served, or ended with a code. */
export async function start(port: number): Promise<{ child: ChildProcess; said: string; code: number | null }> {
  const child = spawn(process.execPath, [join(root, "tools/serve.mjs"), "--port", String(port)], {
    stdio: ["ignore", "pipe", "pipe"],
    env: { ...process.env, BOLD_COMET_NODE_HOST: "127.0.0.63" },
  });
  children.push(child);
  let said = "";
  child.stdout.on("data", (text) => (said += String(text)));
  child.stderr.on("data", (text) => (said += String(text)));
  const code = await new Promise<number | null>((resolve) => {
    child.once("exit", resolve);
    child.stdout.on("data", () => /All shows/.test(said) && resolve(null));
  });
  return { child, said, code };
}
export const stateFile = (port: number) => join(root, `build/running-${port}.json`);
export const state = (port: number) =>
  JSON.parse(readFileSync(stateFile(port), "utf8")) as {
    bridge: number;
    node: number;
    processes: { name: string; pid: number; started: string }[];
  };
export const lives = (pid: number) => {
  try {
    process.kill(pid, 0);
    return true;
  } catch {
    return false;
  }
};
export const answers = (port: number) =>
  new Promise<boolean>((resolve) => {
    const socket = connect(port, "127.0.0.1")
      .once("connect", () => (socket.destroy(), resolve(true)))
      .once("error", () => resolve(false));
  });

/** Ends whatever a file has started. */
export const stopAll = (): void => children.forEach((child) => child.kill("SIGKILL"));
