"use client";

import { Button, Drawer, Group, SegmentedControl, TextInput } from "@mantine/core";
import { useEffect, useState } from "react";
import { COMMANDS } from "@/core/command/read";
import { SETTINGS } from "@/core/command/settings";
import { shownSyntax } from "@/core/command/shown";
import { DEMO_ID } from "@/core/show/showId";
import { putIntoAsk } from "@/ui/show/foresight/askInput";
import { capital } from "@/ui/base/typed/capital";
import { openPath } from "@/ui/features/start/useStart";
import { useSession } from "@/ui/show/useSession";
import { MeaningPicture } from "./MeaningPicture";
import { MEANINGS } from "./meanings";
import { PLAIN } from "./plain";
import classes from "./Handbook.module.css";

const ROWS = [
  ...PLAIN.map(({ typed, means, about }) => ({
    chapter: "To begin with",
    syntax: means,
    about: `${about}. In plain words:`,
    example: typed,
  })),
  ...COMMANDS.map(({ chapter, syntax, about, example }) => ({ chapter, syntax, about, example })),
  ...SETTINGS.map(({ syntax, about, example }) => ({ chapter: "Settings in a holding line", syntax, about, example })),
];

const PARTS = ["commands", "meanings"] as const;
type Part = (typeof PARTS)[number];

const has = (words: readonly string[], text: string): boolean => words.every((w) => text.toLowerCase().includes(w));

/** Opens the handbook with what is to be found in it. */
export const openHandbook = (wanted = ""): void =>
  void dispatchEvent(new CustomEvent("bold-comet-handbook", { detail: wanted }));

/**
 * Beside the work: every command with what it does and an example, and what the words mean, with pictures. An example
 * that is pressed stands in the Ask bar.
 */
export function Handbook({ opened, onClose, onOpen }: { opened: boolean; onClose(): void; onOpen(): void }) {
  const isDemo = useSession().id === DEMO_ID;
  const [wanted, setWanted] = useState("");
  const [part, setPart] = useState<Part>("commands");
  useEffect(() => {
    const open = (event: Event) => {
      const asked: unknown = event instanceof CustomEvent ? event.detail : "";
      if (typeof asked === "string" && asked !== "") {
        setWanted(asked);
        setPart(MEANINGS.some((m) => m.title === asked) ? "meanings" : "commands");
      }
      onOpen();
    };
    addEventListener("bold-comet-handbook", open);
    return () => removeEventListener("bold-comet-handbook", open);
  }, [onOpen]);
  const words = wanted.toLowerCase().split(/\s+/).filter(Boolean);
  const rows = ROWS.filter((row) => has(words, `${row.syntax} ${row.about} ${row.example} ${row.chapter}`));
  const meanings = MEANINGS.filter((m) => has(words, `${m.title} ${m.about} ${m.example}`));
  const counts = { commands: rows.length, meanings: meanings.length };
  const chapters = [...new Set(rows.map((r) => r.chapter))];
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
        placeholder="Find a word, such as: spread, aim, fade"
        aria-label="Find in the handbook"
        value={wanted}
        onChange={(e) => setWanted(e.currentTarget.value)}
        data-autofocus
      />
      <SegmentedControl
        size="xs"
        mt={8}
        fullWidth
        value={part}
        onChange={setPart}
        data={PARTS.map((value) => ({ value, label: `${capital(value)} ${counts[value]}` }))}
        aria-label="Part of the handbook"
      />
      <Group gap={8} mt={8}>
        <Button size="compact-sm" variant="default" onClick={() => openPath(isDemo ? "worth-trying" : "first-steps")}>
          {isDemo ? "Show what is worth trying" : "Show the first steps"}
        </Button>
      </Group>
      {counts[part] === 0 && <p className="muted">Nothing here says that. Try a single word, such as: cue</p>}
      {part === "meanings"
        ? meanings.map((m) => (
            <section key={m.title} className={classes.chapter} aria-label={m.title}>
              <h4>{m.title}</h4>
              <p>{m.about}</p>
              <MeaningPicture of={m.picture} />
              <Example line={m.example} />
            </section>
          ))
        : chapters.map((chapter) => (
            <section key={chapter} className={classes.chapter} aria-label={chapter}>
              <h3>{chapter}</h3>
              {rows
                .filter((r) => r.chapter === chapter)
                .map(({ syntax, about, example }) => (
                  <article key={syntax}>
                    <code>{shownSyntax(syntax)}</code>
                    <p>{capital(about)}</p>
                    <Example line={example} />
                  </article>
                ))}
            </section>
          ))}
    </Drawer>
  );
}

function Example({ line }: { line: string }) {
  return (
    <button type="button" title="Put it into the Ask bar" onClick={() => putIntoAsk(line)}>
      {line}
    </button>
  );
}
