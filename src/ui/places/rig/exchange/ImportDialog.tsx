"use client";

import {
  Button,
  FileButton,
  Group,
  Modal,
  NumberInput,
  Progress,
  SegmentedControl,
  Select,
  Switch,
  Text,
  Textarea,
} from "@mantine/core";
import { useCallback, useMemo, useRef, useState, type DragEvent } from "react";
import { guessMapping, type ColumnMeaning, type Mapping } from "@/core/exchange/patchColumns";
import { choiceKey, typeChoices, type TypeChoice } from "@/core/exchange/patchTable";
import type { Table } from "@/core/exchange/tableText";
import type { AsciiData } from "@/core/exchange/ascii";
import { isRefusal, refusalText } from "@/core/show/refusal";
import { ENCODINGS, type Encoding } from "@/core/units/encoding";
import { readAside } from "@/session/reader/readAside";
import type { ToReader } from "@/session/reader/messages";
import { ReadingBar } from "@/ui/base/parts/ReadingBar";
import { useSession, useShow } from "@/ui/show/useSession";
import type { GdtfRead } from "@/core/exchange/gdtf/file";
import type { MvrRead } from "@/core/exchange/mvr/read";
import { Preview, TypeMatches } from "./ImportParts";
import { AsciiStep } from "./AsciiStep";
import { GdtfStep } from "./GdtfStep";
import { MvrStep } from "./MvrStep";
import { bringIn } from "./bringIn";
import { useReading } from "./useReading";
import classes from "./Import.module.css";
import { plural } from "@/core/units/plural";

/** A patch from a table: choose it, look at what its columns mean, match its types, bring it in. */
export function ImportDialog({ opened, onClose }: { opened: boolean; onClose(): void }) {
  return (
    <Modal
      opened={opened}
      onClose={onClose}
      title="Import a patch, a rig, a fixture type or lighting data"
      size={1080}
      centered
    >
      {opened && <Import onClose={onClose} />}
    </Modal>
  );
}

function Import({ onClose }: { onClose(): void }) {
  const [source, setSource] = useState<{
    name: string;
    table: Table;
    encoding: Encoding;
    file: File | undefined;
  } | null>(null);
  const [ascii, setAscii] = useState<{ name: string; data: AsciiData } | null>(null);
  const [rig, setRig] = useState<{ name: string; read: MvrRead } | null>(null);
  const [type, setType] = useState<{ name: string; read: GdtfRead } | null>(null);
  const [share, setShare] = useState(0);
  const [reading, setReading] = useState<AbortController | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const types = useShow((s) => s.world.show.types);
  /** Reads beside the page. @returns undefined where that gave nothing: then it was said why. */
  const aside = async <K extends "rig" | "text">(name: string, asked: Extract<ToReader, { kind: K }>) => {
    const stop = new AbortController();
    setTrouble(null);
    setShare(0);
    setReading(stop);
    const found = await readAside<K>(asked, setShare, stop.signal);
    setReading(null);
    if (found === "stopped") return void setTrouble(`${name} was not read to its end; nothing was taken in`);
    return isRefusal(found) ? void setTrouble(`${name}: ${refusalText(found)}`) : found;
  };
  const take = async (name: string, text: string | File, encoding?: Encoding) => {
    const found = await aside<"text">(name, { kind: "text", text, ...(encoding ? { encoding } : {}) });
    if (!found || isRefusal(found)) return;
    if ("ascii" in found) setAscii({ name, data: found.ascii });
    else
      setSource({
        name,
        table: found.table,
        encoding: found.encoding,
        file: typeof text === "string" ? undefined : text,
      });
  };
  const takeZip = async (file: File) => {
    const found = await aside<"rig">(file.name, { kind: "rig", file, types });
    if (!found || isRefusal(found)) return;
    if ("fixtures" in found) setRig({ name: file.name, read: found });
    else setType({ name: file.name, read: found });
  };
  const read = (file: File | null) => {
    if (file) void (/\.(gdtf|mvr)$/i.test(file.name) ? takeZip(file) : take(file.name, file));
  };
  if (reading) return <ReadingBar share={share} onStop={() => reading.abort()} />;
  if (rig) return <MvrStep {...rig} onBack={() => setRig(null)} onClose={onClose} />;
  if (type) return <GdtfStep {...type} onBack={() => setType(null)} onClose={onClose} />;
  if (ascii) return <AsciiStep {...ascii} onBack={() => setAscii(null)} onClose={onClose} />;
  if (source)
    return (
      <MappingStep
        key={source.encoding}
        {...source}
        onEncoding={source.file && ((encoding) => void take(source.name, source.file!, encoding))}
        onBack={() => setSource(null)}
        onClose={onClose}
      />
    );
  const drop = (event: DragEvent) => {
    event.preventDefault();
    read(event.dataTransfer.files[0] ?? null);
  };
  return (
    <div className={classes.drop} onDragOver={(e) => e.preventDefault()} onDrop={drop}>
      <p>
        A table with one fixture a line: CSV or TSV, as spreadsheets and other programs write it. A rig with its types,
        places and scenery (MVR). A fixture type of a maker (GDTF). Or lighting data as text (USITT ASCII): channels,
        groups and cues. Drop the file here, choose it, or paste the lines of a table.
      </p>
      <FileButton
        onChange={read}
        accept=".csv,.tsv,.txt,.asc,.mvr,.gdtf,text/csv,text/tab-separated-values,text/plain"
        inputProps={{ "aria-label": "File to import" }}
      >
        {(props) => (
          <Button {...props} data-autofocus>
            Choose a file
          </Button>
        )}
      </FileButton>
      <Textarea
        aria-label="Lines of a table"
        w="100%"
        placeholder="Number, Name, Model, Mode, Address ..."
        rows={5}
        onPaste={(e) => void take("the pasted table", e.clipboardData.getData("text/plain"))}
      />
      {trouble && (
        <Text c="var(--danger)" role="alert">
          {trouble}
        </Text>
      )}
    </div>
  );
}

