"use client";

import { Modal, NavLink, ScrollArea, SegmentedControl, TextInput } from "@mantine/core";
import { useState } from "react";
import { putOnPage } from "@/core/deck/intents";
import type { Page, Placed } from "@/core/show/deckSchema";
import { effectsByNumber, listsByNumber, macrosByNumber, palettesByNumber } from "@/core/show/world";
import { useSession, useShow } from "@/ui/show/useSession";

type As = "lane" | "pad" | "held";

/** What is put in an empty place of a page. */
export function PlacePicker({ page, place, onClose }: { page: Page; place: number; onClose(): void }) {
  const session = useSession();
  const show = useShow((s) => s.world.show);
  const [what, setWhat] = useState<Placed["what"]>("list");
  const [as, setAs] = useState<As>("lane");
  const [find, setFind] = useState("");
  const all = {
    list: listsByNumber(show),
    effect: effectsByNumber(show),
    palette: palettesByNumber(show),
    macro: macrosByNumber(show),
  }[what];
  const words = find.toLowerCase().split(/\s+/).filter(Boolean);
  const found = all.filter((r) => words.every((w) => `${r.number} ${r.name}`.toLowerCase().includes(w)));
  const put = (id: string) => {
    const held = what !== "macro" && as === "held";
    const intent = putOnPage.of({
      page: page.number,
      place,
      put: { what, id, pad: as !== "lane" || what !== "list", ...(held ? { held } : {}) },
    });
    if (!session.act([intent])) onClose();
  };
  return (
    <Modal opened onClose={onClose} centered title={`Place ${place} of page ${page.number} ${page.name}`}>
      <SegmentedControl
        fullWidth
        size="xs"
        aria-label="What is put there"
        data={[
          { value: "list", label: "List" },
          { value: "effect", label: "Effect" },
          { value: "palette", label: "Palette" },
          { value: "macro", label: "Macro" },
        ]}
        value={what}
        onChange={(v) => setWhat(v)}
      />
      {what !== "macro" && (
        <SegmentedControl
          mt="xs"
          fullWidth
          size="xs"
          aria-label="How it is played"
          data={[
            ...(what === "list" ? [{ value: "lane" as const, label: "as a lane" }] : []),
            { value: "pad", label: "as a pad" },
            { value: "held", label: "as a pad that is held" },
          ]}
          value={what !== "list" && as === "lane" ? "pad" : as}
          onChange={(v) => setAs(v)}
        />
      )}
      <TextInput
        mt="xs"
        size="xs"
        placeholder="find"
        aria-label="Find"
        value={find}
        onChange={(e) => setFind(e.currentTarget.value)}
      />
      <ScrollArea.Autosize mah={360} mt="xs">
        {found.map((r) => (
          <NavLink key={r.id} component="button" label={`${r.number} ${r.name}`} onClick={() => put(r.id)} />
        ))}
        {found.length === 0 && (
          <p className="muted">{all.length === 0 ? `There is no ${what} yet.` : "No match. Try fewer words."}</p>
        )}
      </ScrollArea.Autosize>
    </Modal>
  );
}
