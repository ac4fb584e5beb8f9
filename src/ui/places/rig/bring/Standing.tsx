"use client";

import { ScrollArea } from "@mantine/core";
import { useMemo, useState, type Dispatch, type SetStateAction } from "react";
import type { Show } from "@/core/show/schema";
import { fixturesByNumber } from "@/core/show/world";
import classes from "./Bring.module.css";
import { plural } from "@/core/units/plural";

const MOST = 1000;

interface Props {
  other: Show;
  show: Show;
  /** Fixtures of the other show to those of this one; "" for none. */
  fixtures: Readonly<Record<string, string>>;
  set: Dispatch<SetStateAction<Record<string, string>>>;
}

/** Which fixture here stands for each of the other show: by number, by type, or typed by hand. */
export function Standing({ other, show, fixtures, set }: Props) {
  const [open, setOpen] = useState(false);
  const theirs = useMemo(() => fixturesByNumber(other), [other]);
  const mine = useMemo(() => new Map(Object.values(show.fixtures).map((f) => [f.number, f])), [show.fixtures]);
  const none = theirs.filter((f) => !fixtures[f.id]).length;
  return (
    <details className={classes.map} onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary>
        {plural(theirs.length - none, "fixture")} match one here
        {none > 0 ? `, ${none} match none: what is stored for them is left out` : ""}
      </summary>
      {open && (
        <ScrollArea h={150}>
          {theirs.slice(0, MOST).map((f) => (
            <Pair
              key={`${f.id} ${fixtures[f.id] ?? ""}`}
              label={f}
              stands={show.fixtures[fixtures[f.id] ?? ""]}
              find={(number) => mine.get(number)?.id}
              set={(id) => set((h) => ({ ...h, [f.id]: id }))}
            />
          ))}
          {theirs.length > MOST && <p className="muted">The first {MOST.toLocaleString("en")} of them.</p>}
        </ScrollArea>
      )}
    </details>
  );
}

interface PairProps {
  label: { number: number; name: string };
  stands: { number: number; name: string } | undefined;
  find(number: number): string | undefined;
  set(id: string): void;
}

function Pair({ label, stands, find, set }: PairProps) {
  const [text, setText] = useState(stands ? String(stands.number) : "");
  const unknown = text !== "" && find(Number(text)) === undefined;
  const put = () => {
    const id = text === "" ? "" : find(Number(text));
    if (id !== undefined) set(id);
  };
  return (
    <label className={classes.pair}>
      <span>
        <span className="num">{label.number}</span> {label.name}
      </span>
      <span className={classes.stands}>
        {unknown ? "no fixture of that number here" : (stands?.name ?? "for none")}
      </span>
      <input
        aria-label={`Matches fixture ${label.number}`}
        inputMode="numeric"
        placeholder="none"
        value={text}
        data-unknown={unknown}
        onChange={(e) => setText(e.currentTarget.value.trim())}
        onBlur={put}
        onKeyDown={(e) => e.key === "Enter" && put()}
      />
    </label>
  );
}
