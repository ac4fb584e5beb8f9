/** The product's sources, tests left out, for rules that no lint knows. */
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";

const src = join(__dirname, "../../src");

export interface Source {
  /** From src on. */
  file: string;
  name: string;
  text: string;
}

/** @param folder of src; all of it unless told. */
export const sourcesIn = (folder = ""): Source[] =>
  readdirSync(join(src, folder), { recursive: true, withFileTypes: true })
    .filter((f) => f.isFile() && /(?<!\.test)\.tsx?$/.test(f.name))
    .map((f) => {
      const path = join(f.parentPath, f.name);
      return { file: path.slice(src.length + 1), name: f.name, text: readFileSync(path, "utf8") };
    });
