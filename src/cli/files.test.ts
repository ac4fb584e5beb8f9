/** Catches scripts that write where nobody asked them to. */
import { execFileSync } from "node:child_process";
import { existsSync, mkdirSync, mkdtempSync, readFileSync, symlinkSync, truncateSync, writeFileSync } from "node:fs";
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

test("what is no regular file, or larger than any show, is refused at once", () => {
  const pipe = join(root, "scripts/pipe");
  execFileSync("mkfifo", [pipe]);
  symlinkSync("/dev/zero", join(root, "scripts/zero"));
  truncateSync((writeFileSync(join(root, "scripts/huge"), ""), join(root, "scripts/huge")), 600 * 1024 * 1024);
  for (const [name, why] of [
    ["pipe", /no regular file/],
    ["zero", /no regular file/],
    ["below", /no regular file/],
    ["huge", /too large: 600 MB/],
    ["missing", /is not there/],
  ] as const) {
    expect(files().readText(name)).toMatchObject({ what: expect.stringMatching(why) });
    expect(files().open(name)).toMatchObject({ what: expect.stringMatching(why) });
  }
  expect(files().writeText("pipe", "x")?.what).toMatch(/no regular file/);
  expect(files(true).writeText("zero", "x")?.what).toMatch(/no regular file/);
});
