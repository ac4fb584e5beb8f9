"use client";

import { Button } from "@mantine/core";
import type { Clash } from "@/core/patch/clash";
import type { Show } from "@/core/show/schema";
import type { Changes } from "./cells";
import { drafted, withFreeAddresses, withFreeNumbers } from "./draft";
import classes from "./PatchTable.module.css";
import { plural } from "@/core/units/plural";

interface Props {
  show: Show;
  draft: Changes;
  clashes: readonly Clash[];
  onChange(draft: Changes): void;
  onDiscard(): void;
}

/** What clashes in the draft, and the cures. Nothing of it is in the show yet. */
export function DraftBar({ show, draft, clashes, onChange, onDiscard }: Props) {
  const first = clashes[0];
  if (!first) return null;
  const { number } = drafted(show.fixtures[first.fixture]!, draft);
  const hasNumbers = clashes.some((c) => c.field === "number");
  const hasAddresses = clashes.some((c) => c.field === "addresses");
  return (
    <div className={classes.draftBar} role="alert" data-testid="draft">
      <span>
        ⚠ Not in the show yet: {plural(clashes.length, "clash", "clashes")}. {number}: {first.text}.
      </span>
      {hasAddresses && (
        <Button size="compact-sm" variant="default" onClick={() => onChange(withFreeAddresses(show, draft, clashes))}>
          Next free address
        </Button>
      )}
      {hasNumbers && (
        <Button
          size="compact-sm"
          variant="default"
          onClick={() => onChange(withFreeNumbers(show, draft, clashes).changes)}
        >
          Number from {withFreeNumbers(show, draft, clashes).from}
        </Button>
      )}
      <Button size="compact-sm" variant="subtle" onClick={onDiscard}>
        Discard
      </Button>
    </div>
  );
}
