"use client";

import { Button, Checkbox, FileButton, Group, Modal, Text, TextInput } from "@mantine/core";
import { IconPlayerPlay } from "@tabler/icons-react";
import { useState } from "react";
import { deleteOfDeck, recordMacro } from "@/core/deck/intents";
import { waitOf } from "@/core/deck/macro";
import { readLine } from "@/core/command/read";
import { sayReading } from "@/core/desk/perform";
import { EMPTY_HISTORY } from "@/core/show/change/history";
import { isRefusal, refusalText } from "@/core/show/refusal";
import { macroUses } from "@/core/deck/macroUses";
import type { Macro } from "@/core/show/deckSchema";
import { macrosByNumber } from "@/core/show/world";
import { linesDone, lineText } from "@/session/lines";
import { saveFile } from "@/ui/base/files/saveFile";
import { capital } from "@/ui/base/typed/capital";
import { runMacro } from "@/ui/show/playing/runMacro";
import { useSession, useShow } from "@/ui/show/useSession";
import { MacroLines } from "./MacroLines";
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
  const [deleting, setDeleting] = useState<string | null>(null);
  /** Lines that somebody wants recorded although they cannot be done now. */
  const [sure, setSure] = useState<string | null>(null);
  const [picking, setPicking] = useState(false);
  const [picked, setPicked] = useState<ReadonlySet<number>>(new Set());
  const shown: Draft = draft ?? macros[0] ?? { number: free, name: "", lines: [""] };
  const change = (next: Partial<Draft>) => setDraft({ ...shown, lines: [...shown.lines], ...next });
  const read = (line: string): { says: string; wrong: boolean } => {
    if (line.trim() === "") return { says: "", wrong: false };
    const seconds = waitOf(line);
    if (seconds !== undefined)
      return { says: `waits ${seconds} s; edits after it are a step of their own`, wrong: false };
    const found = readLine(line, session.context());
    if (found === undefined) return { says: "a comment", wrong: false };
    if (isRefusal(found)) return { says: `Now: ${refusalText(found)}`, wrong: true };
    return { says: sayReading({ world, history: EMPTY_HISTORY }, found), wrong: false };
  };
  const says = read(shown.lines[at] ?? "");
  const wrong = shown.lines.flatMap((line, k) => (read(line).wrong ? [k + 1] : []));
  const asked = sure === shown.lines.join("\n");
  /** What was recorded stays open: the next edit is of it. */
  const save = (of: Draft) => {
    if (wrong.length > 0 && !asked) return setSure(shown.lines.join("\n"));
    const kept = { ...of, name: of.name || `Macro ${of.number}`, lines: of.lines.map((l) => l.trim()).filter(Boolean) };
    if (!session.act([recordMacro.of(kept)])) setDraft(kept);
  };
  const saved = macros.find((m) => m.number === shown.number);
  const gone = saved && deleting === saved.id ? macroUses(world.show, saved) : null;
  const remove = (of: Macro) => {
    if (macroUses(world.show, of) !== null && deleting !== of.id) return setDeleting(of.id);
    if (!session.act([deleteOfDeck.of({ what: "macro", id: of.id })])) setDraft(null);
  };
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
            From recent actions
          </Button>
          <span style={{ flex: 1 }} />
          <Button
            size="compact-sm"
            variant="default"
            leftSection={<IconPlayerPlay size={14} aria-hidden />}
            disabled={!saved || changed}
            title={changed ? "Record or save it first: what runs is what was recorded" : "Runs it now"}
            onClick={() => saved && runMacro(session, saved.id)}
          >
            Run
          </Button>
        </Group>
        {picking && (
          <div className={classes.done}>
            {done.length === 0 && <Text c="dimmed">No actions in this window yet.</Text>}
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
                const lines = [...picked].sort((a, b) => a - b).flatMap((k) => linesDone(done[k]!));
                change({ lines: [...shown.lines.filter((l) => l.trim() !== ""), ...lines] });
                setPicked(new Set());
                setPicking(false);
              }}
            >
              Insert these lines
            </Button>
          </div>
        )}
        <MacroLines lines={shown.lines} wrong={wrong} onLines={(lines) => change({ lines })} onAt={setAt} />
        <p className={classes.says} data-wrong={says.wrong} data-testid="macro-says">
          {says.says
            ? `${capital(says.says)}${says.says.endsWith(".") ? "" : "."}`
            : "Lines of the language, run in order; wait 2 holds for 2 s of stage time."}
        </p>
        {wrong.length > 0 && asked && (
          <p className={classes.says} data-wrong data-testid="macro-sure">
            {wrong.length === 1 ? `Line ${wrong[0]} cannot` : `Lines ${wrong.join(", ")} cannot`} be done now; the macro
            would stop there. Press again to save anyway.
          </p>
        )}
        {saved && gone !== null && (
          <p className={classes.says} data-wrong data-testid="macro-used">
            Macro {saved.number} is run by {gone}; they would then run nothing. Press again to delete it anyway.
          </p>
        )}
        <Group gap="xs">
          <Button size="compact-md" disabled={shown.lines.every((l) => l.trim() === "")} onClick={() => save(shown)}>
            {saved ? "Save" : `Record as macro ${shown.number}`}
            {wrong.length > 0 && asked ? " anyway" : ""}
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
            onClick={() => saved && remove(saved)}
          >
            {gone === null ? "Delete" : "Delete anyway"}
          </Button>
        </Group>
      </section>
    </div>
  );
}
