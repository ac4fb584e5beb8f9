"use client";

import { ActionIcon, Button, Checkbox, FileButton, Group, Modal, Text, TextInput } from "@mantine/core";
import { IconPlus, IconX } from "@tabler/icons-react";
import { useState } from "react";
import { deleteOfDeck, recordMacro } from "@/core/deck/intents";
import { waitOf } from "@/core/deck/macro";
import { readLine } from "@/core/command/read";
import { sayReading } from "@/core/desk/perform";
import { EMPTY_HISTORY } from "@/core/show/history";
import { isRefusal, refusalText } from "@/core/show/refusal";
import { macrosByNumber } from "@/core/show/world";
import { lineText } from "@/session/lines";
import { saveFile } from "../parts/saveFile";
import { capital } from "../parts/words";
import { useSession, useShow } from "../useSession";
import classes from "./Macros.module.css";

/** What a draft of a macro is. */
interface Draft {
  number: number;
  name: string;
  lines: string[];
}
const MOST_BYTES = 500_000;
const MOST_LINES = 1000;

/** Macros: made from what was just done or written line by line, each told before; run, carried as text. */
export function MacrosDialog({ opened, onClose }: { opened: boolean; onClose(): void }) {
  // Kept while it is closed: what was written is not lost.
  const [draft, setDraft] = useState<Draft | null>(null);
  return (
    <Modal opened={opened} onClose={onClose} title="Macros" size={980} centered>
      <Macros draft={draft} setDraft={setDraft} />
    </Modal>
  );
}

