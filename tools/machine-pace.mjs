// How fast the machine is at the moment: a bare loop on two cores at once. Other machines beside it may take from them.
import { spawn } from "node:child_process";

const LOOP =
  "const t = performance.now(); let x = 0; for (let i = 0; i < 2e8; i++) x += i % 7; console.log(performance.now() - t, x);";

const one = () =>
  new Promise((resolve) => {
    let text = "";
    const child = spawn(process.execPath, ["-e", LOOP], { stdio: ["ignore", "pipe", "inherit"] });
    child.stdout.on("data", (data) => (text += data));
    child.on("exit", () => resolve(Math.round(parseFloat(text))));
  });

/** Milliseconds of the loop on each of two cores. */
export async function machinePace() {
  return (await Promise.all([one(), one()])).join(" and ");
}
