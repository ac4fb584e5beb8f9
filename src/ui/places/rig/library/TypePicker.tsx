"use client";

import { Combobox, Text, TextInput, useCombobox } from "@mantine/core";
import { useState, type KeyboardEvent } from "react";
import type { FixtureType } from "@/core/fixture/type";
import type { Shelf } from "./choices";
import { answers } from "./typeSearch";
import classes from "./Library.module.css";

/** The type of what is patched: typing starts afresh, Enter takes the best match, and while the list is open does nothing else. */
export function TypePicker({
  shelves,
  type,
  onPick,
}: {
  shelves: readonly Shelf[];
  type: FixtureType;
  onPick(id: string): void;
}) {
  const combobox = useCombobox({ onDropdownClose: () => (combobox.resetSelectedOption(), setTyped(null)) });
  const [typed, setTyped] = useState<string | null>(null);
  const found = answers(shelves, typed ?? "");
  const pick = (id: string) => {
    onPick(id);
    combobox.closeDropdown();
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key !== "Enter" || !combobox.dropdownOpened) return;
    event.preventDefault();
    event.stopPropagation();
    const chosen = combobox.getSelectedOptionIndex();
    const best = found.flatMap(({ types }) => types)[Math.max(0, chosen)];
    if (best) pick(best.id);
  };
  return (
    <Combobox store={combobox} onOptionSubmit={pick} withinPortal>
      <Combobox.Target withExpandedAttribute>
        <TextInput
          label="Type"
          role="combobox"
          data-autofocus
          value={typed ?? `${type.maker} ${type.model}`}
          aria-label="Type"
          onFocus={(e) => e.currentTarget.select()}
          onClick={() => combobox.openDropdown()}
          onBlur={() => combobox.closeDropdown()}
          onKeyDownCapture={onKeyDown}
          onChange={(e) => (setTyped(e.currentTarget.value), combobox.openDropdown(), combobox.resetSelectedOption())}
          rightSection={<Combobox.Chevron />}
          rightSectionPointerEvents="none"
        />
      </Combobox.Target>
      <Combobox.Dropdown>
        <Combobox.Options mah={320} style={{ overflowY: "auto" }} aria-label="Types">
          {found.map(({ title, types }) => (
            <Combobox.Group key={title} label={title}>
              {types.map((t) => (
                <Combobox.Option key={t.id} value={t.id} active={t.id === type.id}>
                  <span className={classes.option}>
                    <span>{t.model}</span>
                    <Text span size="xs" c="dimmed">
                      {t.maker}
                    </Text>
                  </span>
                </Combobox.Option>
              ))}
            </Combobox.Group>
          ))}
          {found.length === 0 && <Combobox.Empty>No match. Rig, Library shows all types</Combobox.Empty>}
        </Combobox.Options>
      </Combobox.Dropdown>
    </Combobox>
  );
}
