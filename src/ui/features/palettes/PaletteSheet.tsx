"use client";

import { Checkbox, Group, Text } from "@mantine/core";
import { useCallback, useMemo, useState } from "react";
import { attributesKnown } from "@/core/fixture/attribute";
import { rangeOf } from "@/core/fixture/parameters";
import { typedNumber } from "@/core/fixture/typedNumber";
import { exceptPalette } from "@/core/palette/intents";
import { saidBy } from "@/core/palette/lookup";
import { writePalette } from "@/core/palette/writeIntent";
import { resolveEntry } from "@/core/program/resolve";
import { allTargets, targetsOf } from "@/core/show/model";
import type { Palette, PaletteEntry } from "@/core/show/paletteSchema";
import { fixturesByNumber } from "@/core/show/world";
import { clamp, plain } from "@/core/units/units";
import { valueText } from "@/ui/show/held/summary";
import { typedAmounts } from "@/ui/base/typed/typed";
import { normal, type Range } from "@/ui/base/sheet/range";
import { Sheet } from "@/ui/base/sheet/Sheet";
import type { Look } from "@/ui/base/sheet/looks";
import { inSections, rowsIn, shownColumns, startView, type SheetColumn } from "@/ui/base/sheet/view";
import { REMEMBERED } from "@/ui/base/preferences/registry";
import { useRemembered } from "@/ui/base/preferences/remembered";
import { useSession, useShow } from "@/ui/show/useSession";
import { FIXTURE, valueColumns } from "@/ui/base/sheet/valueColumns";

const START = startView(valueColumns(), true);
const NOBODY: ReadonlySet<string> = new Set();
interface Row {
  id: string;
  number: number;
  name: string;
  type: string;
}

