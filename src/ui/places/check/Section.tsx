"use client";

import { Button } from "@mantine/core";
import { IconChevronDown, IconChevronRight } from "@tabler/icons-react";
import { useState, type ReactNode } from "react";
import type { Finding } from "@/core/check/finding";
import { canWait, kindOfFinding } from "@/core/check/kinds";
import { grouped } from "@/core/units/grouped";
import { capital } from "@/ui/base/typed/capital";
import classes from "./Check.module.css";

/** So many of a kind are told together. */
const MANY = 4;

interface Props {
  concern: string;
  found: readonly Finding[];
  card(finding: Finding): ReactNode;
  onAside(findings: readonly Finding[]): void;
  onNever(kind: string): void;
}

/** What was found about one thing; many of a kind under one line, to be opened, put aside or hidden for good at once. */
export function Section({ concern, found, card, onAside, onNever }: Props) {
  const kinds = [...grouped(found, (f) => kindOfFinding(f) ?? f.key)];
  return (
    <section aria-label={concern}>
      <h2>
        {concern} <span className="num">{found.length}</span>
      </h2>
      {kinds.map(([kind, own]) =>
        own.length < MANY ? (
          own.map(card)
        ) : (
          <Kind key={kind} kind={kind} found={own} card={card} onAside={onAside} onNever={onNever} />
        ),
      )}
    </section>
  );
}

function Kind({ kind, found, card, onAside, onNever }: Omit<Props, "concern"> & { kind: string }) {
  const [open, setOpen] = useState(!canWait(found[0]!));
  return (
    <div className={classes.kind} data-testid="finding-kind">
      <p>
        <button type="button" aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? <IconChevronDown size={16} aria-hidden /> : <IconChevronRight size={16} aria-hidden />}
          {capital(kind)} <span className="num">{found.length}</span>
        </button>
        <Button size="compact-sm" variant="subtle" color="gray" onClick={() => onAside(found)}>
          Put all {found.length} aside
        </Button>
        <Button
          size="compact-sm"
          variant="subtle"
          color="gray"
          title="Hides every finding of this kind, new ones too"
          onClick={() => onNever(kind)}
        >
          Hide this kind
        </Button>
      </p>
      {open && found.map(card)}
    </div>
  );
}
