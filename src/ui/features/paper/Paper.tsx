"use client";

import { Button, Checkbox, Group, Portal } from "@mantine/core";
import { IconFileText, IconPrinter, IconTableExport, IconTestPipe, IconX } from "@tabler/icons-react";
import { useState } from "react";
import { cueRows, CUE_TITLES } from "@/core/exchange/cueTable";
import { writeShowTest } from "@/core/exchange/showTest";
import { writePatch } from "@/core/exchange/patchTable";
import { familiesOf } from "@/core/palette/families";
import { addressText } from "@/core/show/address";
import { itemText, modelOf } from "@/core/show/model";
import {
  cuesOf,
  effectsByNumber,
  fixturesByNumber,
  groupsByNumber,
  listsByNumber,
  palettesByNumber,
} from "@/core/show/world";
import { LookPicture } from "@/ui/stage/pictures/LookPicture";
import { exportAscii, exportCues } from "@/ui/base/files/exportText";
import { saveFile } from "@/ui/base/files/saveFile";
import { useSession, useShow } from "@/ui/show/useSession";
import classes from "./Paper.module.css";

const SHEETS = ["cues", "patch", "groups", "palettes"] as const;
type SheetName = (typeof SHEETS)[number];
const NAMES: Record<SheetName, string> = {
  cues: "Cue sheet",
  patch: "Patch sheet",
  groups: "Groups",
  palettes: "Palettes and effects",
};
const PICTURE = { width: 84, height: 60 };

