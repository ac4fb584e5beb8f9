"use client";

import { Button, FileButton, Group, Modal, Stack, Text } from "@mantine/core";
import { useEffect, useState } from "react";
import { MOST_BYTES } from "@/core/exchange/showFile";
import { isRefusal, refusalText } from "@/core/show/refusal";
import type { Show } from "@/core/show/schema";
import { readAside } from "@/session/reader/readAside";
import type { ShowCard } from "@/session/storage/database";
import { listShows } from "@/session/storage/shows";
import { ReadingBar } from "@/ui/base/parts/ReadingBar";
import { useSession } from "@/ui/show/useSession";
import { BringStep } from "./BringStep";
import { plural } from "@/core/units/plural";

const STOPPED = "It was not read to its end; nothing was taken in";

/** Palettes, effects, groups, macros, views, pages, lists and cues of another show, brought into this one. */
export function BringDialog({ opened, onClose }: { opened: boolean; onClose(): void }) {
  return (
    <Modal opened={opened} onClose={onClose} title="Bring over from another show" size={1080} centered>
      {opened && <Bring onClose={onClose} />}
    </Modal>
  );
}

function Bring({ onClose }: { onClose(): void }) {
  const session = useSession();
  const [other, setOther] = useState<Show | null>(null);
  const [cards, setCards] = useState<ShowCard[] | null>(null);
  const [share, setShare] = useState(0);
  const [reading, setReading] = useState<AbortController | null>(null);
  const busy = reading !== null;
  const [trouble, setTrouble] = useState<string | null>(null);
  useEffect(() => {
    listShows().then(
      (all) => setCards(all.filter((c) => c.id !== session.id)),
      () => setCards([]),
    );
  }, [session.id]);
  const open = async (read: (stop: AbortSignal) => Promise<Show | string>) => {
    const stop = new AbortController();
    setShare(0);
    setReading(stop);
    const found = await read(stop.signal);
    setReading(null);
    if (typeof found === "string") return setTrouble(found);
    setTrouble(null);
    setOther(found);
  };
  const ofBrowser = (card: ShowCard) =>
    open(async (stop) => {
      const opened = await readAside<"open">({ kind: "open", id: card.id }, setShare, stop);
      return opened === "stopped" ? STOPPED : isRefusal(opened) ? refusalText(opened) : opened.world.show;
    });
  const ofFile = (file: File | null) =>
    void (
      file &&
      open(async (stop) => {
        const read = await readAside<"show">({ kind: "show", file, most: MOST_BYTES }, setShare, stop);
        return read === "stopped" ? STOPPED : "refused" in read ? `${file.name}: ${refusalText(read)}` : read.show;
      })
    );
  if (other) return <BringStep other={other} onBack={() => setOther(null)} onClose={onClose} />;
  return (
    <Stack>
      <Text size="sm">
        Open another show beside this one. Nothing of it is changed, and nothing comes over before you have ticked it
        and seen what it would do here.
      </Text>
      <Group>
        <FileButton onChange={ofFile} accept=".zip" inputProps={{ "aria-label": "Show file to bring from" }}>
          {(props) => (
            <Button {...props} data-autofocus disabled={busy}>
              Choose a show file
            </Button>
          )}
        </FileButton>
        {reading && <ReadingBar share={share} onStop={() => reading.abort()} />}
      </Group>
      {trouble && (
        <Text c="var(--danger)" role="alert">
          {trouble}
        </Text>
      )}
      {cards && cards.length > 0 && (
        <Stack gap={6}>
          <Text size="sm" c="dimmed">
            Or a show of this browser:
          </Text>
          {cards.map((card) => (
            <Button
              key={card.id}
              variant="default"
              justify="space-between"
              disabled={busy}
              onClick={() => void ofBrowser(card)}
              rightSection={
                <span className="muted">
                  {plural(card.fixtures, "fixture")}, {plural(card.cues, "cue")}
                </span>
              }
            >
              {card.name}
            </Button>
          ))}
        </Stack>
      )}
      {cards && cards.length === 0 && (
        <Text size="sm" c="dimmed">
          This browser keeps no other show.
        </Text>
      )}
    </Stack>
  );
}
