"use client";

import { Button, FileButton, Group, TextInput } from "@mantine/core";
import { IconPlus, IconUpload } from "@tabler/icons-react";
import { useRouter } from "next/navigation";
import { useCallback, useEffect, useState } from "react";
import { isLarge, MOST_BYTES, USUAL_BYTES } from "@/core/exchange/showFile";
import { OWN } from "@/core/dmx/consent";
import { isRefusal, refusalText } from "@/core/show/refusal";
import { newWorld } from "@/core/show/world";
import { readAside } from "@/session/reader/readAside";
import { isHosted } from "@/session/running";
import type { ShowCard } from "@/session/storage/database";
import { addShow, bringBack, listShows, nameFault, putAway, removeForGood } from "@/session/storage/shows";
import { ShowRow } from "./ShowRow";
import { NEW_VERSION, useNewVersion } from "@/ui/show/addresses/keptApp";
import classes from "./Picker.module.css";
import { plural } from "@/core/units/plural";

interface Said {
  text: string;
  act?: { label: string; does(): Promise<void> };
}

/** The shows of this browser. */
export function ShowPicker() {
  const router = useRouter();
  const [cards, setCards] = useState<ShowCard[] | null>(null);
  const [name, setName] = useState("");
  const [said, setSaid] = useState<Said | null>(null);
  const newVersion = useNewVersion();
  const refresh = useCallback(async () => setCards(await listShows()), []);

  useEffect(() => {
    readAside<"demo">({ kind: "demo" })
      .then((missing) => {
        if (isRefusal(missing)) setSaid({ text: refusalText(missing) });
        return refresh();
      })
      .catch(() =>
        setSaid({
          text: "This browser does not let pages keep data, so shows cannot be kept here. Leave private browsing, or allow storage for this address",
        }),
      );
  }, [refresh]);

  const open = (id: string) => router.push(`/show/${id}/build`);
  const create = async () => {
    const wanted = name.trim() || "New show";
    const id = nameFault(wanted) ?? (await addShow(newWorld(wanted), OWN));
    if (isRefusal(id)) return setSaid({ text: refusalText(id) });
    router.push(`/show/${id}/rig`);
  };
  const importFile = async (file: File | null) => {
    if (!file) return;
    await take(file, USUAL_BYTES);
  };
  /** Reads a show file beside the page and takes it in. @param most bytes it may unpack to. */
  const take = async (file: File, most: number): Promise<void> => {
    const stop = new AbortController();
    const tell = (share: number) =>
      setSaid({
        text: `Reading ${file.name}: ${Math.round(share * 100)} %`,
        act: { label: "Stop", does: async () => stop.abort() },
      });
    tell(0);
    const kept = await readAside<"keep">({ kind: "keep", file, most }, tell, stop.signal);
    if (kept === "stopped") return setSaid({ text: `${file.name} was not read to its end; nothing was taken in` });
    if (isLarge(kept))
      return setSaid({
        text: `${file.name}: ${refusalText(kept)}`,
        act: { label: "Open anyway", does: () => take(file, MOST_BYTES) },
      });
    if (isRefusal(kept)) return setSaid({ text: `${file.name}: ${refusalText(kept)}` });
    const { name, unknown, leftOut } = kept;
    const known =
      unknown.length > 0
        ? `. It holds ${plural(unknown.length, "thing")} this version does not know (${unknown.slice(0, 2).join("; ")}); they are kept as they are`
        : "";
    const left =
      leftOut.length > 0
        ? `. ${plural(leftOut.length, "file")} beside it (${leftOut.slice(0, 2).join("; ")}) ${leftOut.length === 1 ? "is" : "are"} not known and left out`
        : "";
    setSaid({ text: `"${name}" is in${known}${left}` });
    await refresh();
  };
  const remove = async (card: ShowCard) => {
    await putAway(card.id);
    setSaid({
      text: `"${card.name}" is deleted`,
      act: { label: "Undo", does: async () => (await bringBack(card.id), setSaid(null), await refresh()) },
    });
    await refresh();
  };

  const removeAll = async (card: ShowCard) => {
    if (await isHosted(card.id)) return setSaid({ text: `"${card.name}" is open in a window: close that first` });
    if (!confirm(`Delete "${card.name}" for good? This cannot be undone.`)) return;
    await removeForGood(card.id);
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
          {(props) => (
            <Button {...props} variant="default" leftSection={<IconUpload size={16} />}>
              Import a show file
            </Button>
          )}
        </FileButton>
      </header>
      <form className={classes.create} onSubmit={(e) => (e.preventDefault(), void create())}>
        <TextInput
          placeholder="Name of a new show"
          aria-label="Name of a new show"
          value={name}
          onChange={(e) => setName(e.currentTarget.value)}
          style={{ flex: 1 }}
        />
        <Button type="submit" leftSection={<IconPlus size={16} />}>
          New show
        </Button>
      </form>
      {newVersion && (
        <p className={classes.said} role="status">
          {NEW_VERSION}.
        </p>
      )}
      {said && (
        <Group className={classes.said} role="status">
          <span>{said.text}</span>
          {said.act && (
            <Button size="compact-sm" variant="default" onClick={() => void said.act!.does()}>
              {said.act.label}
            </Button>
          )}
        </Group>
      )}
      <ul className={classes.shows} aria-label="Shows" data-ready={cards !== null}>
        {shows.map((card) => (
          <ShowRow
            key={card.id}
            card={card}
            onOpen={() => open(card.id)}
            onChanged={refresh}
            onRemove={() => void remove(card)}
            onSay={(text) => setSaid({ text })}
          />
        ))}
      </ul>
      {away.length > 0 && (
        <details className={classes.away}>
          <summary>{away.length} deleted</summary>
          {away.map((card) => (
            <Group key={card.id} gap={8} mt={6}>
              <span>{card.name}</span>
              <Button size="compact-xs" variant="default" onClick={() => void bringBack(card.id).then(refresh)}>
                Restore
              </Button>
              <Button size="compact-xs" variant="subtle" color="red" onClick={() => void removeAll(card)}>
                Delete for good
              </Button>
            </Group>
          ))}
        </details>
      )}
      <p className={classes.where}>
        Shows are kept in this browser, at this address. Save one as a file to take it elsewhere.
      </p>
    </main>
  );
}
