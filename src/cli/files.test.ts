/** Catches scripts that write where nobody asked them to. */
import { existsSync, mkdirSync, mkdtempSync, readFileSync, symlinkSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { newShow } from "@/core/show/world";
import { filesBeside } from "./files";

/** A place that no other run has. */
const NEVER = join(tmpdir(), `bold-comet-never-${process.pid}`);

const root = mkdtempSync(join(tmpdir(), "bold-comet-files-"));
for (const folder of ["scripts/below", "started", "outside"]) mkdirSync(join(root, folder), { recursive: true });
symlinkSync(join(root, "outside"), join(root, "scripts/link"));
writeFileSync(join(root, "outside/precious"), "as it was");
symlinkSync(join(root, "outside/precious"), join(root, "scripts/sly"));
const files = (anywhere = false) =>
  filesBeside(join(root, "scripts/one.comet"), join(root, "started"), anywhere, () => undefined);

test("below its own folder and the one it is started from, a script writes", () => {
  expect(files().writeText("patch.csv", "a")).toBeUndefined();
  expect(files().writeText("below/patch.csv", "b")).toBeUndefined();
  expect(files().writeText("../started/patch.csv", "c")).toBeUndefined();
  expect(files().save("show.comet.zip", newShow("x"))).toBeUndefined();
  expect(readFileSync(join(root, "started/patch.csv"), "utf8")).toBe("c");
});

test.each(["../outside/new", "../escape", NEVER, "link/new", "sly", "../scripts", ".."])(
  "not to %s, unless told",
  (name) => {
    expect(files().writeText(name, "x")?.what).toMatch(/outside|cannot be written/);
    expect(readFileSync(join(root, "outside/precious"), "utf8")).toBe("as it was");
    expect(existsSync(NEVER)).toBe(false);
  },
);

test("told that it may, it writes anywhere; a folder that is missing is said", () => {
  expect(files(true).writeText("../outside/new", "x")).toBeUndefined();
  expect(files(true).writeText("no/such/folder", "x")?.what).toMatch(/folder does not exist/);
});
