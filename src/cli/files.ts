/** The files of a script: read from beside it, written only where it may. */
import { closeSync, constants, fstatSync, openSync, readSync, realpathSync, statSync, writeFileSync } from "node:fs";
import { basename, dirname, join, relative, resolve, isAbsolute } from "node:path";
import { readShowFile, writeShowFile } from "@/core/exchange/showFile";
import { makeDemo } from "@/core/demo/saltLantern";
import type { ScriptFiles } from "@/core/desk/script";
import { decodeText } from "@/core/units/encoding";
import { isRefusal, refuse, type Refusal } from "@/core/show/refusal";

/** The name under which scripts open the demo show. */
const DEMO = "demo";

const isBelow = (path: string, folder: string): boolean => {
  const way = relative(folder, path);
  return way !== "" && !way.startsWith("..") && !isAbsolute(way);
};

/** Where a file would really be written, links followed; undefined where its folder does not exist. */
function realPath(path: string): string | undefined {
  try {
    return realpathSync(path);
  } catch {
    try {
      return join(realpathSync(dirname(path)), basename(path));
    } catch {
      return undefined;
    }
  }
}

const MOST_MB = 512;

/** Reads a regular file of a bounded size: a pipe or a device would be read for ever. @param called what it is called in a refusal. */
export function readBounded(path: string, called: string): Buffer | Refusal {
  let file: number | undefined;
  try {
    // A pipe is opened without waiting for somebody to write to it.
    file = openSync(path, constants.O_RDONLY | constants.O_NONBLOCK);
    const stat = fstatSync(file);
    const { size } = stat;
    if (!stat.isFile()) return refuse(`${called} is no regular file`, "Name a file");
    if (size > MOST_MB * 1024 * 1024)
      return refuse(
        `${called} is too large: ${Math.ceil(size / 1024 / 1024).toLocaleString("en")} MB`,
        `${MOST_MB} MB is the most`,
      );
    const bytes = Buffer.alloc(size);
    return bytes.subarray(0, readSync(file, bytes));
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    return code === "ENOENT"
      ? refuse(`${called} is not there`)
      : refuse(`${called} cannot be read: ${code ?? (error as Error).message}`);
  } finally {
    if (file !== undefined) closeSync(file);
  }
}

/** @param started the folder it was started from. @param anywhere whether it was told that it may write anywhere. */
export function filesBeside(
  script: string,
  started: string,
  anywhere: boolean,
  print: (line: string) => void,
): ScriptFiles {
  const path = (name: string) => resolve(dirname(script), name);
  const allowed = [dirname(resolve(script)), started].map((folder) => realPath(folder) ?? folder);
  const write = (name: string, data: Uint8Array | string): Refusal | undefined => {
    const to = realPath(path(name));
    if (!to) return refuse(`"${name}" cannot be written: its folder does not exist`);
    if (!anywhere && !allowed.some((folder) => isBelow(to, folder)))
      return refuse(
        `"${name}" lies outside the script's folder and the one it was started from`,
        "Write below one of them, or start it with --write-anywhere",
      );
    if (statSync(to, { throwIfNoEntry: false })?.isFile() === false)
      return refuse(`"${name}" cannot be written: it is no regular file`, "Choose another name");
    try {
      writeFileSync(to, data);
      return undefined;
    } catch (error) {
      return refuse(
        `"${name}" cannot be written: ${(error as NodeJS.ErrnoException).code ?? (error as Error).message}`,
      );
    }
  };
  const read = <T>(name: string, make: (bytes: Buffer) => T): T | Refusal => {
    const bytes = readBounded(path(name), `the file "${name}" beside the script`);
    return isRefusal(bytes) ? bytes : make(bytes);
  };
  return {
    // The demo show comes with the product.
    open: (name) => (name === DEMO ? makeDemo().show : read(name, (bytes) => readShowFile(new Uint8Array(bytes)))),
    save: (name, show) => write(name, writeShowFile(show)),
    readText: (name) => read(name, (bytes) => decodeText(new Uint8Array(bytes))),
    writeText: write,
    readBytes: (name) => read(name, (bytes) => new Uint8Array(bytes)),
    writeBytes: write,
    print,
  };
}
