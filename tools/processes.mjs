// Processes by id and start time, so that an id that has been given to another program is not mistaken for one of ours.
import { execFileSync } from "node:child_process";
import { readFileSync } from "node:fs";

/** When a process started, as the system tells it; "" where there is none. */
export function startTime(pid) {
  try {
    // Linux: the 22nd field, counted after the name, which may hold spaces (proc(5)).
    return readFileSync(`/proc/${pid}/stat`, "utf8").split(") ").at(-1).split(" ")[19];
  } catch {
    try {
      return execFileSync("ps", ["-o", "lstart=", "-p", String(pid)], {
        encoding: "utf8",
        stdio: ["ignore", "pipe", "ignore"],
      }).trim();
    } catch {
      return "";
    }
  }
}

export const isOurs = ({ pid, started }) =>
  Number.isInteger(pid) && pid > 1 && started !== "" && startTime(pid) === started;