function MappingStep({
  name,
  table,
  encoding,
  onEncoding,
  onBack,
  onClose,
}: {
  name: string;
  table: Table;
  encoding: Encoding;
  /** Reads it anew in another encoding; undefined for what was pasted. */
  onEncoding?: ((encoding: Encoding) => void) | undefined;
  onBack(): void;
  onClose(): void;
}) {
  const session = useSession();
  const live = useShow((s) => s.world.show);
  // What is being brought in changes the show: it is read against the show as it was.
  const [show] = useState(live);
  const [mapping, setMapping] = useState<Mapping>(() => guessMapping(table));
  const [how, setHow] = useState<"add" | "update">("add");
  const [byHand, setByHand] = useState<Record<string, TypeChoice["match"]>>({});
  const [running, setRunning] = useState<number | null>(null);
  const stop = useRef(false);
  const choices = useMemo(
    () =>
      typeChoices(show, table, mapping).map((c) => ({
        ...c,
        match: byHand[choiceKey(c.maker, c.model, c.mode)] ?? c.match,
      })),
    [show, table, mapping, byHand],
  );
  const { done, total, result } = useReading(show, table, mapping, choices, how);
  const ready = result?.rows.length ?? 0;
  const start = async () => {
    stop.current = false;
    setRunning(0);
    const all = await bringIn(session, result!.rows, `imports ${name}`, (n) => (setRunning(n), !stop.current));
    setRunning(null);
    if (!all) return;
    const left = result!.leftOut.length;
    session.tell(
      `${plural(ready, "fixture")} from ${name}${left > 0 ? `; ${plural(left, "row")} left out` : ""}. One undo takes it back`,
    );
    onClose();
  };
  const meaning = useCallback(
    (i: number, value: ColumnMeaning) =>
      setMapping((m) => ({
        ...m,
        columns: m.columns.map((c, k) => (k === i ? value : c === value && value !== "ignore" ? "ignore" : c)),
      })),
    [],
  );
  const match = useCallback(
    (c: TypeChoice, found: TypeChoice["match"]) =>
      setByHand((known) => ({ ...known, [choiceKey(c.maker, c.model, c.mode)]: found })),
    [],
  );

  if (running !== null) {
    return (
      <div className={classes.running}>
        <p>
          {running} of {ready} fixtures are ready. They come in together at the end.
        </p>
        <Progress value={(100 * running) / Math.max(1, ready)} aria-label="Import" />
        <Button variant="default" onClick={() => (stop.current = true)}>
          Cancel
        </Button>
      </div>
    );
  }
  return (
    <div className={classes.mapping}>
      <Group gap="md">
        <strong>{name}</strong>
        <NumberInput
          size="xs"
          w={150}
          label="Titles in row (0: none)"
          min={0}
          max={Math.min(99, table.rows.length - 1)}
          value={mapping.titleRow}
          onChange={(v) => typeof v === "number" && setMapping({ ...mapping, titleRow: v })}
        />
        {onEncoding && (
          <Select
            size="xs"
            w={150}
            label="Written in"
            data={[...ENCODINGS]}
            value={encoding}
            allowDeselect={false}
            onChange={(v) => v && onEncoding(v)}
          />
        )}
        <Switch
          size="xs"
          label="Decimal comma"
          checked={mapping.comma}
          onChange={(e) => setMapping({ ...mapping, comma: e.currentTarget.checked })}
        />
        <span className="muted">divided by {table.delimiter === "\t" ? "tabs" : `"${table.delimiter}"`}</span>
        <SegmentedControl
          size="xs"
          ml="auto"
          value={how}
          onChange={(v) => setHow(v)}
          data={[
            { value: "add", label: "Add" },
            { value: "update", label: "Update by number" },
          ]}
        />
      </Group>
      <Preview table={table} mapping={mapping} onMeaning={meaning} />
      <div className={classes.halves}>
        <section>
          <h3>Types</h3>
          <TypeMatches choices={choices} show={show} onMatch={match} />
        </section>
        <section>
          <h3>
            {result
              ? `${plural(ready, "row")} ready, ${result.leftOut.length} left out`
              : `reading: ${done} of ${total}`}
          </h3>
          <ul className={classes.left} data-testid="left-out">
            {result?.leftOut.slice(0, 500).map(({ line, why }) => (
              <li key={line}>
                <span className="num">line {line}</span> {why}
              </li>
            ))}
            {result && result.leftOut.length === 0 && <li className="muted">Every row can come in.</li>}
            {result && result.leftOut.length > 500 && <li className="muted">and {result.leftOut.length - 500} more</li>}
          </ul>
        </section>
      </div>
      <Group justify="flex-end">
        <Button variant="subtle" onClick={onBack}>
          Another table
        </Button>
        <Button onClick={() => void start()} disabled={!result || ready === 0}>
          {how === "add" ? "Add" : "Update"} {plural(ready, "fixture")}
        </Button>
      </Group>
    </div>
  );
}