/** What a palette says, fixtures by parameters: typed into with nothing held and the stage left to follow. */
export function PaletteSheet({ palette }: { palette: Palette }) {
  const session = useSession();
  const show = useShow((s) => s.world.show);
  const [kept, setView] = useRemembered(REMEMBERED.paletteView);
  const view = kept ?? START;
  const [type, setType] = useState(false);
  const { id } = palette;
  const { rows, columns } = useMemo(() => {
    const attributes = new Set<string>();
    const found = fixturesByNumber(show).filter((f) => {
      let says = false;
      for (const { key } of allTargets(show, f.id)) {
        const said = saidBy(show, id, key);
        if (!said) continue;
        says = true;
        attributes.add(said.attribute);
      }
      return says;
    });
    const own = valueColumns().filter((c) => c.id === FIXTURE.id || attributes.has(c.id));
    return {
      rows: found.map(({ id: f, number, name, type: t }): Row => ({ id: f, number, name, type: t })),
      columns: shownColumns(own, view).map((c): SheetColumn => (c.fixed ? { ...c, width: 150 } : c)),
    };
  }, [show, id, view]);
  const lines = useMemo(
    () =>
      inSections(
        rows,
        (r) => r.type,
        (t) => show.types[t]?.model ?? t,
      ),
    [rows, show.types],
  );
  const inSight = useMemo(() => rowsIn(lines), [lines]);
  const look = useCallback(
    (row: Row, column: SheetColumn): Look => {
      if (column.id === FIXTURE.id) return { content: `${row.number} ${row.name}` };
      const numbers: number[] = [];
      const froms = new Set<string>();
      const [first] = targetsOf(show, row.id, column.id);
      for (const { key, spec } of targetsOf(show, row.id, column.id)) {
        const said = saidBy(show, id, key);
        const means = said && resolveEntry(show, key, spec, { attribute: spec.head, value: { palette: id } });
        if (!said || !means || said.attribute !== column.id) continue;
        numbers.push(means.value);
        froms.add(said.from);
      }
      if (numbers.length === 0 || !first) return { content: "" };
      const own = froms.has("own") && palette.width !== "each";
      return {
        content: (
          <i
            data-form={own ? "held" : undefined}
          >{`${own ? "• " : ""}${valueText(Math.min(...numbers), Math.max(...numbers), column.id, first)}`}</i>
        ),
        title: own
          ? "An exception of this fixture"
          : froms.has("type")
            ? "What its type follows"
            : froms.has("any")
              ? "For any fixture"
              : "Its own",
      };
    },
    [show, id, palette.width],
  );
  const taken = (range: Range) => {
    const { r1, r2, c1, c2 } = normal(range);
    return {
      fixtures: inSight.slice(r1, r2 + 1).map((r) => r.id),
      attributes: columns
        .slice(c1, c2 + 1)
        .map((c) => c.id)
        .filter((name) => attributesKnown().some((a) => a.name === name)),
    };
  };
  const put = (cells: readonly (readonly [fixture: string, attribute: string, value: number])[]) => {
    const values: Record<string, PaletteEntry> = {};
    for (const [fixture, attribute, value] of cells)
      for (const { key } of targetsOf(show, fixture, attribute)) values[key] = { attribute, value };
    if (Object.keys(values).length > 0) session.act([writePalette.of({ palette: id, values, type })]);
  };
  const typed = (text: string, range: Range) => {
    const { relative, amounts } = typedAmounts(text);
    const { fixtures, attributes } = taken(range);
    const cells = fixtures.flatMap((fixture) =>
      attributes.flatMap((attribute) => {
        const [target] = targetsOf(show, fixture, attribute);
        const number = typedNumber(attribute, amounts);
        if (!target || number === undefined) return [];
        const now = relative
          ? resolveEntry(show, target.key, target.spec, { attribute, value: { palette: id } })?.value
          : 0;
        return now === undefined ? [] : [[fixture, attribute, clamp(now + number, ...rangeOf(target.fn))] as const];
      }),
    );
    if (cells.length === 0) session.tell(`"${text}" is no number for these cells`, "refused");
    put(cells);
  };
  return (
    <div>
      <Group gap="sm" mb={6}>
        <Text size="sm" c="dimmed">
          Type into cells to change the palette itself; cues that use it change at once. • marks an exception; Del makes
          it follow again.
        </Text>
        <Checkbox
          size="xs"
          label="for the whole type"
          checked={type}
          onChange={(e) => setType(e.currentTarget.checked)}
        />
      </Group>
      <div style={{ height: 250, display: "flex" }}>
        <Sheet
          label={`Values of palette ${palette.number}`}
          columns={columns}
          lines={lines}
          lead={1}
          view={view}
          setView={setView}
          chosen={NOBODY}
          look={look}
          onToggle={() => undefined}
          onFill={(range, to) => {
            const { attributes } = taken(range);
            const from = inSight[range.r2];
            const onto = inSight.slice(range.r2 + 1, to + 1);
            put(
              onto.flatMap((row) =>
                attributes.flatMap((a) => {
                  const target = from && targetsOf(show, from.id, a)[0];
                  const means =
                    target && resolveEntry(show, target.key, target.spec, { attribute: a, value: { palette: id } });
                  return means ? [[row.id, a, means.value] as const] : [];
                }),
              ),
            );
          }}
          editFrom={() => ""}
          onPut={(text, range) => text.trim() && typed(text.trim(), range)}
          onEmpty={(range) =>
            session.act([exceptPalette.of({ palette: id, items: taken(range).fixtures, own: false })])
          }
          copied={(range) => {
            const { fixtures, attributes } = taken(range);
            return fixtures
              .map((f) =>
                attributes
                  .map((a) => {
                    const [t] = targetsOf(show, f, a);
                    const means = t && resolveEntry(show, t.key, t.spec, { attribute: a, value: { palette: id } });
                    return means ? plain(means.value, 4) : "";
                  })
                  .join("\t"),
              )
              .join("\n");
          }}
          onPaste={(text, range) => {
            const { r1, c1 } = normal(range);
            put(
              text
                .trimEnd()
                .split(/\r?\n/)
                .slice(0, 5000)
                .flatMap((line, k) =>
                  line.split("\t").flatMap((cell, j) => {
                    const [row, column] = [inSight[r1 + k], columns[c1 + j]];
                    const number = column && typedNumber(column.id, cell);
                    return row && column && column.id !== FIXTURE.id && number !== undefined
                      ? [[row.id, column.id, number] as const]
                      : [];
                  }),
                ),
            );
          }}
          nameOf={(row, column, count) =>
            `${column.title} of ${count > 1 ? `${count} fixtures` : `fixture ${row.number}`}`
          }
          empty={<p className="muted">It has no values for the patched fixtures.</p>}
        />
      </div>
    </div>
  );
}
