"use client";

import { Autocomplete, Button, Group, Text } from "@mantine/core";
import { useState } from "react";
import { attributeCalled, attributeInfo, attributesKnown } from "@/core/fixture/attribute";

interface Props {
  attribute: string;
  label?: string | undefined;
  onChange(name: string): void;
}

/** An attribute chosen by its pretty name or its GDTF name, in any case; what is none of them asks whether it is one of your own. */
export function AttributeField({ attribute, label, onChange }: Props) {
  const shown = attributeInfo(attribute).label;
  const [draft, setDraft] = useState<string | null>(null);
  const [own, setOwn] = useState<string | null>(null);
  const take = (text: string) => {
    setDraft(null);
    const wanted = text.trim();
    if (wanted === "" || wanted === shown) return setOwn(null);
    const known = attributeCalled(wanted);
    setOwn(known === undefined ? wanted : null);
    if (known !== undefined) onChange(known);
  };
  return (
    <div>
      <Autocomplete
        size="xs"
        label={label}
        aria-label="Attribute"
        data={[...new Set(attributesKnown().map((a) => a.label))]}
        value={draft ?? own ?? shown}
        onChange={setDraft}
        onOptionSubmit={take}
        onBlur={() => draft !== null && take(draft)}
        onKeyDown={(e) => e.key === "Enter" && draft !== null && take(draft)}
        w={170}
        limit={60}
      />
      {own !== null && (
        <Group gap={6} mt={4} wrap="nowrap" data-testid="own-attribute">
          <Text size="xs">Not on the list: an attribute of your own?</Text>
          <Button
            size="compact-xs"
            onClick={() => {
              onChange(own.replace(/[\s.]+/g, "_").slice(0, 60));
              setOwn(null);
            }}
          >
            Yes
          </Button>
          <Button size="compact-xs" variant="default" onClick={() => setOwn(null)}>
            No
          </Button>
        </Group>
      )}
    </div>
  );
}
