"use client";

import { Button, Chip, Modal, ScrollArea, SegmentedControl, Stack, Text } from "@mantine/core";
import { useMemo, useState } from "react";
import { givenIn, hardenCue } from "@/core/cue/intents/hardIntent";
import { updateCue } from "@/core/cue/intents/recordIntents";
import { sourcesOfHeld } from "@/core/cue/sources";
import { updatePalette } from "@/core/palette/intents";
import { paletteText } from "@/core/palette/words";
import { usesOf, usesText } from "@/core/palette/uses";
import type { Intent } from "@/core/show/change/intent";
import { plain } from "@/core/units/units";
import { useForesightOf } from "@/ui/show/foresight/useForesight";
import { RipplePairs } from "@/ui/stage/pictures/RipplePairs";
import { capital } from "@/ui/base/typed/capital";
import { useSession, useShow } from "@/ui/show/useSession";
import classes from "./Palettes.module.css";
import { plural } from "@/core/units/plural";

const MOST_PAIRS = 40;
type Choice = "leave" | "these" | "type" | "cue" | "keep";

/** Every palette and cue that what is held came from, each to be written or left; with what that changes elsewhere. */
export function UpdateDialog({ onClose }: { onClose(): void }) {
  const session = useSession();
  const world = useShow((s) => s.world);
  const runs = useShow((s) => s.playing.runs);
  const sources = useMemo(
    () =>
      sourcesOfHeld(
        world,
        Object.fromEntries(Object.entries(runs).flatMap(([id, run]) => (run.cue ? [[id, run.cue]] : []))),
      ),
    [world, runs],
  );
  const [kept, setKept] = useState<ReadonlySet<string>>(new Set());
  const [choices, setChoices] = useState<Record<string, Choice>>({});
  const rows = [
    ...[...sources.palettes].map(([id, keys]) => ({ id, keys: keys.length, palette: true as const, list: "" })),
    ...sources.cues.map((c) => ({ id: c.cue, keys: c.keys.length, palette: false as const, list: c.list.id })),
  ];
  const chosen = (id: string, palette: boolean): Choice => choices[id] ?? (palette ? "these" : "leave");
  const intents: Intent[] = rows.flatMap((row) => {
    const choice = chosen(row.id, row.palette);
    if (choice === "leave") return [];
    return row.palette
      ? [updatePalette.of({ palette: row.id, type: choice === "type" })]
      : [
          updateCue.of({
            list: row.list,
            cue: row.id,
            all: false,
            ...(choice === "keep" ? { looks: "keeplooks" } : {}),
          }),
        ];
  });
  const found = useForesightOf(intents);
  const palettes = rows.filter((r) => r.palette && chosen(r.id, true) !== "leave").map((r) => r.id);
  const keeps = found.ripple
    .filter((r) => kept.has(r.cue))
    .flatMap(({ list, cue }) =>
      palettes
        .filter((palette) => givenIn(world.show, list, cue, palette).length > 0)
        .map((palette) => hardenCue.of({ list, cue, palette })),
    );
  const keep = (cue: string, on: boolean) => {
    const next = new Set(kept);
    if (on) next.add(cue);
    else next.delete(cue);
    setKept(next);
  };
  const update = () => {
    if (!session.act([...keeps, ...intents])) onClose();
  };
  return (
    <Modal opened onClose={onClose} title="Update the sources" size={780} centered>
      <Stack gap="sm">
        {rows.length === 0 && (
          <Text c="dimmed">No held value replaces a palette or a running cue. Record a palette or a cue instead.</Text>
        )}
        {rows.map((row) => {
          const list = world.show.lists[row.list];
          const cue = list?.cues[row.id];
          const uses = row.palette ? usesText({ ...usesOf(world, row.id), held: 0 }) : "";
          return (
            <div key={row.id} className={classes.source}>
              <div>
                <b>
                  {row.palette ? paletteText(world, row.id) : `cue ${plain(cue?.number ?? 0, 3)} ${cue?.name ?? ""}`}
                </b>
                <Text size="sm" c="dimmed">
                  {plural(row.keys, "held value")}
                  {row.palette ? (uses ? `; used ${uses}` : "; used nowhere else") : ` stored in ${list?.name ?? ""}`}
                </Text>
              </div>
              <SegmentedControl
                size="xs"
                aria-label={`What happens to ${row.palette ? "the palette" : "the cue"}`}
                value={chosen(row.id, row.palette)}
                onChange={(v) => setChoices({ ...choices, [row.id]: v })}
                data={
                  row.palette
                    ? [
                        { value: "these", label: "only these fixtures" },
                        { value: "type", label: "the whole type" },
                        { value: "leave", label: "leave" },
                      ]
                    : [
                        { value: "cue", label: "write into it" },
                        { value: "keep", label: "and keep later looks" },
                        { value: "leave", label: "leave" },
                      ]
                }
              />
            </div>
          );
        })}
        <Text size="sm" data-testid="update-says">
          {intents.length === 0
            ? "Nothing is written."
            : found.refused || !found.known
              ? capital(found.says)
              : found.ripple.length === 0
                ? "No other look changes."
                : `${plural(found.ripple.length, "look")} ${found.ripple.length === 1 ? "changes" : "change"}: now, and after. One may stay as it is, by numbers.`}
        </Text>
        {found.ripple.length > 0 && (
          <ScrollArea.Autosize mah={300}>
            <RipplePairs
              ripple={found.ripple}
              then={found}
              width={104}
              height={72}
              most={MOST_PAIRS}
              more={({ cue }) => (
                <Chip size="xs" variant="outline" checked={kept.has(cue)} onChange={(on) => keep(cue, on)}>
                  stays as it is
                </Chip>
              )}
            />
          </ScrollArea.Autosize>
        )}
        <Button disabled={intents.length === 0 || found.refused} onClick={update}>
          Update
        </Button>
      </Stack>
    </Modal>
  );
}