/** The show on paper: cue sheet with its looks, patch, groups, palettes; printed, or written as CSV. */
export function Paper({ onClose }: { onClose(): void }) {
  const { show } = useShow((s) => s.world);
  const session = useSession();
  const { id } = session;
  const [chosen, setChosen] = useState<readonly SheetName[]>(["cues"]);
  const [pictures, setPictures] = useState(true);
  const has = (name: SheetName) => chosen.includes(name);
  /** Pictures that are there: what is not yet would be blank on paper. */
  const [drawn, setDrawn] = useState<ReadonlySet<string>>(new Set());
  const cuesOnPaper = has("cues") && pictures ? listsByNumber(show).flatMap((l) => cuesOf(l)) : [];
  const waiting = cuesOnPaper.filter((c) => !drawn.has(c.id)).length;
  const csv = (text: string, what: string) =>
    saveFile(`${show.name || id} ${what}.csv`, new TextEncoder().encode(text), "text/csv");
  const patchNow = fixturesByNumber(show);
  return (
    <Portal>
      <div className={classes.over} data-paper>
        <header className={classes.bar}>
          <strong>On paper</strong>
          <Group gap="md">
            {SHEETS.map((name) => (
              <Checkbox
                key={name}
                size="xs"
                label={NAMES[name]}
                checked={has(name)}
                onChange={(e) =>
                  setChosen(e.currentTarget.checked ? [...chosen, name] : chosen.filter((c) => c !== name))
                }
              />
            ))}
            <Checkbox
              size="xs"
              label="with looks"
              checked={pictures}
              onChange={(e) => setPictures(e.currentTarget.checked)}
            />
          </Group>
          <span className={classes.grow} />
          <Button
            size="compact-sm"
            leftSection={<IconPrinter size={14} />}
            disabled={waiting > 0}
            onClick={() => window.print()}
          >
            {waiting > 0 ? `Drawing ${waiting} looks` : "Print"}
          </Button>
          <Button
            size="compact-sm"
            variant="default"
            leftSection={<IconTableExport size={14} />}
            onClick={() => exportCues(show)}
          >
            Cues as CSV
          </Button>
          <Button
            size="compact-sm"
            variant="default"
            leftSection={<IconTableExport size={14} />}
            onClick={() => csv(writePatch(show), "patch")}
          >
            Patch as CSV
          </Button>
          <Button
            size="compact-sm"
            variant="default"
            leftSection={<IconFileText size={14} />}
            title="Patch, groups and the intensities of cues as USITT ASCII, the open text standard for lighting data"
            onClick={() => {
              const left = exportAscii(show);
              if (left) session.tell(left);
            }}
          >
            As text
          </Button>
          <Button
            size="compact-sm"
            variant="default"
            leftSection={<IconTestPipe size={14} />}
            title="A script that passes while every cue looks as it does now; it opens the show file of this name beside it"
            onClick={() =>
              saveFile(
                `${show.name || id} looks.comet`,
                new TextEncoder().encode(writeShowTest(show, `${show.name || id}.comet.zip`)),
                "text/plain",
              )
            }
          >
            Looks as a show test
          </Button>
          <Button size="compact-sm" variant="default" leftSection={<IconX size={14} />} onClick={onClose}>
            Close
          </Button>
        </header>
        <main className={classes.paper}>
          {has("cues") && (
            <section>
              {listsByNumber(show)
                .filter((l) => cuesOf(l).length > 0)
                .map((list) => (
                  <div key={list.id} className={classes.list}>
                    <h1>
                      {show.name}: list {list.number} {list.name}
                    </h1>
                    <table>
                      <thead>
                        <tr>
                          {pictures && <th>Look</th>}
                          {CUE_TITLES.slice(1).map((t) => (
                            <th key={t}>{t}</th>
                          ))}
                        </tr>
                      </thead>
                      <tbody>
                        {cueRows(show, list).map((row, k) => {
                          const cue = cuesOf(list)[k]!;
                          return (
                            <tr key={cue.id}>
                              {pictures && (
                                <td>
                                  <LookPicture
                                    list={list.id}
                                    cue={cue.id}
                                    {...PICTURE}
                                    onPaper={() => setDrawn((before) => new Set(before).add(cue.id))}
                                    label={`Look of cue ${cue.number} on paper`}
                                  />
                                </td>
                              )}
                              {row.slice(1).map((cell, c) => (
                                <td key={c}>{cell}</td>
                              ))}
                            </tr>
                          );
                        })}
                      </tbody>
                    </table>
                  </div>
                ))}
            </section>
          )}
          {has("patch") && (
            <section>
              <h1>{show.name}: patch</h1>
              <PaperTable
                titles={["Fixture", "Name", "Type", "Mode", "Address", "Place, m", "Note"]}
                rows={patchNow.map((f) => {
                  const { type } = modelOf(show, f);
                  return [
                    String(f.number),
                    f.name,
                    `${type.maker} ${type.model}`,
                    f.mode,
                    f.addresses.map(addressText).join("; ") || "unpatched",
                    [f.place.x, f.place.y, f.place.z].map((v) => v.toFixed(2)).join(" "),
                    f.note,
                  ];
                })}
              />
            </section>
          )}
          {has("groups") && (
            <section>
              <h1>{show.name}: groups</h1>
              <PaperTable
                titles={["Group", "Name", "How many", "Fixtures in their order"]}
                rows={groupsByNumber(show).map((g) => [
                  String(g.number),
                  g.name,
                  String(g.members.length),
                  g.members.map((i) => itemText(show, i)).join(" "),
                ])}
              />
            </section>
          )}
          {has("palettes") && (
            <section>
              <h1>{show.name}: palettes and effects</h1>
              <PaperTable
                titles={["Palette", "Name", "For", "Families"]}
                rows={palettesByNumber(show).map((p) => [String(p.number), p.name, p.width, familiesOf(p).join(", ")])}
              />
              <PaperTable
                titles={["Effect", "Name", "Fixtures", "Voices"]}
                rows={effectsByNumber(show).map((e) => [
                  String(e.number),
                  e.name,
                  e.cast ? `its ${e.cast.length}` : "the selection",
                  String(e.voices.length),
                ])}
              />
            </section>
          )}
        </main>
      </div>
    </Portal>
  );
}

function PaperTable({ titles, rows }: { titles: readonly string[]; rows: readonly string[][] }) {
  return (
    <table>
      <thead>
        <tr>
          {titles.map((t) => (
            <th key={t}>{t}</th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row, k) => (
          <tr key={k}>
            {row.map((cell, c) => (
              <td key={c}>{cell}</td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