function Macros({ draft, setDraft }: { draft: Draft | null; setDraft(draft: Draft | null): void }) {
  const session = useSession();
  const world = useShow((s) => s.world);
  const done = useShow((s) => s.lines);
  const macros = macrosByNumber(world.show);
  const free = (macros.at(-1)?.number ?? 0) + 1;
  const [at, setAt] = useState(0);
  const [picking, setPicking] = useState(false);
  const [picked, setPicked] = useState<ReadonlySet<number>>(new Set());
  const shown: Draft = draft ?? macros[0] ?? { number: free, name: "", lines: [""] };
  const change = (next: Partial<Draft>) => setDraft({ ...shown, lines: [...shown.lines], ...next });
  const setLine = (k: number, text: string) => change({ lines: shown.lines.map((l, i) => (i === k ? text : l)) });
  const read = (line: string): { says: string; wrong: boolean } => {
    if (line.trim() === "") return { says: "", wrong: false };
    const seconds = waitOf(line);
    if (seconds !== undefined)
      return { says: `waits ${seconds} s; edits after it are a step of their own`, wrong: false };
    const found = readLine(line, session.context());
    if (found === undefined) return { says: "a comment", wrong: false };
    if (isRefusal(found)) return { says: `As things stand: ${refusalText(found)}`, wrong: true };
    return { says: sayReading({ world, history: EMPTY_HISTORY }, found), wrong: false };
  };
  const says = read(shown.lines[at] ?? "");
  const save = (of: Draft) => {
    const lines = of.lines.map((l) => l.trim()).filter(Boolean);
    if (session.act([recordMacro.of({ number: of.number, name: of.name || `Macro ${of.number}`, lines })])) return;
    setDraft(null);
  };
  const saved = macros.find((m) => m.number === shown.number);
  const changed =
    draft !== null &&
    JSON.stringify({ ...draft }) !==
      JSON.stringify(saved && { number: saved.number, name: saved.name, lines: saved.lines });
  const take = async (file: File | null) => {
    if (!file) return;
    if (file.size > MOST_BYTES) return session.tell(`${file.name} is too large to be a macro`, "refused");
    const lines = (await file.text())
      .split(/\r?\n/)
      .filter((l) => l.trim() !== "")
      .slice(0, MOST_LINES);
    if (lines.length === 0) return session.tell(`${file.name} has no lines`, "refused");
    setDraft({ number: free, name: file.name.replace(/\.comet$|\.txt$/i, ""), lines });
    setAt(0);
  };
  return (
    <div className={classes.macros}>
      <section className={classes.index} aria-label="All macros">
        <ul>
          {macros.map((m) => (
            <li key={m.id}>
              <button
                type="button"
                aria-pressed={m.number === shown.number}
                onClick={() => (setDraft({ number: m.number, name: m.name, lines: [...m.lines] }), setAt(0))}
              >
                <span className="num">{m.number}</span> {m.name}
              </button>
            </li>
          ))}
        </ul>
        <Button
          size="compact-sm"
          variant="default"
          onClick={() => (setDraft({ number: free, name: "", lines: [""] }), setAt(0))}
        >
          New macro
        </Button>
        <FileButton
          onChange={(f) => void take(f)}
          accept=".comet,.txt,text/plain"
          inputProps={{ "aria-label": "Macro file" }}
        >
          {(props) => (
            <Button {...props} size="compact-sm" variant="default">
              Bring in from a file
            </Button>
          )}
        </FileButton>
      </section>
      <section className={classes.editor} aria-label={`Macro ${shown.number}`}>
        <Group gap="xs">
          <span className="num">{shown.number}</span>
          <TextInput
            size="xs"
            w={220}
            aria-label="Name of the macro"
            placeholder="name"
            value={shown.name}
            maxLength={200}
            onChange={(e) => change({ name: e.currentTarget.value })}
          />
          <Button
            size="compact-sm"
            variant={picking ? "light" : "default"}
            aria-pressed={picking}
            onClick={() => setPicking(!picking)}
          >
            From what was just done
          </Button>
        </Group>
        {picking && (
          <div className={classes.done}>
            {done.length === 0 && <Text c="dimmed">Nothing was done in this window yet.</Text>}
            {done.map((line, k) => (
              <Checkbox
                key={k}
                size="xs"
                label={lineText(line)}
                checked={picked.has(k)}
                onChange={(e) => {
                  const next = new Set(picked);
                  if (e.currentTarget.checked) next.add(k);
                  else next.delete(k);
                  setPicked(next);
                }}
              />
            ))}
            <Button
              mt="xs"
              size="compact-xs"
              disabled={picked.size === 0}
              onClick={() => {
                const lines = [...picked].sort((a, b) => a - b).map((k) => lineText(done[k]!));
                change({ lines: [...shown.lines.filter((l) => l.trim() !== ""), ...lines] });
                setPicked(new Set());
                setPicking(false);
              }}
            >
              Put these lines in
            </Button>
          </div>
        )}
        <div className={classes.lines}>
          {shown.lines.map((line, k) => (
            <div key={k} className={classes.line} data-wrong={line.trim() !== "" && read(line).wrong}>
              <span>{k + 1}</span>
              <input
                value={line}
                aria-label={`Line ${k + 1}`}
                spellCheck={false}
                autoComplete="off"
                onFocus={() => setAt(k)}
                onChange={(e) => (setAt(k), setLine(k, e.currentTarget.value))}
                onKeyDown={(e) => {
                  if (e.key === "Enter") {
                    e.preventDefault();
                    const lines = [...shown.lines.slice(0, k + 1), "", ...shown.lines.slice(k + 1)];
                    change({ lines });
                    setAt(k + 1);
                    requestAnimationFrame(() =>
                      document.querySelector<HTMLInputElement>(`[aria-label="Line ${k + 2}"]`)?.focus(),
                    );
                  }
                  if (e.key === "Backspace" && line === "" && shown.lines.length > 1) {
                    e.preventDefault();
                    change({ lines: shown.lines.filter((_, i) => i !== k) });
                    requestAnimationFrame(() =>
                      document.querySelector<HTMLInputElement>(`[aria-label="Line ${Math.max(1, k)}"]`)?.focus(),
                    );
                  }
                }}
              />
              <ActionIcon
                variant="subtle"
                color="gray"
                size="sm"
                aria-label={`Take line ${k + 1} out`}
                disabled={shown.lines.length === 1}
                onClick={() => change({ lines: shown.lines.filter((_, i) => i !== k) })}
              >
                <IconX size={14} />
              </ActionIcon>
            </div>
          ))}
          <div>
            <Button
              size="compact-xs"
              variant="subtle"
              color="gray"
              leftSection={<IconPlus size={13} />}
              onClick={() => change({ lines: [...shown.lines, ""] })}
            >
              line
            </Button>
          </div>
        </div>
        <p className={classes.says} data-wrong={says.wrong} data-testid="macro-says">
          {says.says
            ? `${capital(says.says)}${says.says.endsWith(".") ? "" : "."}`
            : "Lines of the language, run in order; wait 2 holds for 2 s of stage time."}
        </p>
        <Group gap="xs">
          <Button size="compact-md" disabled={shown.lines.every((l) => l.trim() === "")} onClick={() => save(shown)}>
            {saved ? "Save" : `Record as macro ${shown.number}`}
          </Button>
          <Button
            size="compact-md"
            variant="default"
            disabled={!saved || changed}
            onClick={() => saved && void session.run(`macro ${saved.number}`)}
          >
            Run
          </Button>
          <Button
            size="compact-md"
            variant="default"
            onClick={() =>
              saveFile(
                `${shown.name || `macro ${shown.number}`}.comet`,
                new TextEncoder().encode(`${shown.lines.join("\n")}\n`),
                "text/plain",
              )
            }
          >
            Save as text
          </Button>
          <Button
            size="compact-md"
            variant="subtle"
            color="red"
            disabled={!saved}
            onClick={() => saved && (session.act([deleteOfDeck.of({ what: "macro", id: saved.id })]), setDraft(null))}
          >
            Delete
          </Button>
        </Group>
      </section>
    </div>
  );
}
