"use client";

import { NativeSelect, Select } from "@mantine/core";
import { memo, useMemo } from "react";
import { COLUMN_MEANINGS, MEANING_TITLES, type ColumnMeaning, type Mapping } from "@/core/exchange/patchColumns";
import { choiceKey, type TypeChoice } from "@/core/exchange/patchTable";
import type { Table } from "@/core/exchange/tableText";
import { footprint } from "@/core/fixture/type";
import { allTypes } from "@/ui/places/rig/library/choices";
import classes from "./Import.module.css";

const PREVIEW = 6;
const MEANINGS = COLUMN_MEANINGS.map((m) => ({ value: m, label: MEANING_TITLES[m] }));

/** The first rows, with what each column is taken for above it. Not drawn again while rows are read. */
export const Preview = memo(function Preview({
  table,
  mapping,
  onMeaning,
}: {
  table: Table;
  mapping: Mapping;
  onMeaning(i: number, value: ColumnMeaning): void;
}) {
  return (
    <div className={classes.preview}>
      <table>
        <thead>
          <tr>
            {mapping.columns.map((value, i) => (
              <th key={i}>
                <NativeSelect
                  size="xs"
                  w={126}
                  aria-label={`Meaning of column ${i + 1}`}
                  value={value}
                  onChange={(e) => onMeaning(i, e.currentTarget.value as ColumnMeaning)}
                  data={MEANINGS}
                />
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {table.rows.slice(0, PREVIEW).map((row, r) => (
            <tr key={r} data-titles={r === mapping.titleRow - 1} data-above={r < mapping.titleRow - 1}>
              {mapping.columns.map((value, i) => (
                <td key={i} data-unused={value === "ignore"}>
                  {row[i] ?? ""}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
});

/** Each maker, model and mode of the table, and what of the library it is taken for. */
export const TypeMatches = memo(function TypeMatches({
  choices,
  show,
  onMatch,
}: {
  choices: readonly TypeChoice[];
  show: Parameters<typeof allTypes>[0];
  onMatch(choice: TypeChoice, match: TypeChoice["match"]): void;
}) {
  const data = useMemo(
    () =>
      allTypes(show).flatMap((t) =>
        t.modes.map((m) => ({
          value: `${t.id}|${m.name}`,
          label: `${t.maker} ${t.model} · ${m.name} (${footprint(m)} ch)`,
        })),
      ),
    [show],
  );
  return (
    <ul className={classes.types}>
      {choices.slice(0, 200).map((c) => (
        <li key={choiceKey(c.maker, c.model, c.mode)} data-missing={c.match === null}>
          <span>
            {[c.maker, c.model, c.mode].filter(Boolean).join(", ") || "no model"}{" "}
            <span className="muted">× {c.rows}</span>
          </span>
          <Select
            size="xs"
            searchable
            clearable
            placeholder="not in the library: left out"
            aria-label={`Type for ${c.model || "rows without a model"}`}
            value={c.match ? `${c.match.type}|${c.match.mode}` : null}
            data={data}
            onChange={(v) => onMatch(c, v ? { type: v.split("|")[0]!, mode: v.split("|")[1]! } : null)}
          />
        </li>
      ))}
    </ul>
  );
});
