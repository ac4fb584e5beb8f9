"use client";

import { Button, FileButton, Group, TextInput } from "@mantine/core";
import { IconPlus, IconUpload } from "@tabler/icons-react";
import { useRouter } from "next/navigation";
import { useCallback, useEffect, useState } from "react";
import { checkShowFile } from "@/core/exchange/showFile";
import { isRefusal, refusalText } from "@/core/show/refusal";
import { newHands, newWorld } from "@/core/show/world";
import { ensureDemo } from "@/session/open";
import type { ShowCard } from "@/session/storage/database";
import { addShow, bringBack, listShows, putAway, removeForGood } from "@/session/storage/shows";
import { ShowRow } from "./ShowRow";
import classes from "./Picker.module.css";

interface Said {
  text: string;
  undo?: () => Promise<void>;
}

/** The shows of this browser. */
export function ShowPicker() {
  const router = useRouter();
  const [cards, setCards] = useState<ShowCard[] | null>(null);
  const [name, setName] = useState("");
  const [said, setSaid] = useState<Said | null>(null);
  const refresh = useCallback(async () => setCards(await listShows()), []);

  useEffect(() => {
    ensureDemo().then(refresh).catch(() => setSaid({ text: "This browser does not let pages keep data, so shows cannot be kept here. Leave private browsing, or allow storage for this address" }));
  }, [refresh]);

  const open = (id: string) => router.push(`/show/${id}/build`);
  const create = async () => {
    const world = newWorld(name.trim() || "New show");
    const id = await addShow(world);
    router.push(`/show/${id}/rig`);
  };
  const importFile = async (file: File | null) => {
    if (!file) return;
    const checked = checkShowFile(new Uint8Array(await file.arrayBuffer()));
    if (isRefusal(checked)) return setSaid({ text: `${file.name}: ${refusalText(checked)}` });
    const { show, unknown } = checked;
    await addShow({ show, hands: newHands(show) });
    const kept = unknown.length > 0 ? `. It holds ${unknown.length} ${unknown.length === 1 ? "thing" : "things"} this version does not know (${unknown.slice(0, 2).join("; ")}); they are kept as they are` : "";
    setSaid({ text: `"${show.name}" is in${kept}` });
    await refresh();
  };
  const remove = async (card: ShowCard) => {
    await putAway(card.id);
    setSaid({ text: `"${card.name}" is put away`, undo: () => bringBack(card.id) });
    await refresh();
  };

  const shows = cards?.filter((c) => c.deleted === null) ?? [];
  const away = cards?.filter((c) => c.deleted !== null) ?? [];
  return (
    <main className={classes.picker}>
      <header className={classes.head}>
        <span className={classes.mark} aria-hidden />
        <h1>Bold Comet</h1>
        <FileButton onChange={(f) => void importFile(f)} accept=".zip">
          {(props) => <Button {...props} variant="default" leftSection={<IconUpload size={16} />}>Import a show file</Button>}
        </FileButton>
      </header>
      <form className={classes.create} onSubmit={(e) => (e.preventDefault(), void create())}>
        <TextInput placeholder="Name of a new show" aria-label="Name of a new show" value={name} onChange={(e) => setName(e.currentTarget.value)} style={{ flex: 1 }} />
        <Button type="submit" leftSection={<IconPlus size={16} />}>New show</Button>
      </form>
      {said && (
        <Group className={classes.said} role="status">
          <span>{said.text}</span>
          {said.undo && <Button size="compact-sm" variant="default" onClick={() => void said.undo!().then(() => (setSaid(null), refresh()))}>Undo</Button>}
        </Group>
      )}
      <ul className={classes.shows} aria-label="Shows" data-ready={cards !== null}>
        {shows.map((card) => <ShowRow key={card.id} card={card} onOpen={() => open(card.id)} onChanged={refresh} onRemove={() => void remove(card)} onSay={(text) => setSaid({ text })} />)}
      </ul>
      {away.length > 0 && (
        <details className={classes.away}>
          <summary>{away.length} put away</summary>
          {away.map((card) => (
            <Group key={card.id} gap={8} mt={6}>
              <span>{card.name}</span>
              <Button size="compact-xs" variant="default" onClick={() => void bringBack(card.id).then(refresh)}>Bring back</Button>
              <Button size="compact-xs" variant="subtle" color="red" onClick={() => confirm(`Delete "${card.name}" for good? This cannot be undone.`) && void removeForGood(card.id).then(refresh)}>Delete for good</Button>
            </Group>
          ))}
        </details>
      )}
      <p className={classes.where}>Shows live in this browser, at this address. A file takes one elsewhere.</p>
    </main>
  );
}
