"use client";

import { Drawer, TextInput } from "@mantine/core";
import { useEffect, useState } from "react";
import { COMMANDS } from "@/core/command/read";
import { SETTINGS } from "@/core/command/settings";
import { shownSyntax } from "@/core/command/shown";
import { askInput } from "../ask/askInput";
import { capital } from "../parts/words";
import classes from "./Shell.module.css";

const ROWS = [
  ...COMMANDS.map(({ chapter, syntax, about, example }) => ({ chapter, syntax, about, example })),
  ...SETTINGS.map(({ syntax, about, example }) => ({ chapter: "Settings in a holding line", syntax, about, example })),
];

/** Every command with its meaning and an example, beside the work. An example that is pressed stands in the Ask bar. */
export function Handbook({ opened, onClose, onOpen }: { opened: boolean; onClose(): void; onOpen(): void }) {
  const [wanted, setWanted] = useState("");
  useEffect(() => {
    addEventListener("bold-comet-handbook", onOpen);
    return () => removeEventListener("bold-comet-handbook", onOpen);
  }, [onOpen]);
  const words = wanted.toLowerCase().split(/\s+/).filter(Boolean);
  const found = ROWS.filter((row) =>
    words.every((w) => `${row.syntax} ${row.about} ${row.example} ${row.chapter}`.toLowerCase().includes(w)),
  );
  const chapters = [...new Set(found.map((r) => r.chapter))];
  const take = (example: string) => {
    const field = askInput();
    if (!field) return;
    // As if it were typed, so that the Ask bar says what it would do.
    Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value")!.set!.call(field, example);
    field.dispatchEvent(new Event("input", { bubbles: true }));
    field.focus();
  };
  return (
    <Drawer
      opened={opened}
      onClose={onClose}
      position="right"
      size={420}
      title="Handbook"
      styles={{ inner: { top: 48, bottom: 0 }, content: { height: "100%" } }}
      withOverlay={false}
      lockScroll={false}
      trapFocus={false}
      closeOnClickOutside={false}
    >
      <TextInput
        placeholder="Find a command, such as: spread, aim, fade"
        aria-label="Find in the handbook"
        value={wanted}
        onChange={(e) => setWanted(e.currentTarget.value)}
        data-autofocus
      />
      {found.length === 0 && <p className="muted">No command says that. Try a single word, such as: cue</p>}
      {chapters.map((chapter) => (
        <section key={chapter} className={classes.chapter} aria-label={chapter}>
          <h3>{chapter}</h3>
          {found
            .filter((r) => r.chapter === chapter)
            .map(({ syntax, about, example }) => (
              <article key={syntax}>
                <code>{shownSyntax(syntax)}</code>
                <p>{capital(about)}</p>
                <button type="button" title="Put it into the Ask bar" onClick={() => take(example)}>
                  {example}
                </button>
              </article>
            ))}
        </section>
      ))}
    </Drawer>
  );
}
